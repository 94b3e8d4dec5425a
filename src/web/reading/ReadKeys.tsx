import { Key } from '@web/kit/Keys.tsx'
import { RAISED_WAYS } from '@core/reading/raised.ts'
import { outsidePhysics } from '@core/reading/judge.ts'
import { type ReadingLine } from '@contract/reading.ts'
import { readingValue, type Told } from './readingwords.ts'
import { type Numbers } from './typednumbers.ts'

export type Send = (over?: {
  isMeant?: boolean
  value?: number
  left?: number
  keepDays?: number | null
  /** Why it is outside on purpose. */
  purpose?: string
}) => void

/** A number no gun shows, with what was most likely meant. */
export function oddOf(line: ReadingLine, made: Numbers | null): { value: number; suggest: number | null } | null {
  for (const value of [made?.value, made?.left]) {
    if (value === null || value === undefined) continue
    const outside = outsidePhysics(line.what, value)
    if (!outside.ok) return { value, suggest: outside.suggest }
  }
  return null
}

/** No gun shows that: asked back, with what was most likely meant. */
export function OddKeys(props: {
  odd: { value: number; suggest: number | null }
  line: ReadingLine
  at: Told
  onSend: Send
}) {
  const { odd, line, at, onSend } = props
  const say = (v: number) => readingValue(line.what, v, at.units)
  return (
    <div className="read-odd" role="alert">
      <p>{say(odd.value)} is beyond any gun.</p>
      {odd.suggest === null ? null : (
        <Key tone="chalk" onClick={() => onSend({ value: odd.suggest ?? odd.value })}>
          Did you mean {say(odd.suggest)}?
        </Key>
      )}
      <Key onClick={() => onSend({ isMeant: true })}>No, {say(odd.value)} it is</Key>
    </div>
  )
}

const RAISED_WORDS = {
  forATime: 'Raised. More pressure keeps a failing liner going and hides it from the next one.',
  raise: 'Raised. It hangs here for the next one to see, until it is put back.',
  never: 'Raised. House rule: not to keep going. Put it back, and look at liner, tip and rolls.',
} as const
/** Left higher than found: set anew, or raised to keep it going, which hides a dying liner; as the shop allows it (D25). */
export function RaisedKeys(props: {
  isPending: boolean
  school: keyof typeof RAISED_WORDS
  found: number | null
  onSend: Send
}) {
  const { isPending, school, found, onSend } = props
  const { canKeep, days } = RAISED_WAYS[school]
  return (
    <div className="read-raised">
      <p>{RAISED_WORDS[school]}</p>
      {!canKeep && found !== null ? (
        <Key tone="chalk" disabled={isPending} onClick={() => onSend({ left: found })}>
          It is back at {found}
        </Key>
      ) : null}
      <Key {...(canKeep ? { tone: 'chalk' } : {})} disabled={isPending} onClick={() => onSend()}>
        Set anew: new liner, wire or rolls
      </Key>
      {canKeep ? (
        <Key disabled={isPending} onClick={() => onSend({ keepDays: days })}>
          To keep it going{days === null ? '' : `, ${days} days at most`}
        </Key>
      ) : null}
    </div>
  )
}

/** Further out reaches into a joint; only a longer wire cools the weld; a job may be set any way. */
const purposesOf = (what: ReadingLine['what'], isAbove: boolean) => [
  ...(isAbove ? ['to reach the joint'] : []),
  ...(isAbove && what === 'stickOut' ? ['to cool the weld'] : []),
  'this job is set so',
]
/** Outside what is written down: drift, or meant; meant it is kept with its reason, and nothing asks for it again. */
export function PurposeKeys(props: { what: ReadingLine['what']; isAbove: boolean; isPending: boolean; onSend: Send }) {
  const { what, isAbove, isPending, onSend } = props
  return (
    <div className="read-raised">
      <p>On purpose?</p>
      <Key tone="chalk" disabled={isPending} onClick={() => onSend()}>
        No: it came to be so
      </Key>
      {purposesOf(what, isAbove).map((why) => (
        <Key key={why} disabled={isPending} onClick={() => onSend({ purpose: `On purpose: ${why}.` })}>
          Yes, {why}
        </Key>
      ))}
    </div>
  )
}
