import { causesIn, chanceAmong, marginals, type Index } from './belief.ts'
import { fixMinutes, minutesOf, type Cause, type Check, type Sign } from './knowledge.ts'
import { aboutOf, CLOSE_MIN, groupOf, type FixGroup, type Move, type Step } from './moves.ts'
import { SHOWS } from './session.ts'
import { hasSigns, isAskable, isOneDear, signsFor, type PlanAt } from './ratio.ts'

/**
 * What an old hand would not do, whatever the reckoning says; each is a rule that is tested over every symptom and every cause.
 *
 * 1. What a symptom wants before all else (a nest cut out, nothing forced) comes first.
 * 2. A fix whose success shows is looked at before anything else is done.
 * 3. What was found wrong on this gun before it stopped is put right first, where it can be behind what is seen.
 * 4. What is seen, and put right in a few minutes, is put right.
 * 5. No look at what the symptom does not name while what it names is not looked through.
 * 6. No fix before the look that shows it, and none of what was looked at and is well.
 * 7. No setting and no word on the hand while a glance at the equipment is still to be had.
 * 8. No fresh tip while a glance could show it, and no fix of over three minutes; no liner without a free try of it.
 * 9. No fix twice, unless a look in between spoke for it.
 */
export interface Standing {
  marginal: Float64Array
  /** Causes that the symptom names. */
  listed: ReadonlySet<number>
  /** Causes that the symptom names, or an answer, or the gun itself. */
  named: ReadonlySet<number>
  /** All that is named is unlikely by now: other things are thought of. */
  isThrough: boolean
}
/** Less likely than this, all that is named is looked through. */
const THROUGH = 0.05
export function standingOf(at: PlanAt, marginal = marginals(at.belief)): Standing {
  const { knowledge, symptom } = at.belief
  const listed = new Set(causesIn(knowledge, knowledge.symptoms.find((s) => s.key === symptom)?.causes ?? []))
  const named = new Set([...listed, ...(at.pointed ?? [])])
  return { marginal, listed, named, isThrough: [...named].every((i) => (marginal[i] ?? 0) < THROUGH) }
}

/** A known fault that takes longer waits for the free looks like any other. */
const KNOWN_MIN = 5.5
/** What is found and put right in so long is put right; what an eye has seen, longer. */
const SHOWN_MIN = { any: 5.5, seen: 15.5 }
/** What comes next without any reckoning; null: nothing does. */
export function settledFirst(at: PlanAt, { marginal, listed, named }: Standing): Step | null {
  const { knowledge, symptom } = at.belief
  const first = knowledge.symptoms.find((s) => s.key === symptom)?.first
  const opening = first === undefined || at.done.has(first) ? undefined : knowledge.checkOf.get(first)
  if (opening) return { kind: 'check', check: opening }
  const proof = at.proof == null ? undefined : knowledge.checkOf.get(at.proof)
  if (proof) return { kind: 'check', check: proof }
  const fix = (i: number): Step => ({ kind: 'fix', group: groupOf(knowledge, i), cause: knowledge.causes[i] as Cause })
  const minutes = (i: number) => fixMinutes(knowledge.causes[i] as Cause)
  const isOfIt = (i: number) => listed.has(i) && (marginal[i] ?? 0) > 0
  const known = (at.known ?? []).filter((i) => isOfIt(i) && minutes(i) <= KNOWN_MIN && isFresh(at, i))
  const [quickest] = [...known].sort((a, b) => minutes(a) - minutes(b))
  if (quickest !== undefined) return fix(quickest)
  const mostMin = (i: number) => (at.signs?.get(i)?.has('look') ? SHOWN_MIN.seen : SHOWN_MIN.any)
  const isNow = (i: number) =>
    named.has(i) && minutes(i) <= mostMin(i) && isFresh(at, i) && !isWord(knowledge.causes[i])
  const shown = (at.shown ?? []).filter(isNow).at(-1)
  return shown === undefined ? null : fix(shown)
}
/** What comes next is settled without any reckoning, and no school of the shop comes before it. */
export const isSettled = (at: PlanAt): boolean => settledFirst(at, standingOf(at)) !== null
/** A word on the hand wants two kinds of sign, however quickly it is said. */
const isWord = (cause: Cause | undefined) => cause?.kind === 'hand'
const isFresh = (at: PlanAt, cause: number): boolean => {
  const { key } = groupOf(at.belief.knowledge, cause)
  return !at.fixedTimes?.get(key) || at.again?.has(key) === true
}

