import { makeRandom } from '@core/random/random.ts'
import { countedCells, NAMED_AT, sum, type BoothFound, type Counted } from './beyond.ts'
import { type HandItemKey } from './items.ts'

/** A lesson given to a group, and what was left wrong before it and since. */
export interface LessonHelped {
  before: Counted
  since: Counted
  /** The other groups over the same days: what fell everywhere was not the lesson. */
  othersBefore: Counted
  othersSince: Counted
  /** The chance of falling so far by luck; null: too little was looked at since. */
  byLuck: number | null
  says: 'helped' | 'cannotTell' | 'tooEarly'
  /** Looks that are missing before it can be told. */
  looksToGo: number
}
/** Looks on either side before anything is said. */
const LEAST_SIDE = 20
const SHUFFLES = 1999

const cellsOf = (looks: readonly BoothFound[], group: string, item: HandItemKey) =>
  new Map(
    [...countedCells(looks, item)].flatMap(([booth, groups]) => {
      const cell = groups.get(group)
      return cell ? [[booth, cell] as const] : []
    }),
  )

/**
 * Whether a lesson helped: what its group left wrong before and since, booth by booth, before and since of a booth exchanged at random in each shuffle
 * (Fisher’s randomisation of pairs); one-sided, p = (1 + shuffles that fall as far) / (1 + shuffles). The share that fell with the other groups is taken
 * off first: the fall is against theirs.
 */
export function lessonHelped(
  looks: readonly BoothFound[],
  lesson: { group: string; item: HandItemKey; day: string },
): LessonHelped {
  const { group, item, day } = lesson
  const [before, since] = [looks.filter((l) => l.day < day), looks.filter((l) => l.day > day)]
  const own = { before: cellsOf(before, group, item), since: cellsOf(since, group, item) }
  const sides = {
    before: sum([...own.before.values()]),
    since: sum([...own.since.values()]),
    othersBefore: ofOthers(before, group, item),
    othersSince: ofOthers(since, group, item),
  }
  const looksToGo = Math.max(0, LEAST_SIDE - sides.since.looked)
  if (looksToGo > 0 || sides.before.looked < LEAST_SIDE) return { ...sides, byLuck: null, says: 'tooEarly', looksToGo }
  const byLuck = chanceOfFall(own, sides)
  return { ...sides, byLuck, says: byLuck <= NAMED_AT ? 'helped' : 'cannotTell', looksToGo: 0 }
}
const ofOthers = (looks: readonly BoothFound[], group: string, item: HandItemKey) =>
  sum(
    [...countedCells(looks, item).values()].flatMap((groups) =>
      [...groups].filter(([g]) => g !== group).map(([, c]) => c),
    ),
  )

const share = ({ wrong, looked }: Counted) => (looked > 0 ? wrong / looked : 0)
/** How far the share fell, as a share of looks, over how far it fell elsewhere. */
function chanceOfFall(
  own: Record<'before' | 'since', ReadonlyMap<string, Counted>>,
  { before, since, othersBefore, othersSince }: Pick<LessonHelped, 'before' | 'since' | 'othersBefore' | 'othersSince'>,
): number {
  const elsewhere = othersSince.looked > 0 && share(othersBefore) > 0 ? share(othersSince) / share(othersBefore) : 1
  const drift = Math.min(1, elsewhere)
  const none = { wrong: 0, looked: 0 }
  const pairs = [...new Set([...own.before.keys(), ...own.since.keys()])].map((booth) => {
    const b = own.before.get(booth) ?? none
    return { b: { ...b, wrong: b.wrong * drift }, s: own.since.get(booth) ?? none }
  })
  const fall = (list: readonly { b: Counted; s: Counted }[]) =>
    share(sum(list.map((p) => p.b))) - share(sum(list.map((p) => p.s)))
  const seen = fall(pairs)
  const random = makeRandom(before.looked * 31 + since.looked)
  let asFar = 0
  for (let i = 0; i < SHUFFLES; i++)
    if (fall(pairs.map(({ b, s }) => (random() < 0.5 ? { b, s } : { b: s, s: b }))) >= seen - 1e-12) asFar++
  return (1 + asFar) / (1 + SHUFFLES)
}
