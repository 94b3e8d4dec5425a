// npm run bench:load -- [--minutes 10] [--people 300] [--feeders 500] [--leads 5]: a shop under the load of a big one, on a durable database of its own:
// people open guns and log at booths, feeders send a row a second each (ten at once, every ten seconds), leads keep Floor open with live changes.
import { spawn } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { mkdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { Booth, openShop } from './lib/told.mjs'
import {
  DATA,
  ensureModules,
  ensurePackages,
  freePort,
  lean,
  ROOT,
  say,
  SetupError,
  wait,
  numberOption,
} from './lib/machine.mjs'

const MINUTES = numberOption('minutes', 10)
const PEOPLE = numberOption('people', 300)
const FEEDERS = numberOption('feeders', 500)
const LEADS = numberOption('leads', 5)
/** A person looks at a gun about every half minute, and logs every fourth time. */
const THINK_MS = 30_000
const SEND_EVERY_MS = 10_000
/** Floor is read again at most so often while changes come. */
const FLOOR_EVERY_MS = 1000

const times = new Map()
const errors = new Map()
const live = []
/** Places that somebody logs at now, and when it was sent. */
const pending = new Map()
let isOver = false

const at = (list, share) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * share))] ?? NaN
async function timed(what, work) {
  const fromMs = performance.now()
  try {
    const { status, body } = await work()
    if (status !== 200) throw new Error(`${status} ${body?.message ?? ''}`)
    if (!times.has(what)) times.set(what, [])
    times.get(what).push(performance.now() - fromMs)
    return body
  } catch (problem) {
    const said = `${what}: ${problem.message}`
    if (!isOver) errors.set(said, (errors.get(said) ?? 0) + 1)
    return null
  }
}

async function person(booth, stationId) {
  await wait(Math.random() * THINK_MS)
  while (!isOver) {
    await timed('open a gun', () => booth.ask('GET', `/gun/${stationId}`))
    if (Math.random() < 0.25) {
      pending.set(stationId, performance.now())
      const act = { stationId, act: 'changed', position: 'tip', outReason: 'worn' }
      await timed('log a tip', () => booth.ask('POST', '/logbook', { key: randomUUID(), acts: [act] }))
    }
    await wait(THINK_MS * (0.5 + Math.random()))
  }
}

async function feeder(booth, { equipmentId, token }) {
  const bootId = randomUUID().slice(0, 12)
  let [seq, wireFedM, arcOnS, arcStarts] = [0, 0, 0, 0]
  await wait(Math.random() * SEND_EVERY_MS)
  while (!isOver) {
    const nowMs = Date.now()
    const isWelding = Math.random() < 0.4
    const rows = Array.from({ length: SEND_EVERY_MS / 1000 }, (_, i) => {
      if (isWelding) [wireFedM, arcOnS] = [wireFedM + 0.15, arcOnS + 1]
      if (isWelding && i === 0) arcStarts++
      return {
        equipmentId,
        bootId,
        seq: ++seq,
        deviceMs: nowMs - 1000 * (9 - i),
        wireFedM,
        arcOnS,
        arcStarts,
        isArcOn: isWelding,
      }
    })
    const headers = { authorization: `Bearer ${token}` }
    await timed('ten rows of a feeder', () => booth.ask('POST', '/ingest', { sentMs: Date.now(), rows }, { headers }))
    await wait(SEND_EVERY_MS - (Date.now() - nowMs))
  }
}

/** Floor open at a desk: told what changed, it reads Floor again. */
async function lead(booth, address) {
  const headers = { cookie: [...booth.cookies].map(([k, v]) => `${k}=${v}`).join('; ') }
  const giveUp = new AbortController()
  const stream = await fetch(`${address()}/api/changes`, { headers, signal: giveUp.signal })
  let isDirty = true
  const listen = (async () => {
    for await (const piece of stream.body) {
      const nowMs = performance.now()
      for (const [, ids] of Buffer.from(piece)
        .toString()
        .matchAll(/"stationIds":\[([^\]]*)\]/g)) {
        isDirty = true
        for (const id of ids.replaceAll('"', '').split(',')) {
          const sentMs = pending.get(id)
          if (sentMs === undefined) continue
          live.push(nowMs - sentMs)
          pending.delete(id)
        }
      }
    }
  })().catch(() => undefined)
  while (!isOver) {
    await wait(FLOOR_EVERY_MS)
    if (!isDirty) continue
    isDirty = false
    await timed('read Floor', () => booth.ask('GET', '/floor'))
  }
  giveUp.abort()
  await listen
}

