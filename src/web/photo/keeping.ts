import { useEffect, useSyncExternalStore } from 'react'
import { useQueryClient } from '@tanstack/react-query'
import { createStore, del, entries, set, type UseStore } from 'idb-keyval'
import { photoKept } from '@contract/photo.ts'
import { ApiError, OFFLINE, postFile } from '@web/api/client.ts'
import { Outbox, type Sent, type Storage, type Waiting } from './outbox.ts'

/** What a later try may bring through: no link, a server that tripped, a sign-in that ran out. */
const WORTH_ANOTHER_TRY = new Set([OFFLINE, 'server-fault', 'not-signed-in', 'too-many', 'other-version'])

async function send({ of, once, blob }: Waiting): Promise<Sent> {
  const query = new URLSearchParams({ type: of.type, key: of.key, once }).toString()
  try {
    await postFile(`/photo?${query}`, blob, photoKept)
    return 'sent'
  } catch (problem) {
    if (!(problem instanceof ApiError)) throw problem
    return WORTH_ANOTHER_TRY.has(problem.code) ? 'no link' : { refused: problem.message }
  }
}

/** On the device, beyond this page; where a browser has no such place, as long as the page is open. */
function storage(): Storage {
  if (typeof indexedDB === 'undefined') {
    const kept = new Map<string, Waiting>()
    return {
      all: () => Promise.resolve([...kept.values()]),
      put: (photo) => Promise.resolve(void kept.set(photo.once, photo)),
      remove: (once) => Promise.resolve(void kept.delete(once)),
    }
  }
  let opened: UseStore | null = null
  const store = () => (opened ??= createStore('idle-spool-photos', 'waiting'))
  return {
    all: async () => (await entries<string, Waiting>(store())).map(([, photo]) => photo),
    put: (photo) => set(photo.once, photo, store()),
    remove: (once) => del(once, store()),
  }
}

let isSent = () => {}
export const outbox = new Outbox(storage(), send, () => isSent())
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
