import { useCallback, useEffect, useRef, useState } from 'react'
import { type Answer, type MeasureAnswer, type Drawn, type MeasureAsk, type Tapped } from './asked.ts'

export interface Measuring {
  /** Null: no picture yet; `unreadable`: it is none. */
  size: { width: number; height: number } | null | 'unreadable'
  answer: Answer | null
  isBusy: boolean
  open: (file: Blob) => void
  bore: (of: Tapped & { outerMm: number }) => void
  nozzle: (of: Tapped) => void
  span: (of: Drawn) => void
}

/** A picture and what is measured on it, in a worker of its own; of several taps the last one counts. */
export function useMeasure(onAnswer: (answer: Answer | null) => void): Measuring {
  const worker = useRef<Worker | null>(null)
  const asked = useRef(0)
  const tell = useRef(onAnswer)
  tell.current = onAnswer
  const [size, setSize] = useState<Measuring['size']>(null)
  const [answer, setAnswer] = useState<Answer | null>(null)
  const [isBusy, setBusy] = useState(false)
  useEffect(() => {
    if (typeof Worker === 'undefined') return
    const made = new Worker(new URL('./measure.worker.ts', import.meta.url), { type: 'module' })
    made.onmessage = ({ data }: MessageEvent<MeasureAnswer>) => {
      if (data.id !== asked.current) return
      setBusy(false)
      if (data.type === 'photo') return setSize(data.size ?? 'unreadable')
      setAnswer(data.answer)
      tell.current(data.answer)
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
    setAnswer(null)
    setSize(null)
    onAnswer(null)
    ask((id) => ({ type: 'photo', id, file }))
  }
  const bore: Measuring['bore'] = (of) => ask((id) => ({ type: 'bore', id, ...of }))
  const nozzle: Measuring['nozzle'] = (of) => ask((id) => ({ type: 'nozzle', id, ...of }))
  const span: Measuring['span'] = (of) => ask((id) => ({ type: 'span', id, ...of }))
  return { size, answer, isBusy, open, bore, nozzle, span }
}