async function memoryMb(address) {
  const text = await (await fetch(`${address()}/api/metrics`)).text()
  return Number(/^process_resident_memory_bytes (\S+)/m.exec(text)?.[1]) / 1e6
}

async function main() {
  ensurePackages(['database'])
  ensureModules()
  const { buildIfStale } = await import('./build.mjs')
  const { startDatabase } = await import('./lib/mariadb.mjs')
  await buildIfStale()
  const folder = join(DATA, `bench-load-${process.pid}`)
  mkdirSync(folder, { recursive: true })
  const database = await startDatabase({ folder: join(folder, 'db') })
  const port = await freePort(8800)
  const address = () => `http://127.0.0.1:${port}`
  const server = spawn(process.execPath, [...lean(), join(ROOT, 'dist/server/main.js')], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, NODE_ENV: 'production', DATABASE_URL: database.url, PORT: String(port) },
  })
  try {
    await load(address)
  } finally {
    server.kill('SIGINT')
    await new Promise((done) => server.once('exit', done))
    await database.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

async function load(address) {
  const booth = new Booth(address)
  const stations = []
  const many = Math.max(PEOPLE, FEEDERS)
  for (let from = 1; from <= many; from += 100) {
    const names = `A${from}–A${Math.min(many, from + 99)}`
    if (from === 1) stations.push(...(await openShop(booth, names)))
    else
      stations.push(
        ...(await booth.until('POST', '/shop/places', { key: randomUUID(), names, areaName: `Bay ${from}` })).made.map(
          (m) => m.stationId,
        ),
      )
  }
  const feeders = []
  for (const stationId of stations.slice(0, FEEDERS))
    feeders.push(
      await booth.until('POST', '/shop/feeder', { key: randomUUID(), stationId, equipmentId: `F-${feeders.length}` }),
    )
  say(`${PEOPLE} people, ${FEEDERS} feeders, ${LEADS} leads for ${MINUTES} min …`)
  const memory = []
  const all = [
    ...stations.slice(0, PEOPLE).map((id) => person(booth, id)),
    ...feeders.map((f) => feeder(booth, f)),
    ...Array.from({ length: LEADS }, () => lead(booth, address)),
  ]
  for (const endMs = Date.now() + MINUTES * 60_000; Date.now() < endMs; await wait(5000))
    memory.push(await memoryMb(address))
  isOver = true
  await Promise.all(all)
  report(memory)
}

function report(memory) {
  say(
    `\n${'what'.padEnd(24)}${'times'.padStart(8)}${'median'.padStart(10)}${'p95'.padStart(10)}${'longest'.padStart(10)}`,
  )
  const line = (what, list) =>
    say(
      `${what.padEnd(24)}${String(list.length).padStart(8)}${[0.5, 0.95, 1].map((s) => `${Math.round(at(list, s))} ms`.padStart(10)).join('')}`,
    )
  for (const [what, list] of times) line(what, list)
  line('told on Floor', live)
  const early = memory.slice(Math.floor(memory.length / 4), Math.ceil(memory.length / 2))
  const late = memory.slice(-early.length)
  const mean = (list) => Math.round(list.reduce((a, b) => a + b, 0) / list.length)
  say(`Memory of the server: ${mean(early)} MB in the second quarter, ${mean(late)} MB in the last.`)
  const failed = [...errors.values()].reduce((a, b) => a + b, 0)
  say(`Errors: ${failed}.`)
  for (const [what, n] of errors) say(`  ${n} × ${what}`)
  const p95 = at([...times.values()].flat(), 0.95)
  say(
    `p95 of all ${Math.round(p95)} ms (wanted under 200), told on Floor ${Math.round(at(live, 0.95))} ms (under 1,000), no error.`,
  )
}

try {
  await main()
  // The connections of hundreds of people would be waited for.
  process.exit(process.exitCode ?? 0)
} catch (problem) {
  console.error(problem instanceof SetupError ? problem.message : problem)
  process.exit(1)
}
