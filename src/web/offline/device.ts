import { useEffect, useSyncExternalStore } from 'react'
import { useQueryClient } from '@tanstack/react-query'
import { z } from 'zod'
import { walkFoundAnswer } from '@contract/walk.ts'
import { ApiError, isWorthAnotherTry, newKey, postJson, postWrite } from '@web/api/client.ts'
import { QueueDriver, type Answered } from './driver.ts'
import { type Entry } from './queue.ts'
import { deviceStore } from './store.ts'

async function send(batch: readonly Entry[]): Promise<Answered | null> {
  const [first] = batch
  if (!first) return []
  try {
    if (first.kind === 'walk')
      return (await postJson(first.path, { entries: batch.map((e) => e.body) }, walkFoundAnswer)).entries
    await postWrite(first.path, { body: first.body, notedMs: first.atMs }, z.unknown())
    return [{ key: first.key, is: 'kept', message: null }]
  } catch (problem) {
    if (!(problem instanceof ApiError)) throw problem
    if (isWorthAnotherTry(problem)) return null
    const message = [problem.message, ...problem.details].join(' ')
    // A whole batch that is refused is no fault of each: it is listed as it stands.
    return batch.map((e) => ({ key: e.key, is: 'refused' as const, message }))
  }
}

let onAnswered = () => {}
export const queue = new QueueDriver({
  store: deviceStore(),
  send,
  now: () => Date.now(),
  wakeAt: (atMs, wake) => void setTimeout(wake, Math.max(0, atMs - Date.now())),
  onAnswered: () => onAnswered(),
})

export const takeBack = (key: string) => queue.takeBack(key)
export const useQueue = () => useSyncExternalStore(queue.watch, queue.read)

/** Notes something on the device at its own time; it goes to the server as soon as there is a link. */
export const note = (of: Pick<Entry, 'kind' | 'path' | 'says'> & { body: object; key?: string; atMs: number }) => {
  const { key = newKey(), body, ...rest } = of
  return queue.add({ ...rest, key, body: { key, ...body } })
}

const OFTEN_MS = 30_000
/** Takes up what waits from before, and goes on when the link is back or the page is looked at again. */
export function useQueueRuns(): void {
  const client = useQueryClient()
  useEffect(() => {
    onAnswered = () => void client.invalidateQueries()
    void queue.restore()
    void navigator.storage?.persist?.().catch(() => false)
    const back = () => void queue.go(true)
    const seen = () => void queue.restore()
    // What this page asked before its worker took it over was not kept: asked again, it is.
    const taken = () => void client.invalidateQueries()
    navigator.serviceWorker?.addEventListener('controllerchange', taken)
    addEventListener('online', back)
    document.addEventListener('visibilitychange', seen)
    const often = setInterval(seen, OFTEN_MS)
    return () => {
      navigator.serviceWorker?.removeEventListener('controllerchange', taken)
      removeEventListener('online', back)
      document.removeEventListener('visibilitychange', seen)
      clearInterval(often)
    }
  }, [client])
}
