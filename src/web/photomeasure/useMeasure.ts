import { useCallback, useEffect, useRef, useState } from 'react'
import { type BoreAnswer, type BoreMeasured } from '@core/photomeasure/bore.ts'
import { type Point } from '@core/photomeasure/ellipse.ts'
import { type MeasureAnswer, type MeasureAsk } from './measure.worker.ts'

export interface Measuring {
  /** Null: no picture yet; `unreadable`: it is none. */
  size: { width: number; height: number } | null | 'unreadable'
  bore: BoreAnswer | null
  isBusy: boolean
  open: (file: Blob) => void
  measure: (of: { centre: Point; borePx: number | null; outerPx: number | null; outerMm: number }) => void
}

/** A picture and what is measured on it, in a worker of its own; of several taps the last one counts. */
export function useMeasure(onMeasured: (bore: BoreMeasured | null) => void): Measuring {
  const worker = useRef<Worker | null>(null)
  const asked = useRef(0)
  const tell = useRef(onMeasured)
  tell.current = onMeasured
  const [size, setSize] = useState<Measuring['size']>(null)
  const [bore, setBore] = useState<BoreAnswer | null>(null)
  const [isBusy, setBusy] = useState(false)
  useEffect(() => {
    if (typeof Worker === 'undefined') return
    const made = new Worker(new URL('./measure.worker.ts', import.meta.url), { type: 'module' })
    made.onmessage = ({ data }: MessageEvent<MeasureAnswer>) => {
      if (data.id !== asked.current) return
      setBusy(false)
      if (data.type === 'photo') setSize(data.size ?? 'unreadable')
      else {
        setBore(data.bore)
        tell.current(data.bore.ok ? data.bore : null)
      }
    }
    worker.current = made
    return () => made.terminate()
  }, [])
  const ask = useCallback((of: (id: number) => MeasureAsk) => {
    asked.current += 1
    setBusy(true)
    worker.current?.postMessage(of(asked.current))
  }, [])
  const open = (file: Blob) => {
    setBore(null)
    setSize(null)
    onMeasured(null)
    ask((id) => ({ type: 'photo', id, file }))
  }
  const measure: Measuring['measure'] = (of) => ask((id) => ({ type: 'bore', id, ...of }))
  return { size, bore, isBusy, open, measure }
}
