import { Key } from '@web/kit/Keys.tsx'
import { useDeferredValue, useMemo } from 'react'
import { tellingSigns } from '@core/diagnose/tellingsigns.ts'
import { type Said } from '@core/diagnose/session.ts'
import { capital } from '@web/format/words.ts'
import { type Search } from './reckoned.ts'

/** Other signs that would tell much, asked in one tap: seen too, or none of them. Two kinds of sign tell more than one twice. */
export function SeenAsWell({
  found,
  said,
  isCell,
  onSaid,
}: {
  found: Search
  isCell: boolean
  said: readonly Said[]
  onSaid: (said: Said[]) => void
}) {
  const isAsked = said.some((s) => s.type === 'symptom')
  // The next look stands first; what else to ask is weighed behind it.
  const belief = useDeferredValue(found.reckoned.belief)
  const signs = useMemo(() => (isAsked ? [] : tellingSigns(belief, { isCell })), [belief, isAsked, isCell])
  if (signs.length === 0) return null
  return (
    <div className="down-tried" role="group" aria-label="Seen as well?">
      <span className="dim">Seen as well?</span>
      {signs.map((s) => (
        <Key key={s.key} size="low" onClick={() => onSaid([{ type: 'symptom', key: s.key, isThere: true }])}>
          {capital(s.says)}
        </Key>
      ))}
      <Key size="low" onClick={() => onSaid(signs.map((s) => ({ type: 'symptom', key: s.key, isThere: false })))}>
        None of these
      </Key>
    </div>
  )
}
