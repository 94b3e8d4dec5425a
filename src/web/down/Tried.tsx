import { Key } from '@web/kit/Keys.tsx'
import { type Index } from '@core/diagnose/belief.ts'
import { fixKey } from '@core/diagnose/moves.ts'
import { isFor } from '@core/diagnose/ratio.ts'
import { type Said } from '@core/diagnose/session.ts'

/** What hands try before they ask, and what it says when it did not help. */
const TRIED: readonly { words: string; said: Said }[] = [
  { words: 'a fresh tip', said: { type: 'check', key: 'tipSwap', outcome: 'well' } },
  { words: 'nozzle cleaned', said: { type: 'fix', key: 'cleaned nozzle' } },
  { words: 'cable laid straight', said: { type: 'fix', key: 'cableCoiled' } },
  { words: 'tension set', said: { type: 'fix', key: 'tensionLow' } },
]
/** Whether it has any sense with what is seen: the look is one of it, or the fix is of one of its causes. */
function isThere(index: Index, said: Said, symptom: string): boolean {
  if (said.type === 'check') {
    const check = index.checkOf.get(said.key)
    return check !== undefined && isFor(check, symptom)
  }
  const listed = index.symptoms.find((s) => s.key === symptom)?.causes ?? []
  return index.causes.some((c) => fixKey(c) === said.key && listed.includes(c.key))
}

/** Before the first look: what was tried already without help. Twice a tip tells more than once. */
export function AlreadyTried(props: {
  index: Index
  symptom: string
  said: readonly Said[]
  onTried: (said: Said) => void
}) {
  const { index, symptom, said } = props
  const isAtStart = said.every((s) => TRIED.some((t) => t.said.key === s.key))
  const open = TRIED.filter((t) => isThere(index, t.said, symptom))
  if (!isAtStart || open.length === 0) return null
  const times = (key: string) => said.filter((s) => s.key === key).length
  const second: Said = { type: 'fix', key: 'changed tip' }
  return (
    <div className="down-tried" role="group" aria-label="Already tried">
      <span className="dim">Tried already, no help:</span>
      {open.map(({ words, said: one }) => (
        <Key
          key={words}
          size="low"
          aria-pressed={times(one.key) > 0}
          disabled={times(one.key) > 0 && one.key !== 'tipSwap'}
          onClick={() => props.onTried(times(one.key) > 0 ? second : one)}
        >
          {words}
          {one.key === 'tipSwap' && times('tipSwap') > 0 ? ', and another' : ''}
        </Key>
      ))}
    </div>
  )
}