const LIKELY = 0.05
const FAINT = 0.1
/** Whether a check is about what is likely of what a fix puts right; where none of it is, about any of it. */
export function looksAt(group: FixGroup, marginal: Float64Array, knowledge: Index): (check: Check) => boolean {
  const likely = group.causes.filter((i) => (marginal[i] ?? 0) > LIKELY)
  const causes = likely.length > 0 ? likely : group.causes
  return (check) => isOf(knowledge, check, causes)
}

/**
 * Whether it may be done now. A cheap fix wants one sign that speaks for it, a dear one two independent kinds; where no further look is to be
 * had that is quicker than the fix, it may be done without.
 */
export function isBackedUp(at: PlanAt, group: FixGroup, marginal = marginals(at.belief)): boolean {
  const { knowledge } = at.belief
  const had = signsFor(at, group)
  if (hasSigns(at, group)) return true
  const isDear = isOneDear(knowledge, group)
  // Nothing speaks for it and what was looked at speaks against it.
  if (had.size === 0 && chanceAmong(marginal, group.causes) < FAINT) return false
  const isOfIt = looksAt(group, marginal, knowledge)
  return !knowledge.checks.some(
    (c) => isAskable(at, c) && !had.has(c.sign) && (isDear || minutesOf(c) < group.minutes + CLOSE_MIN) && isOfIt(c),
  )
}

/** Whether a step may be had now. */
export function isAllowed(at: PlanAt, { step }: Move, now: Standing): boolean {
  if (step.kind === 'check') return isAskable(at, step.check) && isLookTimely(at, step.check, now)
  const { group } = step
  if (at.fixedTimes?.get(group.key) && !at.again?.has(group.key)) return false
  if (!now.isThrough && !group.causes.some((i) => now.named.has(i))) return false
  if (group.causes.every((i) => isLate(at, i)) && hasEquipmentLook(at, now)) return false
  if (isDearest(group) && (hasFreeTry(at, group, now) || hasGlance(at, group, { ...now, ...FREE }))) return false
  const isSeen = group.causes.some((i) => at.shown?.includes(i))
  if (!now.isThrough && likelyOf(group, now.marginal).every((i) => at.clear?.has(i))) return false
  if (!isSeen && (hasOwnLook(at, group, now) || lacksLook(at, group, now))) return false
  if (signsFor(at, group).size === 0 && hasGlance(at, { causes: [] }, { ...now, ...RIVAL })) return false
  if (group.minutes > LOOK_FIRST_MIN && !isSeen && hasGlance(at, group, { ...now, ...GLANCE })) return false
  return isBackedUp(at, group, now.marginal)
}
/** Done unseen a short fix is worth it at this chance, a long one only at that; what was looked at and found well sooner not. */
const LAST = { shortMin: 6, short: 0.08, long: 0.25, lookedAt: 0.2 }
/** All looks were had and something still stands: what is named is put right unseen, once each, before help is called. */
export function isLastResort(at: PlanAt, { step }: Move, { marginal, named }: Standing): boolean {
  if (step.kind !== 'fix' || at.fixedTimes?.get(step.group.key)) return false
  const { causes, minutes } = step.group
  const chance = chanceAmong(marginal, causes)
  const isNamed = causes.some((i) => named.has(i) && !isWord(at.belief.knowledge.causes[i]))
  const isLookedAt = likelyOf(step.group, marginal).every((i) => at.clear?.has(i))
  const least = minutes <= LAST.shortMin ? LAST.short : LAST.long
  return isNamed && chance > (isLookedAt ? Math.max(least, LAST.lookedAt) : least)
}
function isLookTimely(at: PlanAt, check: Check, now: Standing): boolean {
  const { knowledge } = at.belief
  const about = [...causesOf(knowledge, check)].filter((i) => (now.marginal[i] ?? 0) > 0)
  const shown = chanceAmong(
    now.marginal,
    about.filter((i) => now.named.has(i)),
  )
  if (!now.isThrough && shown < WORTH) return false
  if (check.mends)
    return !hasLook(at, about, { mostMin: GLANCE.mostMin }) && !hasGlance(at, { causes: [] }, { ...now, ...RIVAL })
  if (minutesOf(check) > AT_ONCE.mostMin) {
    const share = minutesOf(check) > AT_ONCE.longMin ? AT_ONCE.ofLong : AT_ONCE.ofShort
    const least = Math.max(AT_ONCE.least, shown * share)
    if (hasGlance(at, { causes: [] }, { ...now, mostMin: AT_ONCE.mostMin, least })) return false
  }
  return !(about.every((i) => isLate(at, i)) && hasEquipmentLook(at, now, check))
}
/** What takes no tool and a few seconds and shows something likely comes before any longer look, unless that shows what is much likelier. */
const AT_ONCE = { mostMin: 0.35, least: 0.08, longMin: 2.5, ofShort: 0.3, ofLong: 0.1 }
/** A glance that takes no tool, at something named that is likely. */
export const isGlance = (at: PlanAt, check: Check, { marginal, named }: Standing): boolean =>
  minutesOf(check) <= AT_ONCE.mostMin &&
  isOf(
    at.belief.knowledge,
    check,
    [...named].filter((i) => (marginal[i] ?? 0) > AT_ONCE.least),
  )
