import { useEffect, useRef } from 'react'
import { type BenchThing, type CellLine, type CellsAnswer } from '@contract/cell.ts'
import { type Units } from '@web/format/numbers.ts'
import { Plain } from '@web/kit/Keys.tsx'
import { useAddress } from '@web/kit/useAddress.ts'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { Waiting } from '@web/kit/Waiting.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useIsLead, useMe } from '@web/people/queries.ts'
import { PhoneMore } from '@web/sections/PhoneMore.tsx'
import { BenchOpened } from './BenchOpened.tsx'
import { CellOpened } from './CellOpened.tsx'
import { cellSentence, cellsSentence, creepingSentence, heavierSentence, todoWords, todoOf } from './cellwords.ts'
import { failsSentence } from './reamerwords.ts'
import { GoRound, NewNeck } from './GoRound.tsx'
import { OneMore } from './OneMore.tsx'
import { Shelves } from './Shelves.tsx'
import { Way } from './Way.tsx'
import { useCells } from './queries.ts'

/** Cells: what is open at the robots, the way of their wire, the necks that go round, and whether there are enough. */
export function CellsPage() {
  const { get, put } = useAddress()
  const cells = useCells()
  const me = useMe()
  const isPhone = useIsPhone()
  const units = me.data?.units ?? 'metric'
  const isLead = useIsLead()
  if (!cells.data)
    return (
      <main className="cells">
        <Waiting says="Looking at the cells" problem={cells.error} />
      </main>
    )
  const at = cells.data
  const open = at.cells.find((c) => c.stationId === get('cell'))
  const thing = at.bench.find((b) => b.carrierId === get('on'))
  const isAlone = isPhone && (open ?? thing) !== undefined
  const opened = { at, units, isLead, open, thing, put, piece: get('piece') === '' ? null : Number(get('piece')) }
  const head = isAlone && open ? cellSentence(open, at.nowMs) : isAlone && thing ? thing.name : cellsSentence(at)
  return (
    <main className="cells">
      <h1 className="sentence">{head}</h1>
      <Trouble problem={cells.error} />
      {isAlone ? <Alone {...opened} /> : <All {...opened} />}
      {isPhone ? <PhoneMore /> : null}
    </main>
  )
}

interface Opened {
  at: CellsAnswer
  units: Units
  isLead: boolean
  open: CellLine | undefined
  thing: BenchThing | undefined
  piece: number | null
  put: (params: Record<string, string | null>) => void
}

function OpenCell({ at, units, isLead, open, piece, put }: Opened) {
  if (!open) return null
  const onPiece = (p: number | null) => put({ piece: p === null ? null : String(p) })
  return <CellOpened key={open.stationId} cell={open} {...{ at, units, isLead, piece, onPiece }} />
}
function OpenThing({ units, thing, put }: Opened) {
  return thing ? (
    <BenchOpened key={thing.carrierId} thing={thing} units={units} onDone={() => put({ on: null })} />
  ) : null
}

/** On a phone one thing at a time: at the guard, or at the bench. */
function Alone(props: Opened) {
  const { open, units, piece, put } = props
  return (
    <>
      <OpenCell {...props} />
      {open ? (
        <Way
          cell={open}
          units={units}
          openPiece={piece}
          onOpen={(l) => l.piece !== null && put({ piece: String(l.piece) })}
        />
      ) : null}
      <OpenThing {...props} />
      <Plain className="cells-back" onClick={() => put({ cell: null, on: null, piece: null })}>
        all cells
      </Plain>
    </>
  )
}

function All(props: Opened) {
  const { at, open, thing, isLead, put } = props
  const toggle = (c: CellLine) =>
    put({ cell: c.stationId === open?.stationId ? null : c.stationId, on: null, piece: null })
  return (
    <>
      <List {...props} onOpen={toggle} onPiece={(c, p) => put({ cell: c.stationId, on: null, piece: String(p) })}>
        <OpenCell {...props} />
      </List>
      <Shelves at={at} openId={thing?.carrierId ?? null} onOpen={(id) => put({ on: id, cell: null })} onCell={toggle} />
      <OpenThing {...props} />
      {at.rounds.map((r) => (
        <OneMore key={r.familyId ?? ''} round={r} currency={at.currency} />
      ))}
      {isLead ? <GoRound at={at} /> : null}
      {isLead && at.rounds.length > 0 ? <NewNeck at={at} /> : null}
    </>
  )
}

function List(props: {
  at: CellsAnswer
  units: Units
  open: CellLine | undefined
  piece: number | null
  onOpen: (c: CellLine) => void
  onPiece: (c: CellLine, piece: number) => void
  children: React.ReactNode
}) {
  const { at, units, open } = props
  return (
    <section aria-label="Cells" className="cells-list">
      {at.cells.map((c) => (
        <article key={c.stationId} className={c.isDown ? 'cell-row is-down' : 'cell-row'} aria-label={c.name}>
          <Plain className="cell-name" aria-expanded={open?.stationId === c.stationId} onClick={() => props.onOpen(c)}>
            {c.name}
            <small className="dim">{[c.wireName, c.isDown ? 'down' : ''].filter(Boolean).join(', ')}</small>
          </Plain>
          <div className="cell-what">
            <Way
              cell={c}
              units={units}
              openPiece={open?.stationId === c.stationId ? props.piece : null}
              onOpen={(l) => l.piece !== null && props.onPiece(c, l.piece)}
            />
            {open?.stationId === c.stationId ? null : (
              <p className="cell-todo">
                {todoOf(c).length > 0 ? `${todoWords(todoOf(c)[0]?.task ?? 'toolCentre')}. ` : ''}
                {creepingSentence(c, at)} {failsSentence(c, at)} {heavierSentence(c, units)}
              </p>
            )}
          </div>
          {open?.stationId === c.stationId ? <Here>{props.children}</Here> : null}
        </article>
      ))}
    </section>
  )
}

/** Opened, it is where the eye is. */
function Here({ children }: { children: React.ReactNode }) {
  const ref = useRef<HTMLDivElement>(null)
  useEffect(() => {
    ref.current?.scrollIntoView({ block: 'nearest' })
  }, [])
  return (
    <div className="cell-open" ref={ref}>
      {children}
    </div>
  )
}
