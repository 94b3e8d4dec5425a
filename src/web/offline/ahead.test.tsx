import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { done } from '@contract/common.ts'
import { HELD_MS, readAhead, strikeAhead, writeAhead } from './ahead.ts'
import { sendOrKeep } from './keep.ts'
import { type Entry } from './queue.ts'
import { deviceStore, type Kept } from './store.ts'

const entry = (key: string): Entry => ({ key, kind: 'walk', path: '/walk/found', body: {}, atMs: 5, says: key })
const keys = (entries: readonly { key: string }[]) => entries.map((e) => e.key).sort()
beforeEach(() => localStorage.clear())
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

/** The browser's own database, as slow as it is told to be. */
function slowly() {
  const kept = new Map<string, Kept>()
  const writes: (() => void)[] = []
  const store = deviceStore({
    all: () => Promise.resolve([...kept.values()]),
    put: (k) => new Promise<void>((stored) => writes.push(() => (kept.set(k.entry.key, k), stored()))),
    remove: (key) => Promise.resolve(void kept.delete(key)),
  })
  return { store, kept, write: () => writes.splice(0).forEach((go) => go()) }
}

describe('what is noted as the page is left', () => {
  it('is there for the next page, though the database had not written it', async () => {
    void slowly().store.put({ entry: entry('sixth'), message: null })
    const next = slowly()
    expect(keys((await next.store.all()).map((k) => k.entry))).toEqual(['sixth'])
    await next.store.remove('sixth')
    expect(await next.store.all()).toEqual([])
  })
  it('stands once when both have it, and only in the database once that wrote it', async () => {
    const { store, kept, write } = slowly()
    const putting = store.put({ entry: entry('one'), message: null })
    expect([kept.size, keys(readAhead(0))]).toEqual([0, ['one']])
    write()
    await putting
    expect([kept.size, readAhead(0)]).toEqual([1, []])
    writeAhead(entry('one'))
    expect(await store.all()).toHaveLength(1)
  })
  it('a refusal is the database’s alone', () => {
    void slowly().store.put({ entry: entry('no'), message: 'Not this gun.' })
    expect(readAhead(0)).toEqual([])
  })
})

describe('an entry its own page is sending', () => {
  const HOUR_MS = 3_600_000
  it('is nobody else’s until that page would have kept it; a clock put back holds it no longer', () => {
    writeAhead(entry('sent'), 1000 + HELD_MS)
    expect(readAhead(1001)).toEqual([])
    expect(keys(readAhead(1000 + HELD_MS))).toEqual(['sent'])
    expect(keys(readAhead(1000 - HOUR_MS))).toEqual(['sent'])
    strikeAhead('sent')
    expect(readAhead(1000 + HELD_MS)).toEqual([])
  })
  const send = () => sendOrKeep('/logbook', { body: { key: 'tip' }, says: 'Tip changed' }, done)
  const later = () => readAhead(Date.now() + HELD_MS)
  it('outlives the page while no answer came', () => {
    vi.stubGlobal('fetch', () => new Promise(() => undefined))
    void send()
    expect(later()).toMatchObject([{ key: 'tip', kind: 'post', path: '/logbook', says: 'Tip changed' }])
  })
  it.each([
    [200, { ok: true }],
    [403, { code: 'not-yours', message: 'x', details: [] }],
  ])('is struck out when it was answered (%i)', async (status, body) => {
    vi.stubGlobal('fetch', () => Promise.resolve(new Response(JSON.stringify(body), { status })))
    await send().catch(() => null)
    expect(later()).toEqual([])
  })
})
