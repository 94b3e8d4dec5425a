import { type StationId } from '@core/ids/id.ts'
import { type ShopPlaces } from '@server/shopmodel/model.ts'

export const whyNoPlace = (text: string) =>
  text
    ? 'there is no such place; say which it is, set it up under places, or leave the row out'
    : 'the place is missing'

/**
 * A place by its name as people write it: "A-07", "a 7" and "gun A7" are A7, as long as only one place can be meant; or as whoever brings the sheet has
 * said, `out` for one whose rows are left out.
 */
export function placeFinder(
  shop: ShopPlaces,
  names: Record<string, string>,
): (text: string) => StationId | 'out' | null {
  const exact = new Map(shop.stations.map((s) => [s.name.toLowerCase(), s.id]))
  const loose = new Map<string, StationId | null>()
  for (const s of shop.stations) loose.set(loosely(s.name), loose.has(loosely(s.name)) ? null : s.id)
  const said = (text: string) => {
    const id = names[text]
    return id === 'out' ? 'out' : (shop.stations.find((s) => s.id === id)?.id ?? null)
  }
  return (text) => exact.get(text.toLowerCase()) ?? loose.get(loosely(text)) ?? said(text)
}
const loosely = (name: string) =>
  name
    .toLowerCase()
    .replace(/\b(gun|booth|cell|bench|bay|no|nr)\b\.?/g, '')
    .replace(/[^a-z0-9]/g, '')
    .replace(/0+(?=\d)/g, '')
