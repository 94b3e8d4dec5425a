import { useEffect } from 'react'
import { useMe } from '@web/people/queries.ts'

const AGAIN_MS = 30 * 60_000
/** What was cut short, by a server that was busy or a link that broke, is begun again sooner. */
const AFTER_FAULT_MS = 60_000

/** A device that belongs to an area holds it, renewed every half hour while there is a link. What that takes is loaded on such a device only. */
export function useHoldArea(): void {
  const areaId = useMe().data?.device?.areaId ?? null
  useEffect(() => {
    if (!areaId || !('serviceWorker' in navigator)) return
    let isGone = false
    // Without a link there is nothing to renew, and what is held stays.
    let again: ReturnType<typeof setTimeout> | undefined
    const run = async () => {
      const wait = await import('./holdarea.ts')
        .then(({ holdArea }) => holdArea(areaId, () => isGone))
        .then(
          () => AGAIN_MS,
          () => AFTER_FAULT_MS,
        )
      if (!isGone) again = setTimeout(() => void run(), wait)
    }
    void run()
    return () => {
      isGone = true
      clearTimeout(again)
    }
  }, [areaId])
}
