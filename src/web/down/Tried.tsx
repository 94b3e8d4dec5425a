import { Key } from '@web/kit/Keys.tsx'
import { type Index } from '@core/diagnose/belief.ts'
import { type Said } from '@core/diagnose/session.ts'

/** What hands try before they ask, and what it says when it did not help. */
const TRIED: readonly { words: string; said: Said }[] = [
  { words: 'a fresh tip', said: { type: 'check', key: 'tipSwap', outcome: 'well' } },
  { words: 'nozzle cleaned', said: { type: 'fix', key: 'cleaned nozzle' } },
  { words: 'cable laid straight', said: { type: 'fix', key: 'cableCoiled' } },
  { words: 'tension set', said: { type: 'fix', key: 'tensionLow' } },
]
const isThere = (index: Index, said: Said) => said.type !== 'check' || index.checkOf.has(said.key)

/** Before the first look: what was tried already without help. Twice a tip tells more than once. */
export function AlreadyTried(props: { index: Index; said: readonly Said[]; onTried: (said: Said) => void }) {
  const { index, said } = props
  const isAtStart = said.every((s) => TRIED.some((t) => t.said.key === s.key))
  if (!isAtStart) return null
  const times = (key: string) => said.filter((s) => s.key === key).length
  const second: Said = { type: 'fix', key: 'changed tip' }
  return (
    <div className="down-tried" role="group" aria-label="Already tried">
      <span className="dim">Tried already, no help:</span>
      {TRIED.filter((t) => isThere(index, t.said)).map(({ words, said: one }) => (
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
