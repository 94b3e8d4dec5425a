import { drawNormal, makeRandom } from '@core/random/random.ts'
import { HAND_ITEM_KEYS, handItem, RIGHT, type FoundAtBooth, type HandItemKey } from './items.ts'
import { type BoothFound } from './beyond.ts'

/**
 * A made-up school to try the counts on: booths that are worse than others, pairs of hands that are clumsier than others, and groups that differ only
 * where that is asked for. What judges it is given its looks alone.
 */
export interface SchoolAsked {
  seed: number
  booths: number
  groups: number
  /** Times each group had its booths. */
  periods: number
  /** How often something is left wrong, on the whole. */
  share: number
  /** Spread of booths and of hands, as the standard deviation of the log odds. */
  spread: number
  /** One group that leaves one thing wrong so many times as often in odds; null: none differs. */
  differs: { group: number; item: HandItemKey; odds: number; untilPeriod?: number } | null
}
export const groupOf = (g: number) => `g${g}`
export const dayOfPeriod = (p: number) => new Date(Date.UTC(2026, 8, 1 + p)).toISOString().slice(0, 10)

export function drawSchool(of: SchoolAsked): BoothFound[] {
  const random = makeRandom(of.seed)
  const normal = () => drawNormal(random) * of.spread
  const base = Math.log(of.share / (1 - of.share))
  const boothAt = HAND_ITEM_KEYS.map(() => Array.from({ length: of.booths }, normal))
  const handsAt = HAND_ITEM_KEYS.map(() => Array.from({ length: of.booths * of.groups }, normal))
  const looks: BoothFound[] = []
  for (let p = 0; p < of.periods; p++)
    for (let g = 0; g < of.groups; g++)
      for (let b = 0; b < of.booths; b++) {
        const found: FoundAtBooth = {}
        HAND_ITEM_KEYS.forEach((item, i) => {
          const own = of.differs?.group === g && of.differs.item === item && p < (of.differs.untilPeriod ?? Infinity)
          const odds = Math.exp(
            base +
              (boothAt[i]?.[b] ?? 0) +
              (handsAt[i]?.[b * of.groups + g] ?? 0) +
              (own ? Math.log(of.differs?.odds ?? 1) : 0),
          )
          found[item] = random() < odds / (1 + odds) ? handItem(item).wrong[0].key : RIGHT
        })
        looks.push({ boothId: `b${b}`, leftBy: groupOf(g), day: dayOfPeriod(p), found })
      }
  return looks
}
