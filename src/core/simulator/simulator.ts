import { MIN_MS } from '@core/units/time.ts'
import { drawLogNormal, drawWeibull, makeRandom } from '@core/random/random.ts'
import { type Span } from '@core/clock/schedule.ts'
import { type OutReason, type Position } from '@core/path/columns.ts'

/**
 * A seeded shop: wire runs through guns shift by shift, parts wear out by their own life, people change and clean them
 * and forget to write some of it down. It tells what happened and, apart from that, what was logged, so that what the
 * program concludes can be held against the truth.
 */
export interface SimPart {
  position: Position
  unit: 'arcHours' | 'kg'
  shape: number
  scale: number
  /** Chance per unit of use of being knocked, or of what else comes at any age, before it wears out. */
  knockedPerUnit: number
  /** What comes by chance, with weights; only knocked when left out. */
  byChance?: readonly { reason: OutReason; weight: number }[]
  /** Why it came out when it wore out, with weights; the words people use. */
  reasons: readonly { reason: OutReason; weight: number }[]
  /** Changed at this use by rule from `ruleFromMs` on, by people who keep the rule this often. */
  rule?: { limit: number; fromMs: number; kept: number }
  /** Chance that wearing out stops the gun, and the median minutes it then stands. */
  stops?: { chance: number; medianMin: number }
}
export interface SimGun {
  key: string
  shifts: readonly Span[]
  /** Chance that the gun runs at all in a shift. */
  busy: number
  arcHoursPerShift: number
  kgPerArcHour: number
  spoolKg: number
  parts: readonly SimPart[]
  cleans: readonly { position: Position; everyArcHours: number; logShare: number }[]
  /** Share of part changes, and of spool changes, that get logged. */
  logShare: number
  spoolLogShare: number
  /** Share of logs booked at the end of the shift instead of at once. */
  lateShare: number
  /** How much faster than its set-up explains this gun wears parts. */
  wear: number
}
export type SimAct =
  | { kind: 'fitted'; position: Position; reason: OutReason }
  | { kind: 'cleaned'; position: Position }
  | { kind: 'wireLoaded'; labelKg: number }
  | { kind: 'stopped'; position: Position }
  | { kind: 'restarted' }
export interface SimEvent {
  gun: string
  atMs: number
  act: SimAct
  isLogged: boolean
  precision: 'exact' | 'shift'
  lifeUsed?: number
}
export interface SimUsage {
  gun: string
  fromMs: number
  toMs: number
  arcHours: number
  kg: number
}
export interface SimHistory {
  events: SimEvent[]
  usage: SimUsage[]
}

export function simulate(guns: readonly SimGun[], seed: number): SimHistory {
  const history: SimHistory = { events: [], usage: [] }
  guns.forEach((gun, i) => simulateGun(gun, makeRandom(seed * 7919 + i * 104_729 + 1), history))
  history.events.sort((a, b) => a.atMs - b.atMs)
  return history
}

interface Wearing {
  part: SimPart
  left: number
  used: number
}

function simulateGun(gun: SimGun, random: () => number, history: SimHistory): void {
  const parts: Wearing[] = gun.parts.map((part) => ({ part, ...freshLife(part, gun, random) }))
  const sinceClean = gun.cleans.map(() => 0)
  let spoolKg = gun.spoolKg * (0.2 + 0.8 * random())
  for (const shift of gun.shifts) {
    if (random() > gun.busy) continue
    const arcHours = drawLogNormal(random, gun.arcHoursPerShift, 0.35)
    const kg = arcHours * gun.kgPerArcHour * drawLogNormal(random, 1, 0.05)
    history.usage.push({ gun: gun.key, ...shift, arcHours, kg })
    const log = logger(gun, { shift, random, history })
    parts.forEach((wearing, i) => (parts[i] = wearThrough(wearing, { gun, arcHours, kg, random, log, shift })))
    gun.cleans.forEach(
      (clean, i) => (sinceClean[i] = cleanThrough((sinceClean[i] ?? 0) + arcHours, { clean, arcHours, log })),
    )
    spoolKg -= kg
    while (spoolKg <= 0) {
      log(1 + spoolKg / kg, { kind: 'wireLoaded', labelKg: gun.spoolKg }, { logShare: gun.spoolLogShare })
      spoolKg += gun.spoolKg
    }
  }
}

function freshLife(part: SimPart, gun: SimGun, random: () => number): { left: number; used: number } {
  const left = drawWeibull(random, part.shape, part.scale / gun.wear)
  return { left, used: 0 }
}

