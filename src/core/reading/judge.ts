import { HOUR_MS } from '@core/units/time.ts'
import { methodOf, READING } from './specs.ts'
import { VERDICTS, type ReadingKey, type ReadingVerdict } from './keys.ts'
import { type Target } from './target.ts'

export interface ReadingInput {
  what: ReadingKey
  method: string
  grade: string | null
  /** As found, and as left where it was set; SI unit of the reading. */
  value: number | null
  left: number | null
  /** What the number was made of. */
  from?: Readonly<Record<string, number | readonly number[]>>
}
export interface Judged {
  is: ReadingVerdict
  /** What decided: what was seen, or which side of its window the number lies. */
  because: 'grade' | 'below' | 'above' | 'inside' | 'no window' | 'wide'
}

const worse = (a: ReadingVerdict, b: ReadingVerdict) => (VERDICTS.indexOf(a) > VERDICTS.indexOf(b) ? a : b)

/** The number against its window. A hundredth of the window's own size is not told apart. */
export function judgeNumber(value: number, target: Target | null): Judged {
  if (!target) return { is: 'good', because: 'no window' }
  const { from, to, actBelow, actAbove } = target
  const slack = 1e-9 + 0.01 * Math.abs((to ?? from ?? 0) - (from ?? to ?? 0))
  if (from !== null && value < from - slack)
    return { is: actBelow !== null && value < actBelow ? 'act' : 'look', because: 'below' }
  if (to !== null && value > to + slack)
    return { is: actAbove !== null && value >= actAbove ? 'act' : 'look', because: 'above' }
  return { is: 'good', because: 'inside' }
}

/** What a reading says as it stands now: as left where it was set, and the worse of what was seen and what was measured. */
export function judgeReading(input: ReadingInput, target: Target | null): Judged {
  const method = methodOf(input.what, input.method)
  const grade = method?.grades.find((g) => g.key === input.grade) ?? null
  const value = input.left ?? input.value
  const byNumber = value === null ? null : judgeNumber(value, target)
  // Set afterwards: what was seen before is mended, what counts is where it was left.
  const byGrade = grade && (input.left === null || grade.is === 'good') ? grade.is : null
  const wide = wideBore(input, target)
  if (wide !== null && worse(wide, byNumber?.is ?? 'good') === wide && wide !== byNumber?.is)
    return { is: worse(wide, byGrade ?? 'good'), because: 'wide' }
  if (byGrade === null) return byNumber ?? { is: 'good', because: grade ? 'grade' : 'no window' }
  if (!byNumber || byNumber.because === 'no window' || worse(byGrade, byNumber.is) !== byNumber.is)
    return { is: byGrade, because: 'grade' }
  return byNumber.is === 'good' ? { is: 'good', because: 'grade' } : byNumber
}

/** No bore is under 0.2 mm, and none over 0.2 in: what is typed says by itself which it is. */
const INCH_BELOW = 0.2
export const boreMm = (typed: number): number => (typed < INCH_BELOW ? typed * 25.4 : typed)
/** A bore much wider than its wire is worn, however round it is; null: it is not. */
function wideBore({ from }: ReadingInput, target: Target | null): ReadingVerdict | null {
  const typed = from?.['maxMm']
  if (!target?.bore || typeof typed !== 'number') return null
  const widest = boreMm(typed)
  if (widest >= target.bore.actMm) return 'act'
  return widest >= target.bore.lookMm ? 'look' : null
}

export type Outside = { ok: true } | { ok: false; suggest: number | null }
/** Is a number a reading at all; where not, what was most likely meant: the slip that brings it where it usually lies. */
export function outsidePhysics(what: ReadingKey, value: number): Outside {
  const { physics, usual, slips } = READING[what]
  if (!Number.isFinite(value)) throw new RangeError(`outsidePhysics: expected a number, got ${value}`)
  if (value >= physics[0] && value <= physics[1]) return { ok: true }
  const tried = [1, -1].flatMap((sign) => slips.map((f) => sign * value * f))
  const meant = tried.find((v) => v >= usual[0] && v <= usual[1])
  return { ok: false, suggest: meant === undefined ? null : Math.round(meant * 100) / 100 }
}

export interface Said {
  atMs: number
  what: ReadingKey
  method: string
  is: ReadingVerdict
  value: number | null
  left: number | null
}

/** Beyond reading error between one shift's end and the next's start somebody has changed it: so many standard deviations. */
const CHANGED_SDS = 2.5
/** Found otherwise than it was left: when it was last as left, and by how much. Null where it was not set, or not read before. */
export function changedSince(now: Said, before: Said | null): { sinceMs: number; by: number } | null {
  const { isSet, sd } = READING[now.what]
  if (!isSet || !before || now.value === null || before.method !== now.method) return null
  const was = before.left ?? before.value
  if (was === null) return null
  const by = now.value - was
  return Math.abs(by) > CHANGED_SDS * Math.max(sd, 1e-9) ? { sinceMs: before.atMs, by } : null
}

/** Two readings of one thing by different methods within this, with nothing done between, should agree. */
const SAME_LOOK_MS = 4 * HOUR_MS
/** Readings that cannot both be right: good and to be put right within one look. They are kept, and flagged. */
export function contradicts(now: Said, others: readonly Said[], lastActMs: number | null): Said | null {
  return (
    others.find(
      (o) =>
        o.what === now.what &&
        o.method !== now.method &&
        o.left === null &&
        Math.abs(now.atMs - o.atMs) <= SAME_LOOK_MS &&
        (lastActMs === null || lastActMs < Math.min(o.atMs, now.atMs)) &&
        ((o.is === 'good' && now.is === 'act') || (o.is === 'act' && now.is === 'good')),
    ) ?? null
  )
}
