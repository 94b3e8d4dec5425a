import { feeder, stationNow } from '@server/db/schema.ts'
import { insertMany } from '@server/db/db.ts'
import { type Deps } from '@server/http/context.ts'
import { digest } from '@server/people/people.ts'

/** Every head of the world gets a feeder that sends a row a second, a minute's worth at a time, from several connections at once. */
const BATCH_ROWS = 60
const CONNECTIONS = 8

interface Sent {
  rowsPerS: number
  floor: number[]
  grownMb: number
}

export async function sendAll(
  deps: Deps,
  at: { base: string; seconds: number; askFloor: () => Promise<unknown> },
): Promise<Sent> {
  const heads = (await deps.db.select().from(stationNow)).flatMap((n) => n.headId ?? [])
  const run = `${process.pid}-${Date.now()}`
  const tokens = heads.map((_, i) => `bench-${run}-${i}`)
  await insertMany(deps.db, feeder, {
    rows: heads.map((headId, i) => ({ equipmentId: `B${run}-${i}`, headId, tokenHash: digest(tokens[i] ?? '') })),
  })
  const next = heads.map(() => 0)
  const startMs = performance.now()
  const isOver = () => performance.now() - startMs > at.seconds * 1000
  const memoryMb = () => process.memoryUsage().rss / 1e6
  let rows = 0
  let turn = 0
  let warmMb = 0
  const sender = async () => {
    while (!isOver()) {
      const i = turn++ % heads.length
      if (turn === heads.length) warmMb = memoryMb()
      const seq = next[i] ?? 0
      next[i] = seq + BATCH_ROWS
      const sentMs = Date.now()
      const list = Array.from({ length: BATCH_ROWS }, (_, k) => ({
        equipmentId: `B${run}-${i}`,
        bootId: 'boot',
        seq: seq + k,
        deviceMs: sentMs - (BATCH_ROWS - k) * 1000,
        wireFedM: (seq + k) * 0.05,
        arcOnS: (seq + k) * 0.4,
        arcStarts: Math.floor((seq + k) / 20),
      }))
      const response = await fetch(`${at.base}/ingest`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', authorization: `Bearer ${tokens[i] ?? ''}` },
        body: JSON.stringify({ sentMs, rows: list }),
      })
      if (!response.ok) throw new Error(`ingest: ${await response.text()}`)
      await response.json()
      rows += BATCH_ROWS
    }
  }
  const floor: number[] = []
  const asker = async () => {
    while (!isOver()) {
      const askedMs = performance.now()
      await at.askFloor()
      floor.push(performance.now() - askedMs)
      await new Promise((done) => setTimeout(done, 200))
    }
  }
  await Promise.all([...Array.from({ length: CONNECTIONS }, sender), asker()])
  return {
    rowsPerS: rows / ((performance.now() - startMs) / 1000),
    floor,
    grownMb: memoryMb() - (warmMb || memoryMb()),
  }
}
