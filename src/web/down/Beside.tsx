import { stepKey } from '@core/diagnose/moves.ts'
import { minutesOf } from '@core/diagnose/knowledge.ts'
import { type Said } from '@core/diagnose/session.ts'
import { type DownAnswer } from '@contract/down.ts'
import { minutes } from '@web/format/numbers.ts'
import { when } from '@web/format/times.ts'
import { capital } from '@web/format/words.ts'
import { linerApartWords, linerRuleWords } from './downwords.ts'
import { usualOrder, type Search } from './reckoned.ts'

/** At the desk: what is ruled out and by what, the two orders side by side, how this gun stopped before. */
export function Beside({ down, found, said }: { down: DownAnswer; found: Search; said: readonly Said[] }) {
  const usual = usualOrder(found)
  const ours = found.plan[0]?.expectedMin ?? 0
  return (
    <aside className="down-beside">
      {said.length > 0 ? (
        <section aria-label="So far">
          <h2>So far</h2>
          <ol>
            {said.map((s, i) => (
              <li key={`${s.type} ${s.key} ${i}`}>{saidWords(found, s)}</li>
            ))}
          </ol>
        </section>
      ) : null}
      <section aria-label="Two orders">
        <h2>
          {ordersWords(ours, usual.minutes)} <span className="dim">(guess)</span>
        </h2>
        {found.schoolCost > 0.05 ? (
          <p className="dim">
            Your house rule puts its own step first; by the sign it would be about{' '}
            {minutes(Math.max(1, ours - found.schoolCost))}.
          </p>
        ) : null}
        {linerApartWords(found.liner) ? <p className="dim">{linerApartWords(found.liner)}</p> : null}
        {linerRuleWords(found.liner) ? <p className="dim">{linerRuleWords(found.liner)}</p> : null}
        <div className="down-orders dim">
          <span>As it is asked here</span>
          <span>The quickest cause first</span>
        </div>
        <div className="down-orders">
          <ol aria-label="As it is asked here">
            {found.plan.slice(0, 3).map(({ step }) => (
              <li key={stepKey(step)}>{step.kind === 'check' ? step.check.do : step.cause.fix.do}</li>
            ))}
          </ol>
          <ol className="dim" aria-label="The quickest cause first">
            {usual.next.map((c) => (
              <li key={c.key}>{capital(c.says)}</li>
            ))}
          </ol>
        </div>
      </section>
      <LastStops down={down} />
    </aside>
  )
}

/** Closer than a tenth they are alike. */
export const ordersWords = (ours: number, usual: number) =>
  Math.abs(ours - usual) < 0.1 * Math.max(ours, usual)
    ? `Either order about ${minutes(ours)}`
    : `This order ${minutes(ours)}, quickest first ${minutes(usual)}`

function saidWords({ index }: Search, said: Said): string {
  if (said.type === 'symptom') {
    const says = index.symptoms.find((s) => s.key === said.key)?.says ?? said.key
    return said.isThere ? `Also: ${says}.` : `Not: ${says}.`
  }
  if (said.type === 'fix') {
    const cause = index.causes.find(
      (c) => c.key === said.key || `${c.fix.act ?? ''} ${c.fix.position ?? ''}` === said.key,
    )
    return `${cause?.fix.do ?? said.key}: no help.`
  }
  if (said.type === 'notSo')
    return `${capital(index.causes.find((c) => c.key === said.key)?.says ?? said.key)}: right by now.`
  const check = index.checkOf.get(said.key)
  if (!check) return said.key
  if (said.type === 'cantTell') return `${check.do} Can’t tell.`
  const outcome = check.outcomes.find((o) => o.key === said.outcome)
  return `${outcome?.says ?? said.outcome} (${check.do.replace(/[.?]$/, '').toLowerCase()}, ${minutesOf(check)} min).`
}

function LastStops({ down }: { down: DownAnswer }) {
  // The one that is open is not the last.
  const before = down.lastStops.filter((s) => s.minutes !== null)
  if (before.length === 0) return null
  const says = (cause: string | null) => down.knowledge.causes.find((c) => c.key === cause)?.says
  return (
    <section aria-label="Stops before">
      <h2>It stopped before</h2>
      {before.map((s) => (
        <p key={s.fromMs}>
          {capital(when(s.fromMs, down.nowMs, down.zone))}, {minutes(s.minutes ?? 0)}: {says(s.cause) ?? 'not said why'}
          {s.cause && !s.isCertain ? ', not sure' : ''}.
        </p>
      ))}
    </section>
  )
}
