import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { done } from '@contract/common.ts'
import * as device from './device.ts'
import * as last from './last.ts'
import { sendOrKeep } from './keep.ts'

const kept = vi.spyOn(device, 'note')
vi.spyOn(last, 'keepLast').mockReturnValue()

const answering = (status: number, body: unknown) =>
  vi.stubGlobal('fetch', () => Promise.resolve(new Response(JSON.stringify(body), { status })))
const problem = (code: string) => ({ code, message: 'x', details: [] })
const send = () => sendOrKeep('/logbook', { body: { key: 'a-key-of-one' }, says: 'Tip changed' }, done)
beforeEach(() => kept.mockReset().mockResolvedValue())
afterEach(() => vi.unstubAllGlobals())

describe('a write from a booth', () => {
  it.each([
    [503, 'busy'],
    [507, 'disk-full'],
  ])('answered "not now" (%i %s) is kept on the device under its key', async (status, code) => {
    answering(status, problem(code))
    expect(await send()).toBeNull()
    expect(kept).toHaveBeenCalledWith(expect.objectContaining({ key: 'a-key-of-one', path: '/logbook' }))
  })
  it('without a link is kept too', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('no link')))
    expect(await send()).toBeNull()
    expect(kept).toHaveBeenCalledOnce()
  })
  it('that is taken, or refused for what it says, is not', async () => {
    answering(200, { ok: true })
    expect(await send()).toEqual({ ok: true })
    answering(403, problem('not-yours'))
    await expect(send()).rejects.toMatchObject({ code: 'not-yours' })
    expect(kept).not.toHaveBeenCalled()
  })
})
