import { afterAll, beforeAll, beforeEach, expect } from 'vitest'
import { driftOf, openShop, startTestServer, type Client, type TestServer } from './testserver.ts'

/**
 * One server and its shop for all tests of a file, a minute (or `stepMs`) between two of them; at its end nothing tripped, and its state is what its
 * ledger says.
 */
export function serverForAll(
  of: { nowMs: number; stepMs?: number },
  open: (here: { server: TestServer; lead: Client }) => Promise<void> | void,
): void {
  let server: TestServer
  beforeAll(async () => {
    server = await startTestServer({ nowMs: of.nowMs })
    await open({ server, lead: await openShop(server) })
  })
  beforeEach(() => {
    server.clock.nowMs += of.stepMs ?? 60_000
  })
  afterAll(async () => {
    expect(server.faults).toEqual([])
    expect(await driftOf(server)).toBe(0)
    await server.close()
  })
}
