import { createStore, del, entries, set, type UseStore } from 'idb-keyval'

/** Things kept on this device beyond the page, each under a key of its own. */
export interface DeviceStore<T> {
  all: () => Promise<T[]>
  put: (thing: T) => Promise<void>
  remove: (key: string) => Promise<void>
}

/** In the browser's own database; where a browser has no such place, as long as the page is open. */
export function keptOnDevice<T>(of: { database: string; table: string; keyOf: (thing: T) => string }): DeviceStore<T> {
  const { keyOf } = of
  if (typeof indexedDB === 'undefined') {
    const kept = new Map<string, T>()
    return {
      all: () => Promise.resolve([...kept.values()]),
      put: (thing) => Promise.resolve(void kept.set(keyOf(thing), thing)),
      remove: (key) => Promise.resolve(void kept.delete(key)),
    }
  }
  let opened: UseStore | null = null
  const store = () => (opened ??= createStore(of.database, of.table))
  return {
    all: async () => (await entries<string, T>(store())).map(([, thing]) => thing),
    put: (thing) => set(keyOf(thing), thing, store()),
    remove: (key) => del(key, store()),
  }
}
