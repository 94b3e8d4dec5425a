import { setTimeout as setTimeoutAsync } from 'node:timers/promises'
import { parentPort, Worker, workerData } from 'node:worker_threads'
import { openDatabase } from '@server/db/db.ts'
import { faultText } from '@server/problem/fault.ts'
import { DomainError } from '@server/problem/problem.ts'
import { ShopStore } from '@server/shopmodel/store.ts'
import { clockMovedBy } from '@server/time/clock.ts'
import { keepFits } from './keep.ts'
import { StockReader } from '@server/stock/stockreader.ts'
import { LifeReader } from './reader.ts'
import { type LifeAsked, type LifeWork } from './work.ts'

/**
 * Lives are read and fitted in a thread of their own, so that nobody who asks for Floor waits for a fit.
 *
 *   main ── {id, ask} ──▶ thread        main ◀── {id, answer | problem} ── thread
 *                                       main ◀── {progress} ── thread, while the kept fits are made anew
 *
 * 1. Every question gets one answer or one problem.
 * 2. A thread that fell over is started again; what was under way is refused with the reason.
 */
interface Given {
  databaseUrl: string
  clockShiftMs: number
}
interface Asked {
  id: number
  ask: LifeAsked
}
type Said = { id: number; answer: unknown } | { id: number; problem: unknown } | { progress: string }

const EVERY_MS = 5 * 60_000
const FIRST_MS = 2000
const AFTER_ANOTHER_MS = 15_000

/** The thread's side. */
function serve({ databaseUrl, clockShiftMs }: Given): void {
  const port = parentPort
  if (!port) return
  const database = openDatabase(databaseUrl)
  const deps = { db: database.db, shops: new ShopStore(), now: clockMovedBy(clockShiftMs) }
  const [reader, stock] = [new LifeReader(deps), new StockReader(deps)]
  let [asking, isStopping] = [0, false]
  const keep = (): Promise<unknown> =>
    keepFits(deps, reader.fits, async (done, of) => {
      port.postMessage({ progress: done < of ? `${done} of ${of}` : '' })
      // Whoever asks goes first.
      while (asking > 0) await setTimeoutAsync(PAUSE_MS)
    })
      .then((made) => {
        // Somebody else is at it, or died at it: looked again when that must be over.
        if (made === null && !isStopping) setTimeout(() => void keep(), AFTER_ANOTHER_MS).unref()
      })
      // Whoever opens the page first does not wait either.
      .then(() => reader.read({}))
      .then(() => stock.read(undefined))
      .catch((problem: unknown) => {
        // A shop that is still to be named has nothing to fit; what a stop cuts off is no fault.
        if (!isStopping && !isUnnamed(problem)) port.postMessage({ id: 0, problem: faultText(problem) })
      })
  setTimeout(() => void keep(), FIRST_MS).unref()
  const timer = setInterval(() => void keep(), EVERY_MS)
  port.on('message', (asked: Asked | 'stop') => {
    if (asked === 'stop') {
      isStopping = true
      clearInterval(timer)
      void database.close().then(() => port.close())
      return
    }
    asking++
    answerTo({ reader, stock, keep }, asked.ask)
      .then((answer) => port.postMessage({ id: asked.id, answer }))
      .catch((problem: unknown) => port.postMessage({ id: asked.id, problem: problemOf(problem) }))
      .finally(() => asking--)
  })
}
const PAUSE_MS = 50
const isUnnamed = (problem: unknown) => problem instanceof DomainError && problem.code === 'not-found'
async function answerTo(
  by: { reader: LifeReader; stock: StockReader; keep: () => Promise<unknown> },
  ask: LifeAsked,
): Promise<unknown> {
  const { reader, stock, keep } = by
  switch (ask.what) {
    case 'read':
      return reader.read(ask.query)
    case 'basis':
      return reader.basisOf(ask.kindKey, ask.classKey)
    case 'told':
      return reader.told(ask.kindKey)
    case 'signs':
      return reader.signs(ask)
    case 'stock':
      return stock.read(ask.until)
    case 'forget':
      reader.forget()
      stock.forget()
      void keep()
      return null
  }
}
/** A refusal crosses as what it says, anything else as its text. */
const problemOf = (problem: unknown) =>
  problem instanceof Error && 'code' in problem && 'details' in problem
    ? { code: problem.code, message: problem.message, details: problem.details }
    : { code: null, message: faultText(problem), details: [] }
const isGiven = (data: unknown): data is Given =>
  typeof data === 'object' &&
  data !== null &&
  'databaseUrl' in data &&
  typeof data.databaseUrl === 'string' &&
  'clockShiftMs' in data &&
  typeof data.clockShiftMs === 'number'
if (parentPort && isGiven(workerData)) serve(workerData)

/** The server's side. */
export function startLives(
  given: Given,
  onProblem: (problem: unknown) => void,
): LifeWork & { stop: () => Promise<void> } {
  const waiting = new Map<number, { done: (answer: unknown) => void; fail: (problem: unknown) => void }>()
  let [last, isStopping, progress] = [0, false, '']
  let worker = open()
  function open(): Worker {
    const made = new Worker(new URL('./lifethread.js', import.meta.url), { workerData: given })
    made.on('message', (said: Said) => {
      if ('progress' in said) return void (progress = said.progress)
      const one = waiting.get(said.id)
      waiting.delete(said.id)
      if ('answer' in said) one?.done(said.answer)
      else if (one) one.fail(said.problem)
      else onProblem(new Error(String(said.problem)))
    })
    made.on('error', onProblem).on('exit', () => {
      waiting.forEach(({ fail }) => fail(FELL_OVER))
      waiting.clear()
      if (!isStopping) setTimeout(() => (worker = open()), AGAIN_MS).unref()
    })
    return made
  }
  return {
    ask: (ask) =>
      new Promise((done, fail) => {
        waiting.set(++last, { done, fail })
        worker.postMessage({ id: last, ask })
      }),
    progress: () => progress,
    stop: () => {
      isStopping = true
      return new Promise((done) => {
        worker.once('exit', () => done())
        worker.postMessage('stop')
      })
    },
  }
}
const AGAIN_MS = 5000
const FELL_OVER = { code: null, message: 'the thread for lives fell over', details: [] }
