import { type ShopAnswer } from '@contract/shop.ts'
import { MAIN_PLACE } from '@web/format/words.ts'

/** The places where parts lie, to choose from; the main one first. */
export const placesOf = ({ stores }: Pick<ShopAnswer, 'stores'>): [string, string][] => [
  ['', MAIN_PLACE],
  ...stores.map((s): [string, string] => [s.id, s.name]),
]
/** How many of a part lie in one of them by count and log; null: never counted there. */
export function liesThere(part: ShopAnswer['parts'][number], storeId: string): number | null {
  if (part.lies.every((l) => l.storeId === null)) return storeId === '' ? part.onHand : null
  return part.lies.find((l) => (l.storeId ?? '') === storeId)?.onHand ?? null
}
