import { Key } from '@web/kit/Keys.tsx'
import { outsidePhysics } from '@core/reading/judge.ts'
import { type ReadingLine } from '@contract/reading.ts'
import { readingValue, type Told } from './readingwords.ts'
import { type Numbers } from './typednumbers.ts'

const KEEP_DAYS = 7
export type Send = (over?: { isMeant?: boolean; value?: number; days?: number }) => void

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

/** Left higher than found: set anew, or raised to keep it going, which hides a dying liner. */
export function RaisedKeys({ isPending, onSend }: { isPending: boolean; onSend: Send }) {
  return (
    <div className="read-raised">
      <p>Raised. More pressure keeps a failing liner going and hides it from the next one.</p>
      <Key tone="chalk" disabled={isPending} onClick={() => onSend()}>
        Set anew: new liner, wire or rolls
      </Key>
      <Key disabled={isPending} onClick={() => onSend({ days: KEEP_DAYS })}>
        To keep it going, {KEEP_DAYS} days at most
      </Key>
    </div>
  )
}
