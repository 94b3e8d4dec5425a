import { useEffect, useState } from 'react'
import { necksNeeded, type NeckNeed, type NecksAt } from '@core/cell/neckneed.ts'

/** The same question has the same answer, on every device. */
const SEED = 28
/** Each number of spares around what is there: worked out in a worker that ends with its question; null while it is. */
export function useNeed(of: Omit<NeckNeed, 'seed'>): NecksAt[] | null {
  const under = JSON.stringify(of)
  const [made, setMade] = useState<{ under: string; rows: NecksAt[] } | null>(null)
  useEffect(() => {
    const need: NeckNeed = { ...(JSON.parse(under) as Omit<NeckNeed, 'seed'>), seed: SEED }
    if (typeof Worker === 'undefined') {
      setMade({ under, rows: necksNeeded(need) })
      return
    }
    const worker = new Worker(new URL('./need.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data: rows }: MessageEvent<NecksAt[]>) => setMade({ under, rows })
    worker.postMessage(need)
    return () => worker.terminate()
  }, [under])
  return made?.under === under ? made.rows : null
}
