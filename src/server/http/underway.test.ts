import { EventEmitter } from 'node:events'
import { describe, expect, it, vi } from 'vitest'
import { type Request, type Response } from 'express'
import { Underway } from './underway.ts'

const request = (path: string) => ({ path }) as Request
const response = () => new EventEmitter() as unknown as Response & EventEmitter

describe('a server that stops', () => {
  it('lets what is under way end, and takes nothing new', async () => {
    const underway = new Underway()
    const [one, next] = [response(), vi.fn()]
    underway.count(request('/api/walk/found'), one, next)
    expect(next).toHaveBeenCalledOnce()
    let isStopped = false
    const stopped = underway.stop(5000).then(() => (isStopped = true))
    await Promise.resolve()
    expect(isStopped).toBe(false)
    expect(() => underway.count(request('/api/floor'), response(), next)).toThrow('being stopped')
    one.emit('close')
    await stopped
    expect(isStopped).toBe(true)
  })
  it('waits for no line that never ends, and no longer than it was told', async () => {
    const underway = new Underway()
    underway.count(request('/api/changes'), response(), vi.fn())
    await underway.stop(5000)
    const slow = new Underway()
    slow.count(request('/api/floor'), response(), vi.fn())
    await slow.stop(5)
  })
})
