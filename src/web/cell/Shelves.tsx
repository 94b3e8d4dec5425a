import { type BenchThing, type CellLine, type CellsAnswer } from '@contract/cell.ts'
import { Plain } from '@web/kit/Keys.tsx'
import { benchWords, heldFor, STATUS_WORD } from './cellwords.ts'

/** Three shelves: on a robot, ready, to mend; and guns that hang nowhere beside them. */
export function Shelves(props: {
  at: CellsAnswer
  openId: string | null
  onOpen: (id: string) => void
  onCell: (c: CellLine) => void
}) {
  const { at } = props
  const on = at.cells.filter((c) => c.goesRound)
  const necks = at.bench.filter((b) => b.type === 'neck')
  const guns = at.bench.filter((b) => b.type === 'gun')
  const ready = necks.filter((n) => n.status === 'ready')
  const toMend = necks.filter((n) => n.status !== 'ready')
  const loose = (things: readonly BenchThing[]) =>
    things.map((t) => (
      <li key={t.carrierId}>
        <Plain aria-pressed={props.openId === t.carrierId} onClick={() => props.onOpen(t.carrierId)}>
          <strong>{t.name}</strong>
          <small>{benchWords(t)}</small>
          <small className="dim">
            {[t.familyName, t.type === 'gun' ? STATUS_WORD[t.status] : '', heldFor(t.sinceMs, at.nowMs)]
              .filter(Boolean)
              .join(', ')}
          </small>
        </Plain>
      </li>
    ))
  if (on.length === 0 && at.bench.length === 0) return null
  return (
    <section aria-label="Necks and guns" className="shelves">
      {on.length + necks.length > 0 ? (
        <>
          <Shelf name="On a robot">
            {on.map((c) => (
              <li key={c.stationId}>
                <Plain onClick={() => props.onCell(c)}>
                  <strong>{c.neckName}</strong>
                  <small>{c.name}</small>
                  <small className="dim">{heldFor(c.neckSinceMs, at.nowMs)}</small>
                </Plain>
              </li>
            ))}
          </Shelf>
          <Shelf name="Ready">{loose(ready)}</Shelf>
          <Shelf name="To mend">{loose(toMend)}</Shelf>
        </>
      ) : null}
      {guns.length > 0 ? <Shelf name="Guns on the bench">{loose(guns)}</Shelf> : null}
    </section>
  )
}

function Shelf({ name, children }: { name: string; children: React.ReactNode[] }) {
  return (
    <div className="shelf">
      <h2>
        {name} <span className="dim">{children.length}</span>
      </h2>
      {children.length === 0 ? <p className="dim">None.</p> : <ul>{children}</ul>}
    </div>
  )
}
