import { shareInterval, type ShareInterval } from '@core/stats/share.ts'
import { type BoothFound, type Counted, type OfGroup } from './beyond.ts'
import { HAND_ITEMS, handItem, type HandItemKey } from './items.ts'

/** What to teach a group next, and why that. */
export interface ToTeach extends Counted, ShareInterval {
  item: HandItemKey
  /** This group more than others at the same booths; or it is the commonest everywhere, and nobody’s own. */
  why: 'thisGroup' | 'everywhere'
  byLuck: number | null
  /** Minutes a period it costs whoever comes next, booth by booth; a guess times what was found. */
  minutes: number
}
/** Taught so lately that it is left to work first. */
const LET_WORK_DAYS = 14
/** Found wrong less often than that it is not worth a lesson. */
const LEAST_WRONG = 3

export interface TeachAsked {
  group: string
  ofGroups: readonly OfGroup[]
  /** Booths the group has. */
  booths: number
  /** What it was taught, with days since. */
  taught: readonly { item: HandItemKey; daysAgo: number }[]
}
/** First what stands out in this group, then what is commonest for all; by the minutes it costs. */
export function whatToTeach({ group, ofGroups, booths, taught }: TeachAsked): ToTeach[] {
  const isFresh = (item: HandItemKey) => taught.some((t) => t.item === item && t.daysAgo < LET_WORK_DAYS)
  const items = (Object.keys(HAND_ITEMS) as HandItemKey[]).filter((item) => !isFresh(item))
  const lists = items.flatMap((item): ToTeach[] => {
    const own = ofGroups.find((g) => g.item === item && g.group === group)
    const cost = (share: number) => share * booths * handItem(item).costMin
    if (own?.isBeyond) return [{ ...own, item, why: 'thisGroup', minutes: cost(own.share) }]
    const all = ofGroups.filter((g) => g.item === item)
    const [wrong, looked] = [all.reduce((s, g) => s + g.wrong, 0), all.reduce((s, g) => s + g.looked, 0)]
    if (wrong < LEAST_WRONG) return []
    const of = shareInterval(wrong, looked)
    return [{ item, why: 'everywhere', wrong, looked, ...of, byLuck: null, minutes: cost(of.share) }]
  })
  const rank = (t: ToTeach) => (t.why === 'thisGroup' ? 0 : 1)
  return lists.sort((a, b) => rank(a) - rank(b) || b.minutes - a.minutes)
}

/** Looks without what a group left before it was last taught about it: from a lesson on it is counted anew. */
export function sinceTaught(
  looks: readonly BoothFound[],
  lessons: readonly { group: string; item: HandItemKey; day: string }[],
): BoothFound[] {
  const last = new Map<string, string>()
  for (const { group, item, day } of lessons) {
    const key = `${group} ${item}`
    if (day > (last.get(key) ?? '')) last.set(key, day)
  }
  if (last.size === 0) return [...looks]
  return looks.map((look) => {
    const found = Object.entries(look.found).filter(([item]) => look.day > (last.get(`${look.leftBy} ${item}`) ?? ''))
    return { ...look, found: Object.fromEntries(found) }
  })
}