/** Tells of an act at a share of the shift; logged with the given chance. */
type Log = (share: number, act: SimAct, more: { logShare: number; lifeUsed?: number; isAtOnce?: boolean }) => boolean

function logger(gun: SimGun, at: { shift: Span; random: () => number; history: SimHistory }): Log {
  const { shift, random, history } = at
  return (share, act, { logShare, lifeUsed, isAtOnce = false }) => {
    const isLate = random() < gun.lateShare && !isAtOnce
    const isLogged = random() < logShare
    const atMs = isLate
      ? shift.toMs - Math.round(random() * 10) * MIN_MS
      : shift.fromMs + Math.min(Math.max(share, 0.01), 0.99) * (shift.toMs - shift.fromMs)
    history.events.push({
      gun: gun.key,
      atMs: Math.round(atMs),
      act,
      isLogged,
      precision: isLate ? 'shift' : 'exact',
      ...(lifeUsed === undefined ? {} : { lifeUsed }),
    })
    return isLogged
  }
}

interface ShiftAt {
  gun: SimGun
  arcHours: number
  kg: number
  random: () => number
  log: Log
  shift: Span
}

/** One part through one shift: it may wear out or be knocked several times, or be changed by rule at the start. */
function wearThrough(wearing: Wearing, at: ShiftAt): Wearing {
  const { part } = wearing
  const amount = part.unit === 'kg' ? at.kg : at.arcHours
  let { left, used } = wearing
  const isByRule =
    part.rule && at.shift.fromMs >= part.rule.fromMs && used >= part.rule.limit && at.random() < part.rule.kept
  if (isByRule) {
    at.log(
      0.02,
      { kind: 'fitted', position: part.position, reason: 'due' },
      { logShare: at.gun.logShare, lifeUsed: used },
    )
    ;({ left, used } = freshLife(part, at.gun, at.random))
  }
  let rest = amount
  for (let turns = 0; turns < 6; turns++) {
    const knockedIn = part.knockedPerUnit > 0 ? -Math.log(1 - at.random()) / part.knockedPerUnit : Infinity
    const step = Math.min(left, knockedIn)
    if (step >= rest) return { part, left: left - rest, used: used + rest }
    rest -= step
    endLife({ part, used: used + step, isKnocked: knockedIn < left, share: 1 - rest / amount }, at)
    ;({ left, used } = freshLife(part, at.gun, at.random))
  }
  return { part, left, used }
}

function endLife(end: { part: SimPart; used: number; isKnocked: boolean; share: number }, at: ShiftAt): void {
  const { part, used, isKnocked, share } = end
  const reason = isKnocked
    ? part.byChance
      ? drawReason(part.byChance, at.random)
      : 'knocked'
    : drawReason(part.reasons, at.random)
  const standsMin =
    reason !== 'knocked' && part.stops && at.random() < part.stops.chance
      ? drawLogNormal(at.random, part.stops.medianMin, 0.6)
      : 0
  const shiftMin = (at.shift.toMs - at.shift.fromMs) / MIN_MS
  // Who logs a stoppage logs all of it, as it happens: the three lines stand or fall together, in their order.
  const more = { logShare: at.random() < at.gun.logShare ? 1 : 0, isAtOnce: standsMin > 0 }
  const stopShare = Math.min(share, 0.99 - Math.min((standsMin + 2) / shiftMin, 0.9))
  if (standsMin > 0) at.log(stopShare, { kind: 'stopped', position: part.position }, more)
  at.log(
    (standsMin > 0 ? stopShare : share) + standsMin / shiftMin,
    { kind: 'fitted', position: part.position, reason },
    { ...more, lifeUsed: used },
  )
  if (standsMin > 0) at.log(stopShare + (standsMin + 1) / shiftMin, { kind: 'restarted' }, more)
}

function drawReason(reasons: SimPart['reasons'], random: () => number): OutReason {
  let at = random() * reasons.reduce((sum, r) => sum + r.weight, 0)
  for (const { reason, weight } of reasons) if ((at -= weight) <= 0) return reason
  return 'notSaid'
}

function cleanThrough(since: number, at: { clean: SimGun['cleans'][number]; arcHours: number; log: Log }): number {
  const { clean, arcHours, log } = at
  let rest = since
  while (rest >= clean.everyArcHours) {
    rest -= clean.everyArcHours
    log(
      1 - Math.min(rest, arcHours) / arcHours,
      { kind: 'cleaned', position: clean.position },
      { logShare: clean.logShare },
    )
  }
  return rest
}
