import { useEffect, useSyncExternalStore } from 'react'
import { useQueryClient } from '@tanstack/react-query'
import { BY_KEY } from '@core/photo/photo.ts'
import { photoKept } from '@contract/photo.ts'
import { ApiError, isWorthAnotherTry, postWrite } from '@web/api/client.ts'
import { queue } from '@web/offline/device.ts'
import { keptOnDevice } from '@web/offline/keptondevice.ts'
import { Outbox, type Sent, type Waiting } from './outbox.ts'

const clipQuery = (clip: Waiting['clip']): Record<string, string> =>
  clip ? { frames: String(clip.frames), perRow: String(clip.perRow), stepMs: String(clip.stepMs) } : {}

async function send({ of, once, blob, atMs, clip }: Waiting): Promise<Sent> {
  // What it is a picture of waits on this device as well: that goes first.
  if (of.key.startsWith(BY_KEY) && queue.read().waiting.some((e) => of.key === `${BY_KEY}${e.key}`)) return 'no link'
  const query = new URLSearchParams({ type: of.type, key: of.key, once, ...clipQuery(clip) }).toString()
  try {
    await postWrite(`/photo?${query}`, { body: blob, notedMs: atMs }, photoKept)
    return 'sent'
  } catch (problem) {
    if (!(problem instanceof ApiError)) throw problem
    return isWorthAnotherTry(problem) ? 'no link' : { refused: problem.message }
  }
}

const waiting = keptOnDevice<Waiting>({ database: 'idle-spool-photos', table: 'waiting', keyOf: (photo) => photo.once })

let isSent = () => {}
export const outbox = new Outbox(waiting, send, () => isSent())
const AGAIN_MS = 30_000

/** What waits on this device; tried again when the link comes back, when the page opens, and every half minute. */
export function useOutbox() {
  const client = useQueryClient()
  const state = useSyncExternalStore(outbox.watch, outbox.read, outbox.read)
  useEffect(() => {
    isSent = () => void client.invalidateQueries({ queryKey: ['photo'] })
    const again = () => void outbox.flush()
    again()
    addEventListener('online', again)
    const timer = setInterval(again, AGAIN_MS)
    return () => {
      removeEventListener('online', again)
      clearInterval(timer)
    }
  }, [client])
  return state
}
