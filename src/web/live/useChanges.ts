import { useEffect, useSyncExternalStore } from 'react'
import { useQueryClient } from '@tanstack/react-query'
import { LIVE_KEYS } from './keys.ts'

/** When the link went, or null while there is one; kept outside React so that every screen sees the same. */
let lostMs: number | null = null
const watchers = new Set<() => void>()
function setLost(next: number | null): void {
  if ((lostMs === null) === (next === null)) return
  lostMs = next
  watchers.forEach((watch) => watch())
}
const subscribe = (watch: () => void) => {
  watchers.add(watch)
  return () => watchers.delete(watch)
}
export const useLinkLost = () =>
  useSyncExternalStore(
    subscribe,
    () => lostMs,
    () => lostMs,
  )

const PATIENCE_MS = 4000

/** Listens for "these stations changed" and asks again for what shows them. The stream itself says whether there is a link. */
export function useChanges(isOn: boolean): void {
  const client = useQueryClient()
  useEffect(() => {
    if (!isOn) return
    const source = new EventSource('/api/changes')
    let waiting: ReturnType<typeof setTimeout> | undefined
    const alive = () => {
      clearTimeout(waiting)
      waiting = undefined
      setLost(null)
    }
    const refresh = () => {
      for (const key of LIVE_KEYS) void client.invalidateQueries({ queryKey: [key] })
    }
    source.addEventListener('hello', () => {
      if (lostMs !== null) refresh()
      alive()
    })
    source.addEventListener('beat', alive)
    source.addEventListener('changed', () => {
      alive()
      refresh()
    })
    source.onerror = () => {
      const since = Date.now()
      waiting ??= setTimeout(() => setLost(since), PATIENCE_MS)
    }
    return () => {
      clearTimeout(waiting)
      source.close()
    }
  }, [client, isOn])
}
