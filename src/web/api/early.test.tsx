import { afterEach, describe, expect, it, vi } from 'vitest'
import { done } from '@contract/common.ts'
import { getJson, postJson } from './client.ts'

const answer = (body: object) => new Response(JSON.stringify(body), { status: 200 })
afterEach(() => {
  delete window.idleEarly
  vi.unstubAllGlobals()
})

describe('what the page asked for before its script was there', () => {
  it('is taken once, and asked for again the next time', async () => {
    const asked = vi.fn(() => Promise.resolve(answer({ ok: true })))
    vi.stubGlobal('fetch', asked)
    window.idleEarly = { '/people/me': Promise.resolve(answer({ ok: true })) }
    expect(await getJson('/people/me', done)).toEqual({ ok: true })
    expect(asked).not.toHaveBeenCalled()
    await getJson('/people/me', done)
    expect(asked).toHaveBeenCalledOnce()
  })
  it('and did not come is asked for once more', async () => {
    vi.stubGlobal('fetch', () => Promise.resolve(answer({ ok: true })))
    const failed = Promise.reject(new TypeError('no link'))
    failed.catch(() => null)
    window.idleEarly = { '/floor?': failed }
    expect(await getJson('/floor?', done)).toEqual({ ok: true })
  })
  it('and was refused is asked for again: somebody signed in meanwhile', async () => {
    vi.stubGlobal('fetch', () => Promise.resolve(answer({ ok: true })))
    window.idleEarly = { '/floor?': Promise.resolve(new Response('{}', { status: 401 })) }
    expect(await getJson('/floor?', done)).toEqual({ ok: true })
  })
  it('is no answer to a write', async () => {
    const asked = vi.fn(() => Promise.resolve(answer({ ok: true })))
    vi.stubGlobal('fetch', asked)
    window.idleEarly = { '/people/me': Promise.resolve(answer({ ok: true })) }
    await postJson('/people/me', {}, done)
    expect(asked).toHaveBeenCalledOnce()
  })
})
