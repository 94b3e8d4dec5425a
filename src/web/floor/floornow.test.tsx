import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { floorGun, floorOf } from '@web/testing/samples.ts'
import { floorNow } from './queries.ts'

const asked: string[] = []
const worker = { controller: null as object | null }
beforeEach(() => {
  asked.length = 0
  worker.controller = {}
  vi.useFakeTimers({ toFake: ['Date'] })
  vi.stubGlobal('navigator', { serviceWorker: worker })
  vi.stubGlobal('fetch', (path: string) => {
    asked.push(path.replace(/[?].*/, ''))
    const floor = floorOf([floorGun('A1')], { stamp: 'x-1' })
    const answer = path.includes('/moved/') ? { ...floor, guns: [], isWhole: false } : floor
    return Promise.resolve(new Response(JSON.stringify(answer), { status: 200 }))
  })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

let n = 0
/** A floor of its own for each: what was told of one is nothing to another. */
const opened = async () => {
  const area = `area_${n++}`
  const first = await floorNow(area, null, undefined)
  return { first, again: () => floorNow(area, null, first) }
}

describe('a floor that is asked for again', () => {
  it('is asked for what moved, and keeps the others', async () => {
    const { first, again } = await opened()
    expect((await again()).guns).toEqual(first.guns)
    expect(asked).toEqual(['/api/floor', '/api/moved/floor'])
  })
  it('is asked for whole every two minutes, so that what a device holds is not old', async () => {
    const { again } = await opened()
    vi.setSystemTime(Date.now() + 120_000)
    await again()
    expect(asked).toEqual(['/api/floor', '/api/floor'])
  })
  it('is asked for whole once the worker is there that holds it: what was told before went past it', async () => {
    worker.controller = null
    const { again } = await opened()
    worker.controller = {}
    await again()
    await again()
    expect(asked).toEqual(['/api/floor', '/api/floor', '/api/moved/floor'])
  })
})
