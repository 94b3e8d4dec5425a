import { Key } from '@web/kit/Keys.tsx'
import { chanceAmong, marginals } from '@core/diagnose/belief.ts'
import { aboutOf } from '@core/diagnose/moves.ts'
import { isAbout, minutesOf, type Check } from '@core/diagnose/knowledge.ts'
import { isAskable } from '@core/diagnose/ratio.ts'
import { type Said } from '@core/diagnose/session.ts'
import { type Search } from './reckoned.ts'

const MOST = 8
/** What a welder may know by heart, beside the quick looks: what a hand felt. */
const BY_HEART_MIN = 3
/** Looks of what is seen that somebody may have had already, the likeliest to tell first; those said stay, so that a word can be read again. */
export function knowable(found: Search, said: readonly Said[]): Check[] {
  const { reckoned, index } = found
  const symptom = index.symptoms.find((s) => s.key === reckoned.belief.symptom)
  const listed = new Set(symptom?.causes)
  const marginal = marginals(reckoned.belief)
  const isSaid = (c: Check) => said.some((s) => s.type === 'check' && s.key === c.key)
  const worth = (c: Check) => chanceAmong(marginal, aboutOf(index).get(c.key) ?? [])
  return index.checks
    .filter((c) => !c.mends && c.key !== symptom?.first && minutesOf(c) <= BY_HEART_MIN)
    .filter((c) => isAbout(c, listed) && (isSaid(c) || isAskable(reckoned, c)))
    .sort((a, b) => worth(b) - worth(a))
    .slice(0, MOST)
}

/** Said by the one who welded, before or between looks: what was checked and well, or bad; what helped and what did not. */
export function KnownAlready(props: {
  found: Search
  said: readonly Said[]
  onSaid: (said: Said) => void
  onBack: () => void
}) {
  const { found, said } = props
  const answerOf = (key: string) => said.find((s) => s.type === 'check' && s.key === key)
  return (
    <>
      <p className="step-do">What is known already?</p>
      <p className="step-look">Only what somebody saw, felt or tried since it went wrong. The rest is asked.</p>
      <Key tone="chalk" onClick={props.onBack}>
        Go on: what first?
      </Key>
      <ul className="plain down-known">
        {knowable(found, said).map((c) => {
          const told = answerOf(c.key)
          return (
            <li key={c.key} role="group" aria-label={c.do}>
              <span>{c.do}</span>
              <span className="down-known-keys">
                {c.outcomes.map((o) => (
                  <Key
                    key={o.key}
                    size="low"
                    aria-pressed={told?.type === 'check' && told.outcome === o.key}
                    disabled={told !== undefined}
                    onClick={() => props.onSaid({ type: 'check', key: c.key, outcome: o.key })}
                  >
                    {o.says}
                  </Key>
                ))}
              </span>
            </li>
          )
        })}
      </ul>
    </>
  )
}
