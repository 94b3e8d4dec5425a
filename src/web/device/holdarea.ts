import { guideAnswer, type GuideAnswer } from '@contract/guide.ts'
import { shopAnswer, type ShopAnswer } from '@contract/shop.ts'
import { getJson } from '@web/api/client.ts'
import { downAddress, downNowAddress } from '@web/down/queries.ts'
import { floorAddress } from '@web/floor/queries.ts'
import { guideAddress } from '@web/guide/queries.ts'
import { DEFAULT_WALK, walkAddress } from '@web/walk/queries.ts'

/** What a tablet of a hall asks for so that it has all of it without a link: each of its guns, what is read and fitted there, the usual walk. */
export function areaPaths(shop: Pick<ShopAnswer, 'stations'>, areaId: string): string[] {
  const here = shop.stations.filter((s) => s.areaId === areaId).map((s) => s.id)
  return [
    '/people/me',
    floorAddress(null, null),
    floorAddress(areaId, null),
    '/find',
    downNowAddress(areaId),
    '/rightparts/look',
    `/rightparts/look?areaId=${areaId}`,
    '/guide/cautions',
    '/audit',
    walkAddress({ ...DEFAULT_WALK, areaId }),
    ...here.flatMap((id) => [
      `/gun/${id}`,
      `/reading?stationId=${id}`,
      `/liner?stationId=${id}`,
      `/drag?stationId=${id}`,
      downAddress(id),
      `/gun/spares?stationId=${id}`,
    ]),
  ]
}
/** Each guide that a gun has, as its page asks for it. */
export const guidePaths = ({ stationId, guides }: Pick<GuideAnswer, 'stationId' | 'guides'>): string[] =>
  guides.map(({ key }) => guideAddress({ stationId, familyId: null, guide: key }))

const HELD = 'idle-spool-held'
/** When the whole area was held last; null: not yet. */
export const heldMs = (): number | null => Number(localStorage.getItem(HELD)) || null

const BETWEEN_MS = 150
/** What a device may not see is no fault. */
const FAULT = 500
const pause = (ms: number) => new Promise((done) => setTimeout(done, ms))

/** What is asked before the worker has taken this page over goes past it and is not kept. */
async function underWorker(): Promise<void> {
  await navigator.serviceWorker.ready
  if (navigator.serviceWorker.controller) return
  await new Promise((done) => navigator.serviceWorker.addEventListener('controllerchange', done, { once: true }))
}

/** Asks for all of an area, one by one, so that nobody waits for it; the worker keeps the answers, and nobody reads them here. */
export async function holdArea(areaId: string, isGone: () => boolean): Promise<void> {
  await underWorker()
  const shop = await getJson('/shop', shopAnswer)
  const ask = async (paths: readonly string[]) => {
    for (const path of paths) {
      if (isGone()) return
      const { status } = await fetch(`/api${path}`, { credentials: 'same-origin' })
      if (status >= FAULT) throw new Error(`${path}: ${status}`)
      await pause(BETWEEN_MS)
    }
  }
  await ask(areaPaths(shop, areaId))
  for (const { id } of shop.stations.filter((s) => s.areaId === areaId))
    await ask(guidePaths(await getJson(guideAddress({ stationId: id, familyId: null, guide: null }), guideAnswer)))
  if (!isGone()) localStorage.setItem(HELD, String(Date.now()))
}
