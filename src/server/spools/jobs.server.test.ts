import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type Problem } from '@contract/common.ts'
import { type JobGiven, type JobsAnswer } from '@contract/jobs.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import {
  type Client,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

/** Wire for jobs: what each takes, which spool finishes it, what own jobs taught. */
const NOW = Date.UTC(2026, 10, 20, 12)
let server: TestServer
let lead: Client
let wireId = ''
let otherId = ''
const jobs = async () => (await lead.get<JobsAnswer>('/spools/jobs')).body
const hinge = (over: Partial<JobGiven> = {}): JobGiven => ({
  ...{ name: 'hinges', wireId, lengthM: 0.8, pieces: 20, starts: 2, mode: 'spray' },
  joint: { kind: 'fillet', legMm: 6 },
  ...over,
})
const add = (list: JobGiven[], key = nextKey()) => lead.post<Problem>('/spools/jobs', { key, jobs: list })

beforeAll(async () => {
  server = await startTestServer({ nowMs: NOW })
  lead = await openShop(server)
  await makePlaces(lead, 'A1–A2')
  const wire = (name: string, mm: string, construction: string) =>
    lead.post('/shop/wire', { key: nextKey(), name, construction, size: mm, densityGPerCm3: 7.85, spoolKg: 15 })
  await wire('solid 1.2', '1.2', 'solid')
  await wire('cored 1.2', '1.2', 'metal-cored')
  const { wires } = (await lead.get<ShopAnswer>('/shop')).body
  wireId = wires.find((w) => w.name === 'solid 1.2')?.id ?? ''
  otherId = wires.find((w) => w.name === 'cored 1.2')?.id ?? ''
  const spool = (what: object) => lead.post('/spools', { key: nextKey(), what })
  await spool({ act: 'in', wireId, count: 2 })
  await spool({ act: 'in', wireId, labelKg: 3 })
  await spool({ act: 'in', wireId: otherId })
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
})

describe('wire for jobs', () => {
  it('says what a job takes and how sure that is, once however often it is sent', async () => {
    const key = nextKey()
    for (let i = 0; i < 2; i++) expect((await add([hinge()], key)).status).toBe(200)
    const { jobs: list, spools } = await jobs()
    expect(list).toHaveLength(1)
    expect(list[0]?.kg).toBeCloseTo((0.0198 * 0.8 * 20 * 7.85) / 0.98, 1)
    expect(list[0]?.sdKg).toBeGreaterThan(0.2)
    expect(spools.map((s) => [s.name, s.kg, s.isFull])).toEqual([
      ['spool 1', 15, true],
      ['spool 2', 15, true],
      ['spool 3', 3, true],
      ['spool 4', 15, true],
    ])
  })
  it('a job of no length, of no pieces, of no such wire: nothing of the whole list is kept', async () => {
    for (const wrong of [{ lengthM: 0 }, { pieces: 0 }, { wireId: 'wire_nowhere00' }, { name: ' ' }]) {
      const { status } = await add([hinge({ name: 'good' }), hinge(wrong)])
      expect([wrong, status >= 400 && status < 500]).toEqual([wrong, true])
    }
    expect((await jobs()).jobs).toHaveLength(1)
  })
  it('is laid on a spool of its own wire, and on no other', async () => {
    const { jobs: list, spools } = await jobs()
    const jobId = list[0]?.jobId
    const lay = (onId: string | null | undefined) =>
      lead.post<Problem>('/spools/jobs/lay', { key: nextKey(), laid: [{ jobId, onId }] })
    expect((await lay(spools[3]?.id)).body.message).toBe('hinges: there is another wire on spool 4.')
    expect((await lay('spool_nowhere')).body.code).toBe('not-found')
    expect((await lay(spools[2]?.id)).status).toBe(200)
    expect((await jobs()).jobs[0]?.onId).toBe(spools[2]?.id)
    expect((await lay(null)).status).toBe(200)
    expect((await jobs()).jobs[0]?.onId).toBeNull()
  })
  it('welded and weighed, from three on the next is reckoned by them', async () => {
    await add([hinge({ name: 'second' }), hinge({ name: 'third' }), hinge({ name: 'next' })])
    const before = await jobs()
    const kg = before.jobs[0]?.kg ?? 0
    const done = (jobId: string | undefined, usedKg: number | null) =>
      lead.post<Problem>('/spools/jobs/done', { key: nextKey(), jobId, usedKg })
    const slip = await done(before.jobs[0]?.jobId, 4000)
    expect([slip.status, slip.body.message]).toEqual([400, expect.stringContaining('reckoned at')])
    for (const job of before.jobs.slice(0, 3)) expect((await done(job.jobId, kg * 1.2)).status).toBe(200)
    const after = await jobs()
    expect(after.jobs.map((j) => j.name)).toEqual(['next'])
    expect(after.learnt).toMatchObject({ n: 3 })
    expect(after.learnt?.ratio).toBeCloseTo(1.2, 6)
    expect(after.jobs[0]?.kg).toBeCloseTo(1.2 * kg, 6)
    expect((await done(before.jobs[0]?.jobId, null)).body.code).toBe('not-found')
  })
})
