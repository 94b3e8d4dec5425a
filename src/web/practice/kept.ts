import { z } from 'zod'
import { type DrillAct, type Scenario } from '@core/practice/drill.ts'
import { isFault, type FaultKey } from '@core/practice/faults.ts'
import { type Attempt } from '@core/practice/skill.ts'
import { attemptRequest, scenario } from '@contract/practice.ts'

/** The drill in hand, kept on the device: a page that is loaded again goes on with it. */
export interface KeptDrill {
  scenario: Scenario
  acts: DrillAct[]
  setId: string | null
  /** Under this it is sent once. */
  key: string
}
const keptDrill = z.object({
  scenario,
  acts: attemptRequest.shape.acts.or(z.array(z.never())),
  setId: z.string().nullable(),
  key: z.string(),
})
const DRILL = 'idle-drill'
const PLAYED = 'idle-drills-played'
const MOST_KEPT = 300

const read = (name: string): unknown => {
  try {
    return JSON.parse(localStorage.getItem(name) ?? 'null')
  } catch {
    return null
  }
}
/** Null: none, or one that an older version wrote. */
export function readDrill(): KeptDrill | null {
  const kept = keptDrill.safeParse(read(DRILL))
  return kept.success ? (kept.data as KeptDrill) : null
}
export const keepDrill = (drill: KeptDrill) => localStorage.setItem(DRILL, JSON.stringify(drill))
export const dropDrill = () => localStorage.removeItem(DRILL)

const played = z.array(
  z.object({ faults: z.array(z.string()), minutes: z.number(), bestMin: z.number(), key: z.string() }),
)
type Played = Attempt & { key: string }
/** What was played on this device, newest last: whose it is nobody asks. */
export function readPlayed(): Played[] {
  const kept = played.safeParse(read(PLAYED))
  if (!kept.success) return []
  return kept.data.map((a) => ({ ...a, faults: a.faults.filter((f): f is FaultKey => isFault(f)) }))
}
/** The same drill twice counts once. */
export function keepPlayed(attempt: Played): void {
  const others = readPlayed().filter((a) => a.key !== attempt.key)
  localStorage.setItem(PLAYED, JSON.stringify([...others, attempt].slice(-MOST_KEPT)))
}