/** What is named and could be seen by it is at least so likely, or nobody asks for it. */
const WORTH = 0.025
const NONE: ReadonlySet<number> = new Set()
const causesOf = (knowledge: Index, check: Check): ReadonlySet<number> => aboutOf(knowledge).get(check.key) ?? NONE
const isOf = (knowledge: Index, check: Check, causes: readonly number[]): boolean => {
  const about = causesOf(knowledge, check)
  return causes.some((i) => about.has(i))
}

/** Settings and hands come after what a glance shows of the equipment; the hand does not wait where the shop looks at technique first (D26). */
const isLate = ({ belief: { knowledge }, blame }: PlanAt, cause: number) => {
  const of = knowledge.causes[cause]
  return of?.fix.isTuned === true || (of?.kind === 'hand' && blame !== 'hand')
}
const EQUIPMENT = { mostMin: 0.7, least: 0.04 }
/** Where the equipment comes first, all quick looks at it do, and not only glances. */
const ALL_OF_IT_MIN = 3
function hasEquipmentLook(at: PlanAt, now: Standing, but?: Check): boolean {
  const { knowledge } = at.belief
  const likely = [...now.named].filter(
    (i) => !isLate(at, i) && knowledge.causes[i]?.kind !== 'elsewhere' && (now.marginal[i] ?? 0) > EQUIPMENT.least,
  )
  return hasLook(at, likely, { mostMin: at.blame === 'machine' ? ALL_OF_IT_MIN : EQUIPMENT.mostMin, but })
}

/** A fix this long waits for looks of a minute and less; the dearest for whatever a free look could show. */
const LOOK_FIRST_MIN = 3
const GLANCE = { mostMin: 1, least: 0.03 }
const FREE = { mostMin: 1, least: 0.02 }
/** Before a fresh tip is tried, or what nothing speaks for is done. */
const RIVAL = { mostMin: 0.5, least: 0.1 }
const DEAREST_MIN = 20
const isDearest = (group: FixGroup) => group.minutes > DEAREST_MIN

interface Glance extends Standing {
  mostMin: number
  /** How likely what it shows is at least. */
  least: number
}
/** Whether a quick look could still speak for it, or show something else that is named. */
const hasGlance = (at: PlanAt, of: Pick<FixGroup, 'causes'>, glance: Glance): boolean =>
  hasLook(at, seenBy(of, glance), { mostMin: glance.mostMin })
