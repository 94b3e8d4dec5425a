import { type HoldingAnswer } from '@contract/holding.ts'
import { when } from '@web/format/times.ts'
import { Waiting } from '@web/kit/Waiting.tsx'
import { bytesWords, HELD_NAME, HELD_WORDS, holdingSentence } from './holdwords.ts'
import { useHolding } from './holdquery.ts'
import './holds.scss'

/** How the program itself holds up, in words: for whoever looks after it. */
export function Holds() {
  const holding = useHolding({ isAsked: true, everyMs: 15_000 })
  if (!holding.data) return <Waiting says="Asking how it holds up" problem={holding.error} />
  return <HoldsView at={holding.data} />
}

export function HoldsView({ at }: { at: HoldingAnswer }) {
  const { nowMs, zone } = at
  return (
    <section className="holds">
      <h2>{holdingSentence(at)}</h2>
      <dl>
        {at.lines.map(({ what, level }) => {
          const { is, todo } = HELD_WORDS[what](at)
          return (
            <div key={what} data-level={level}>
              <dt>{HELD_NAME[what]}</dt>
              <dd>
                {is}
                {todo && (level === 'look' || level === 'act') ? <strong> {todo}</strong> : null}
                {todo && level === 'well' && what === 'backups' ? <span className="dim"> {todo}</span> : null}
              </dd>
            </div>
          )
        })}
      </dl>
      {at.refusals.length > 0 ? (
        <>
          <h3>Not taken from devices</h3>
          <ul className="plain">
            {at.refusals.map((r, i) => (
              <li key={i}>
                {r.from} <span className="dim">{when(r.atMs, nowMs, zone)}</span>
                <br />
                {r.why}
              </li>
            ))}
          </ul>
        </>
      ) : null}
      <p className="small-print">
        Up since {when(at.upSinceMs, nowMs, zone)}
        {at.disk ? `; data on a disk of ${bytesWords(at.disk.totalBytes)}` : ''}. The same for a machine that watches:{' '}
        <code>/api/live</code>, <code>/api/ready</code>, <code>/api/metrics</code>.
      </p>
    </section>
  )
}
