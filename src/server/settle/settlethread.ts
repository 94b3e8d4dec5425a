import { parentPort, Worker, workerData } from 'node:worker_threads'
import { openDatabase } from '@server/db/db.ts'
import { ShopStore } from '@server/shopmodel/store.ts'
import { clockMovedBy } from '@server/time/clock.ts'
import { faultText } from '@server/problem/fault.ts'
import { settler } from './settler.ts'

/**
 * Counting clocks takes tens of milliseconds at a stretch for a gun with years behind it. In a thread of its own nobody who
 * asks for Floor waits for it.
 */
interface Given {
  databaseUrl: string
  clockShiftMs: number
}

/** The thread's side. */
function count({ databaseUrl, clockShiftMs }: Given): void {
  const port = parentPort
  if (!port) return
  const database = openDatabase(databaseUrl)
  const deps = { db: database.db, shops: new ShopStore(), now: clockMovedBy(clockShiftMs) }
  const settling = settler(deps, (problem) => port.postMessage({ problem: faultText(problem) }))
  settling.start()
  port.once('message', () => {
    void settling
      .stop()
      .then(() => database.close())
      .then(() => port.close())
  })
}
const isGiven = (data: unknown): data is Given =>
  typeof data === 'object' &&
  data !== null &&
  'databaseUrl' in data &&
  typeof data.databaseUrl === 'string' &&
  'clockShiftMs' in data &&
  typeof data.clockShiftMs === 'number'
if (parentPort && isGiven(workerData)) count(workerData)

/** The server's side: starts the thread from the bundle beside this one; a thread that fell over is started again. */
export function startSettling(given: Given, onProblem: (problem: unknown) => void): { stop: () => Promise<void> } {
  let isStopping = false
  let worker = open()
  function open(): Worker {
    const made = new Worker(new URL('./settlethread.js', import.meta.url), { workerData: given })
    made.on('message', (said: { problem?: string }) =>
      onProblem(new Error(said.problem ?? 'the counting thread is unwell')),
    )
    made.on('error', onProblem)
    made.on('exit', () => {
      if (!isStopping) setTimeout(() => (worker = open()), AGAIN_MS).unref()
    })
    return made
  }
  return {
    stop: () =>
      new Promise((done) => {
        isStopping = true
        worker.once('exit', () => done())
        worker.postMessage('stop')
      }),
  }
}
const AGAIN_MS = 5000