/** What a glance is had for: the fix itself, and whatever else is named, where it is likely enough. */
const seenBy = ({ causes }: Pick<FixGroup, 'causes'>, { marginal, named, least }: Omit<Glance, 'mostMin'>): number[] =>
  [...new Set([...causes, ...named])].filter((i) => (marginal[i] ?? 0) > least)
/** A look of a minute that comes before the dearest fix; null: all of them were had. */
export function lookBefore(at: PlanAt, group: FixGroup): Check | null {
  const { knowledge } = at.belief
  const likely = seenBy(group, { ...standingOf(at), ...FREE })
  const looks = knowledge.checks.filter((c) => isLookAt(at, c, { causes: likely, mostMin: FREE.mostMin }))
  return looks.sort((a, b) => minutesOf(a) - minutesOf(b))[0] ?? null
}
/** Whether a look of so long at most could still show any of these. */
export const hasLook = (at: PlanAt, causes: readonly number[], of: { mostMin: number; but?: Check | undefined }) =>
  at.belief.knowledge.checks.some((c) => c !== of.but && isLookAt(at, c, { causes, mostMin: of.mostMin }))
function isLookAt(at: PlanAt, check: Check, { causes, mostMin }: { causes: readonly number[]; mostMin: number }) {
  const { knowledge } = at.belief
  return (
    !check.mends &&
    minutesOf(check) <= mostMin &&
    isOf(knowledge, check, causes) &&
    isAskable(at, check) &&
    !isOfSettings(at, check)
  )
}
const isOfSettings = (at: PlanAt, check: Check) =>
  [...causesOf(at.belief.knowledge, check)].every((i) => isLate({ ...at, blame: 'minute' }, i))

const UNLIKELY = 0.01
const likelyOf = (group: FixGroup, marginal: Float64Array) => group.causes.filter((i) => (marginal[i] ?? 0) > UNLIKELY)
/** Whether a quick look shows what this fix puts right, and was not had. */
function hasOwnLook(at: PlanAt, group: FixGroup, { marginal }: Standing): boolean {
  const { knowledge } = at.belief
  const likely = likelyOf(group, marginal)
  return knowledge.checks.some(
    (c) =>
      !c.mends && SHOWS.has(c.sign) && minutesOf(c) <= GLANCE.mostMin && isOf(knowledge, c, likely) && isAskable(at, c),
  )
}
/** Whether the look that it wants before was not had, and can be. */
function lacksLook(at: PlanAt, group: FixGroup, { marginal }: Standing): boolean {
  const { knowledge } = at.belief
  return likelyOf(group, marginal).some((i) => {
    const check = knowledge.checkOf.get(knowledge.causes[i]?.fix.wants ?? '')
    return check !== undefined && isAskable(at, check)
  })
}

/** Signs that are tried out on the gun by a free hand, and not only seen, read or said: the cable lifted straight, the wire pulled. */
const TRIED: ReadonlySet<Sign> = new Set(['test', 'feel'])
/** Whether none of its free tries was had, and one can be. */
function hasFreeTry(at: PlanAt, group: FixGroup, { marginal }: Standing): boolean {
  const { knowledge } = at.belief
  const isOfIt = looksAt(group, marginal, knowledge)
  const tries = knowledge.checks.filter((c) => TRIED.has(c.sign) && isOfIt(c))
  return !tries.some((c) => at.done.has(c.key)) && tries.some((c) => isAskable(at, c))
}
/** A fix is told by the likeliest of the causes it mends. */
export function withLikeliest(step: Step, marginal: Float64Array, knowledge: Index): Step {
  if (step.kind === 'check') return step
  const best = [...step.group.causes].sort((a, b) => (marginal[b] ?? 0) - (marginal[a] ?? 0))[0] ?? 0
  return { ...step, cause: knowledge.causes[best] as Cause }
}
