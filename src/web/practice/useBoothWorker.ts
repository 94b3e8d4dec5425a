import { useEffect, useMemo, useRef } from 'react'
import { type Knowledge } from '@core/diagnose/knowledge.ts'
import { type BoothAnswered, type BoothAnswers, type BoothAsk, type BoothAsked, type BoothAsks } from './boothasked.ts'

export type AskBooth = <K extends BoothAsk>(ask: K, of: BoothAsks[K]) => Promise<BoothAnswers[K]>

/** The booth's worker, which knows what the shop knows; asked by name, answered in turn. */
export function useBoothWorker(knowledge: Knowledge | undefined): AskBooth {
  const waiting = useRef(new Map<number, (answer: never) => void>())
  const worker = useRef<Worker | null>(null)
  const ask = useMemo<AskBooth>(() => {
    let id = 0
    return (what, of) =>
      new Promise((done) => {
        id += 1
        waiting.current.set(id, done as (answer: never) => void)
        worker.current ??= started(waiting.current)
        worker.current.postMessage({ id, ask: what, of } as BoothAsked)
      })
  }, [])
  useEffect(() => {
    if (knowledge) void ask('know', { knowledge })
  }, [ask, knowledge])
  useEffect(
    () => () => {
      worker.current?.terminate()
      worker.current = null
    },
    [],
  )
  return ask
}
function started(waiting: Map<number, (answer: never) => void>): Worker {
  const made = new Worker(new URL('./booth.worker.ts', import.meta.url), { type: 'module' })
  made.onmessage = ({ data }: MessageEvent<BoothAnswered>) => {
    waiting.get(data.id)?.(data.answer as never)
    waiting.delete(data.id)
  }
  return made
}
