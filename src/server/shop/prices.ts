import { groupBy, type ShopModel } from './model.ts'

/** Price of a part; where nobody said which it was, the middle one of its kind. */
export function prices(shop: ShopModel): (partId: string | null, kindKey: string) => number | null {
  const priced = [...shop.partById.values()].filter((p) => p.priceMinor !== null)
  const ofKind = groupBy(priced, (p) => p.kindKey)
  return (partId, kindKey) => {
    const own = partId ? (shop.partById.get(partId)?.priceMinor ?? null) : null
    if (own !== null) return own
    const list = (ofKind.get(kindKey) ?? []).map((p) => p.priceMinor ?? 0).sort((a, b) => a - b)
    return list[Math.floor(list.length / 2)] ?? null
  }
}
