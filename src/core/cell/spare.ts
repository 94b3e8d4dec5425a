import { type KindKey, type LifeUnit } from '@core/path/columns.ts'
import { type Finding } from '@core/rightparts/finding.ts'
import { gunRating, ratingsOf } from '@core/rightparts/rating.ts'
import { type Setup } from '@core/rightparts/facts.ts'

/**
 * Whether a spare gun or neck is right for a place, what is wrong with it, and the minutes to make it right.
 *
 *   it can't hang here (pin, rating, at a robot the cable's length) ──> never
 *   a part on it is wrong or has done what it is changed at, or nobody knows which it is; shorter than a hand is used to ──> not offered; what to put right is told
 *   else ──> right
 */
export type Amiss =
  | { is: 'seat'; wants: string | null; has: string | null }
  | { is: 'length'; wantsM: number; hasM: number }
  | { is: 'rating'; amps: number; ratedAmps: number }
  | { is: 'part'; kindKey: KindKey; rule: string }
  /** Nobody knows which is on, and it has to be of the wire's own size. */
  | { is: 'untold'; kindKey: KindKey }
  /** It has done what it is changed at there. */
  | ({ is: 'spent' } & Spent)
  | { is: 'toMend' }
/** A part of a spare at its limit, in the unit its life is counted in. */
export interface Spent {
  kindKey: KindKey
  used: number
  limit: number
  unit: LifeUnit
}
export interface SpareVerdict {
  is: 'right' | 'toMakeRight' | 'never'
  amiss: Amiss[]
  /** Of the parts to be changed and looked at; null: it never will be right. */
  minutes: number | null
}
export interface SpareAsked {
  kind: 'gun' | 'neck'
  /** The place with the spare on it, and how it is built without. */
  setup: Setup
  findings: readonly Finding[]
  /** What the feeder's seat takes and what the spare has, where both are told; the family decides where not. */
  seat: { fits: boolean; wants: string | null; has: string | null }
  wantsM: number | null
  isToMend: boolean
  /** What is on it and at its limit. */
  spent: readonly Spent[]
  /** Minutes of changing a part of a kind. */
  changeMin: (kindKey: KindKey) => number
}

/** A cable may be so much shorter than the place's own and still reach. */
const SLACK_M = 0.25
/** What comes with a gun, and with a neck. */
const COMES_WITH: Record<SpareAsked['kind'], ReadonlySet<KindKey>> = {
  gun: new Set<KindKey>(['orings', 'liner', 'neck', 'jump', 'diffuser', 'clampring', 'tip', 'nozzle', 'insulator']),
  neck: new Set<KindKey>(['neck', 'jump', 'diffuser', 'clampring', 'tip', 'nozzle', 'insulator']),
}
/** Read off nobody's gun by its looks: told, or not known. */
const OF_WIRE: Record<SpareAsked['kind'], readonly KindKey[]> = { gun: ['liner', 'tip'], neck: ['jump', 'tip'] }
/** Looking which part is on: out with the tip, or the liner's stamp at the pin. A guess. */
const LOOK_MIN: Partial<Record<KindKey, number>> = { liner: 3, tip: 1, jump: 3 }

export function judgeSpare(of: SpareAsked): SpareVerdict {
  const short = lengthAmiss(of)
  const hangs = [...seatAndRating(of), ...(of.setup.cell ? short : [])]
  const parts = partsAmiss(of)
  const amiss = [
    ...hangs,
    ...(of.setup.cell ? [] : short),
    ...parts,
    ...(of.isToMend ? [{ is: 'toMend' } as const] : []),
  ]
  if (hangs.length > 0) return { is: 'never', amiss, minutes: null }
  if (amiss.length === 0) return { is: 'right', amiss, minutes: 0 }
  return { is: 'toMakeRight', amiss, minutes: parts.reduce((sum, a) => sum + minutesOf(a, of), 0) }
}

function lengthAmiss({ kind, setup: { cableM }, wantsM }: SpareAsked): Amiss[] {
  const isShort = kind === 'gun' && wantsM !== null && cableM !== null && cableM < wantsM - SLACK_M
  return isShort ? [{ is: 'length', wantsM, hasM: cableM }] : []
}

function seatAndRating({ setup, seat }: SpareAsked): Amiss[] {
  const gun = gunRating(setup)
  return [
    ...(seat.fits ? [] : [{ is: 'seat' as const, wants: seat.wants, has: seat.has }]),
    ...(gun && gun.may < gun.wants ? [{ is: 'rating' as const, amps: gun.amps, ratedAmps: gun.ratedAmps }] : []),
  ]
}

function partsAmiss({ kind, setup, findings, spent }: SpareAsked): Amiss[] {
  // That the gun is too light is told of the gun.
  const isOfGun = ratingsOf(setup).find((r) => r.at === 'neck')?.by === 'family'
  const wrong = findings.filter(
    (f) =>
      f.severity !== 'note' &&
      !(isOfGun && f.rule === 'rating' && f.at === 'neck') &&
      COMES_WITH[kind].has(f.at as KindKey),
  )
  const kinds = [...new Set(wrong.map((f) => f.at as KindKey))]
  const said = kinds.map((kindKey): Amiss => {
    const first = wrong.find((f) => f.at === kindKey)
    return { is: 'part', kindKey, rule: first?.rule ?? '' }
  })
  const untold = OF_WIRE[kind].filter((k) => k in setup.parts && !setup.parts[k] && !kinds.includes(k))
  // Of a wrong one nobody needs to hear that it is worn too.
  const worn = spent.filter((s) => COMES_WITH[kind].has(s.kindKey) && !kinds.includes(s.kindKey))
  return [
    ...said,
    ...untold.map((kindKey): Amiss => ({ is: 'untold', kindKey })),
    ...worn.map((s): Amiss => ({ is: 'spent', ...s })),
  ]
}

function minutesOf(amiss: Amiss, { changeMin }: SpareAsked): number {
  if (amiss.is === 'part' || amiss.is === 'spent') return changeMin(amiss.kindKey)
  return amiss.is === 'untold' ? (LOOK_MIN[amiss.kindKey] ?? 1) : 0
}
