import { useEffect, useRef, useState } from 'react'
import { type DragSetup, type Guesses } from '@core/drag/setup.ts'
import { type SweepAnswer, type SweepAsk } from './sweepasked.ts'

/** Asked once the hand rests: a drag does not queue a sweep for every pixel. */
const REST_MS = 150

/** What the guesses allow for the gun as drawn, from a worker; null while the hand moves or nothing has come yet. */
export function useSweep(setup: DragSetup, spans: Guesses): SweepAnswer | null {
  const worker = useRef<Worker | null>(null)
  const asked = useRef(0)
  const [answer, setAnswer] = useState<SweepAnswer | null>(null)
  useEffect(() => {
    if (typeof Worker === 'undefined') return
    const made = new Worker(new URL('./sweep.worker.ts', import.meta.url), { type: 'module' })
    made.onmessage = ({ data }: MessageEvent<SweepAnswer>) => {
      if (data.id === asked.current) setAnswer(data)
    }
    worker.current = made
    return () => made.terminate()
  }, [])
  useEffect(() => {
    const rest = setTimeout(() => {
      asked.current += 1
      worker.current?.postMessage({ id: asked.current, setup, spans } satisfies SweepAsk)
    }, REST_MS)
    return () => clearTimeout(rest)
  }, [setup, spans])
  return answer
}
