import { HAND_ITEM_KEYS, RIGHT, type FoundAtBooth, type HandItemKey } from '@core/classes/items.ts'

/** A look at one booth while it is taken: what was tapped so far, and what of the wrong is still so. */
export interface BeforeState {
  found: FoundAtBooth
  still: HandItemKey[]
}
export const NOTHING_LOOKED: BeforeState = { found: {}, still: [] }

/** Tapped once it is so; tapped again nobody looked. */
export function tapped({ found, still }: BeforeState, item: HandItemKey, answer: string): BeforeState {
  const { [item]: was, ...others } = found
  const rest = still.filter((k) => k !== item)
  return was === answer ? { found: others, still: rest } : { found: { ...others, [item]: answer }, still: rest }
}
/** Found wrong: still so, or put right at once. */
export const kept = ({ found, still }: BeforeState, item: HandItemKey, isStill: boolean): BeforeState => ({
  found,
  still: [...still.filter((k) => k !== item), ...(isStill ? [item] : [])],
})
/** What was not tapped is as it should be. */
export const restRight = ({ found, still }: BeforeState): BeforeState => ({
  found: { ...Object.fromEntries(HAND_ITEM_KEYS.map((k) => [k, RIGHT])), ...found },
  still,
})
/** The next booth of the class that nobody has looked at, after this one on the way round; null: all are. */
export function nextBooth<B extends { stationId: string; look: unknown; isParked: boolean; isDown: boolean }>(
  booths: readonly B[],
  here: string,
): B | null {
  const at = booths.findIndex((b) => b.stationId === here)
  const round = [...booths.slice(at + 1), ...booths.slice(0, Math.max(0, at))]
  return round.find((b) => !b.look && !b.isParked && !b.isDown && b.stationId !== here) ?? null
}
