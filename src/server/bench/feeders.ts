import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { feeder, stationNow } from '@server/db/schema.ts'
import { insertMany } from '@server/db/db.ts'
import { type Deps } from '@server/call/context.ts'
import { digest } from '@server/people/people.ts'

/** Every head of the world gets a feeder that sends a row a second, a minute's worth at a time, from a process of its own. */
const BATCH_ROWS = 60
const CONNECTIONS = 6
/** A tenth over the target: sustained, not flooded. */
export const RATE = 5500

export interface SendJob {
  base: string
  run: string
  feeders: number
  seconds: number
  /** Rows a second. */
  rate: number
}
const equipmentOf = (run: string, i: number) => `B${run}-${i}`
const tokenOf = (run: string, i: number) => `bench-token-${run}-${i}`

/** The sender's side: as many batches as it gets answers for. Prints the rows taken a second. */
export async function sendAll({ base, run, feeders, seconds, rate }: SendJob): Promise<void> {
  const next = Array.from({ length: feeders }, () => 0)
  const startMs = performance.now()
  let rows = 0
  let turn = 0
  const sender = async () => {
    while (performance.now() - startMs < seconds * 1000) {
      const aheadS = rows / rate - (performance.now() - startMs) / 1000
      if (aheadS > 0) await new Promise((done) => setTimeout(done, aheadS * 1000))
      const i = turn++ % feeders
      const seq = next[i] ?? 0
      next[i] = seq + BATCH_ROWS
      const sentMs = Date.now()
      const list = Array.from({ length: BATCH_ROWS }, (_, k) => ({
        equipmentId: equipmentOf(run, i),
        bootId: 'boot',
        seq: seq + k,
        deviceMs: sentMs - (BATCH_ROWS - k) * 1000,
        wireFedM: (seq + k) * 0.05,
        arcOnS: (seq + k) * 0.4,
        arcStarts: Math.floor((seq + k) / 20),
      }))
      const response = await fetch(`${base}/ingest`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', authorization: `Bearer ${tokenOf(run, i)}` },
        body: JSON.stringify({ sentMs, rows: list }),
      })
      if (!response.ok) throw new Error(`ingest: ${await response.text()}`)
      rows += ((await response.json()) as { accepted: number }).accepted
    }
  }
  await Promise.all(Array.from({ length: CONNECTIONS }, sender))
  console.log(JSON.stringify({ rowsPerS: rows / ((performance.now() - startMs) / 1000) }))
}

/** The server's side: starts the sender and asks for Floor meanwhile. */
export async function whileSending(
  deps: Deps,
  at: { base: string; seconds: number; rate: number; askFloor: () => Promise<unknown> },
): Promise<{ rowsPerS: number; floor: number[]; grownMb: number }> {
  const heads = (await deps.db.select().from(stationNow)).flatMap((n) => n.headId ?? [])
  const run = `${process.pid}-${Date.now()}`
  await insertMany(deps.db, feeder, {
    rows: heads.map((headId, i) => ({
      equipmentId: equipmentOf(run, i),
      headId,
      tokenHash: digest(tokenOf(run, i)),
    })),
  })
  const job: SendJob = { base: at.base, run, feeders: heads.length, seconds: at.seconds, rate: at.rate }
  const child = spawn(process.execPath, [process.argv[1] ?? ''], {
    env: { ...process.env, BENCH_SEND: JSON.stringify(job) },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  let said = ''
  child.stdout.on('data', (chunk: Buffer) => (said += chunk.toString()))
  const isOver = once(child, 'exit').then(() => true)
  const floor: number[] = []
  const memory: number[] = []
  const pause = () => new Promise<boolean>((done) => setTimeout(() => done(false), 250))
  do {
    const askedMs = performance.now()
    await at.askFloor()
    floor.push(performance.now() - askedMs)
    memory.push(process.memoryUsage().rss / 1e6)
  } while (!(await Promise.race([isOver, pause()])))
  const { rowsPerS } = JSON.parse(said) as { rowsPerS: number }
  const half = Math.floor(memory.length / 2)
  return {
    rowsPerS,
    floor: floor.slice(2),
    grownMb: Math.max(...memory.slice(half)) - Math.max(...memory.slice(0, half)),
  }
}
