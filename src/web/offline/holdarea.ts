import { useEffect } from 'react'
import { shopAnswer, type ShopAnswer } from '@contract/shop.ts'
import { getJson } from '@web/api/client.ts'
import { useMe } from '@web/people/queries.ts'
import { DEFAULT_WALK, walkAddress } from '@web/walk/queries.ts'

/** What a tablet of a hall asks for so that it has all of it without a link: each of its guns, what is read there, the usual walk. */
export function areaPaths(shop: Pick<ShopAnswer, 'stations'>, areaId: string): string[] {
  const here = shop.stations.filter((s) => s.areaId === areaId).map((s) => s.id)
  return [
    '/floor',
    '/find',
    walkAddress({ ...DEFAULT_WALK, areaId }),
    ...here.flatMap((id) => [`/gun/${id}`, `/reading?stationId=${id}`]),
  ]
}

const BETWEEN_MS = 150
const AGAIN_MS = 30 * 60_000
const pause = (ms: number) => new Promise((done) => setTimeout(done, ms))

/** A device that belongs to an area holds it, renewed every half hour while there is a link; one by one, so that nobody waits for it. */
export function useHoldArea(): void {
  const areaId = useMe().data?.device?.areaId ?? null
  useEffect(() => {
    if (!areaId || !('serviceWorker' in navigator)) return
    let isGone = false
    const hold = async () => {
      await navigator.serviceWorker.ready
      const shop = await getJson('/shop', shopAnswer)
      for (const path of areaPaths(shop, areaId)) {
        if (isGone) return
        // The worker keeps the answer; nobody reads it here.
        await fetch(`/api${path}`, { credentials: 'same-origin' })
        await pause(BETWEEN_MS)
      }
    }
    // Without a link there is nothing to renew, and what is held stays.
    const run = () => void hold().catch(() => undefined)
    run()
    const again = setInterval(run, AGAIN_MS)
    return () => {
      isGone = true
      clearInterval(again)
    }
  }, [areaId])
}
