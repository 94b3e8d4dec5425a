import { useEffect, useSyncExternalStore } from 'react'
import { useQueryClient } from '@tanstack/react-query'
import { photoKept } from '@contract/photo.ts'
import { ApiError, isWorthAnotherTry, postFile } from '@web/api/client.ts'
import { keptOnDevice } from '@web/offline/keptondevice.ts'
import { Outbox, type Sent, type Waiting } from './outbox.ts'

async function send({ of, once, blob }: Waiting): Promise<Sent> {
  const query = new URLSearchParams({ type: of.type, key: of.key, once }).toString()
  try {
    await postFile(`/photo?${query}`, blob, photoKept)
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
