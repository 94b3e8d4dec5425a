import { useEffect, useRef, useState } from 'react'
import { necksNeeded, type NeckNeed, type NecksAt } from '@core/cell/neckneed.ts'
import { type NeedSaid } from './needasked.ts'

/** The same question has the same answer, on every device. */
const SEED = 28
/** Each number of spares around what is there: worked out in a worker; null while it is. */
export function useNeed(of: Omit<NeckNeed, 'seed'>): NecksAt[] | null {
  const under = JSON.stringify(of)
  const [made, setMade] = useState<{ under: string; rows: NecksAt[] } | null>(null)
  const asked = useRef(0)
  useEffect(() => {
    const need: NeckNeed = { ...(JSON.parse(under) as Omit<NeckNeed, 'seed'>), seed: SEED }
    const id = ++asked.current
    if (typeof Worker === 'undefined') {
      setMade({ under, rows: necksNeeded(need) })
      return
    }
    const worker = new Worker(new URL('./need.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<NeedSaid>) => {
      if (data.id === id) setMade({ under, rows: data.rows })
    }
    worker.postMessage({ id, need })
    return () => worker.terminate()
  }, [under])
  return made?.under === under ? made.rows : null
}
