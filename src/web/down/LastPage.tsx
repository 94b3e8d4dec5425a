import { Key } from '@web/kit/Keys.tsx'
import { type Cause } from '@core/diagnose/knowledge.ts'
import { leftStanding } from '@core/diagnose/plan.ts'
import { type Said } from '@core/diagnose/session.ts'
import { capital, inN } from '@web/format/words.ts'
import { doneWords } from './downwords.ts'
import { type Search } from './reckoned.ts'

/** All was looked at and it is still there: the two likeliest by name, with what was done about each. */
export function LastPage(props: { found: Search; said: readonly Said[]; onKnown: (cause: Cause) => void }) {
  const { found, said } = props
  const left = leftStanding(found.reckoned)
  const done = (key: string) => said.filter((s) => s.type === 'fix' && s.key === key).length
  return (
    <>
      <p className="step-do">Nothing is left to look at. It stays off.</p>
      <p className="step-look">Put another gun on, or call whoever mends machines, and tell them what stands here.</p>
      <ul className="plain down-left">
        {left.map(({ group, cause, chance }) => (
          <li key={group.key}>
            <p>
              <strong>{capital(cause.says)}</strong>, {inN(Math.min(1, chance))}.{' '}
              <span className="dim">{doneWords(done(group.key), cause)}</span>
            </p>
            <Key size="low" onClick={() => props.onKnown(cause)}>
              {done(group.key) > 0 ? 'Once more' : 'Do it all the same'}: {cause.fix.do}
            </Key>
          </li>
        ))}
      </ul>
    </>
  )
}
