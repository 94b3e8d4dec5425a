// npm run chaos -- [--rounds 200] [--clients 6] [--load ms] [--from which]: a shop of its own under load, with one fault at a random moment each round; then what people were told is
// compared with what is stored, and what is stored with what the ledger comes to. Ends with 1 where anything was lost, doubled or adrift.
import { spawn, spawnSync } from 'node:child_process'
import {
  chmodSync,
  copyFileSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readFileSync,
  rmSync,
  statfsSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Booth, compare, driftOf, openShop, something, Told } from './lib/told.mjs'
import { answers, findRunning, freePort, readJson, ROOT, wait, numberOption, stopProcess } from './lib/machine.mjs'

const ROUNDS = numberOption('rounds', 200)
const CLIENTS = numberOption('clients', 6)
const LOAD_MS = numberOption('load', 3000)
/** Which fault comes first: a short run takes others each time. */
const FROM = numberOption('from', Math.floor(Math.random() * 10))
const UP_WITHIN_MS = 120_000

const home = mkdtempSync(join(tmpdir(), 'idle-chaos-'))
chmodSync(home, 0o755)
const data = join(home, 'data')
mkdirSync(data)
const log = openSync(join(home, 'said.log'), 'a')
const port = await freePort(8600)
let start = null
let shiftMs = 0

/** A disk of its own for the shop, small enough to be filled; where none can be made the round is left out. */
const hasDisk = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=420m,mode=755', 'none', data]).status === 0

function begin() {
  start = spawn(process.execPath, [join(ROOT, 'scripts/start.mjs'), '--no-demo'], {
    cwd: ROOT,
    stdio: ['ignore', log, log],
    env: { ...process.env, IDLE_DATA: data, PORT: String(port), CLOCK_SHIFT_MS: String(shiftMs) },
  })
}
const pids = () => ({
  server: readJson(join(data, 'run.json'))?.serverPid ?? null,
  database: findRunning(`--datadir=${join(data, 'db', 'data')}`),
  start: start?.pid ?? null,
})
function kill(pid, signal = 'SIGKILL') {
  try {
    if (pid) process.kill(pid, signal)
  } catch {
    // Gone already.
  }
}
const gone = (child) =>
  child.exitCode !== null || child.signalCode ? undefined : new Promise((done) => child.once('exit', done))
async function restart() {
  await gone(start)
  begin()
}
async function killAll() {
  const all = pids()
  kill(all.start)
  kill(all.server)
  kill(all.database)
  await restart()
}

/** Nothing of this shop runs any more, and its disk is off: who is still closing holds it, and the database of a start that was killed has nobody to close it. */
async function cleared() {
  for (const argument of [`--server-of=${data}`, `--standin-of=${data}`, `--datadir=${join(data, 'db', 'data')}`])
    await stopProcess(findRunning(argument), argument)
  for (let tries = 0; hasDisk && tries < 20; tries++) {
    if (spawnSync('umount', [data]).status === 0) return
    await wait(250)
  }
}

const address = () => readJson(join(data, 'run.json'))?.address ?? `http://127.0.0.1:${port}`
async function untilReady() {
  const fromMs = Date.now()
  while (!(await answers(`${address()}/api/ready`))) {
    if (Date.now() - fromMs > UP_WITHIN_MS) throw new Error('It did not come up again within two minutes.')
    await wait(100)
  }
  return Date.now() - fromMs
}

async function clock(hours) {
  shiftMs += hours * 3_600_000
  kill(start.pid, 'SIGINT')
  await restart()
}

const HUNG_MS = 4500
const FAULTS = {
  'server killed': () => kill(pids().server),
  'database killed': () => kill(pids().database),
  'start script killed': async () => {
    kill(start.pid)
    await restart()
  },
  'all killed': killAll,
  'all killed, and again while starting': async () => {
    await killAll()
    await wait(900)
    await killAll()
  },
  'database hangs': async () => {
    const { database } = pids()
    kill(database, 'SIGSTOP')
    await wait(HUNG_MS)
    kill(database, 'SIGCONT')
  },
  'clock an hour back': () => clock(-1),
  'clock an hour on': () => clock(1),
  'six hundred at once': (booth) =>
    Promise.all(Array.from({ length: 600 }, () => booth.ask('GET', '/floor').catch(() => undefined))),
  ...(hasDisk
    ? {
        'disk full': async () => {
          const { bavail, bsize } = statfsSync(data)
          const path = join(data, 'filler')
          try {
            writeFileSync(path, Buffer.alloc(Math.max(0, bavail * bsize - 65_536)))
          } catch {
            // Full.
          }
          await wait(1500)
          rmSync(path, { force: true })
        },
      }
    : {}),
}

async function round(name, { booths, stations, told }) {
  let isOver = false
  const load = booths.map(async (booth) => {
    while (!isOver) await told.send(booth, something(stations), () => false)
  })
  await wait(Math.random() * LOAD_MS)
  await FAULTS[name](booths[0])
  const awayMs = await untilReady()
  await wait(LOAD_MS / 3)
  isOver = true
  await Promise.all(load)
  return awayMs
}

async function main() {
  const { buildIfStale } = await import('./build.mjs')
  const { startDatabase } = await import('./lib/mariadb.mjs')
  await buildIfStale()
  begin()
  await untilReady()
  const lead = new Booth(address)
  const stations = await openShop(lead, 'A1–A60')
  const booths = Array.from({ length: CLIENTS }, () => Object.assign(new Booth(address), { cookies: lead.cookies }))
  const told = new Told()
  const names = Object.keys(FAULTS)
  const table = new Map(names.map((n) => [n, { rounds: 0, longestMs: 0, wrong: 0 }]))
  const known = new Set()
  let wrong = 0
  for (let i = 0; i < ROUNDS; i++) {
    const name = names[(FROM + i) % names.length]
    const row = table.get(name)
    const [before, keptBefore] = [told.tries, told.count('kept')]
    const awayMs = await round(name, { booths, stations, told })
    const database = await startDatabase({ folder: join(data, 'db') })
    const off = await compare(database.url, told)
    const adrift = driftOf(database.url)
    await database.stop()
    // What was wrong after an earlier round is that round's.
    const fresh = [...off.lost, ...off.twice, ...off.unasked].filter((note) => !known.has(note))
    for (const note of fresh) known.add(note)
    const bad = fresh.length + (adrift === 0 ? 0 : 1)
    wrong += bad
    row.rounds++
    row.wrong += bad
    row.longestMs = Math.max(row.longestMs, awayMs)
    console.log(
      `${String(i + 1).padStart(3)}  ${name.padEnd(37)} away ${String((awayMs / 1000).toFixed(1)).padStart(5)} s  kept ${String(told.count('kept') - keptBefore).padStart(4)} in ${String(told.tries - before).padStart(5)} tries  lost ${off.lost.length}  twice ${off.twice.length}  unasked ${off.unasked.length}  adrift ${adrift}`,
    )
  }
  console.log(`\n${'fault'.padEnd(38)}rounds  longest away  wrong`)
  for (const [name, r] of table)
    if (r.rounds > 0)
      console.log(
        `${name.padEnd(38)}${String(r.rounds).padStart(6)}${`${(r.longestMs / 1000).toFixed(1)} s`.padStart(14)}${String(r.wrong).padStart(7)}`,
      )
  console.log(
    `${ROUNDS} rounds: ${told.count('kept')} told kept in ${told.tries} tries, ${told.count('refused')} refused; ${wrong} lost, doubled or adrift.`,
  )
  for (const [what, n] of [...told.faults].sort((a, b) => b[1] - a[1]).slice(0, 8)) console.log(`  ${n} × ${what}`)
  const said = readFileSync(join(home, 'said.log'), 'utf8')
    .split('\n')
    .filter((line) => line.includes('"fault"'))
  const faults = new Set(said.map((line) => /"message":"([^"]{0,120})/.exec(line)?.[1] ?? line.slice(0, 200)))
  for (const fault of [...faults].slice(0, 10)) console.log(`  fault: ${fault}`)
  process.exitCode = wrong > 0 ? 1 : 0
}

try {
  await main()
} finally {
  if (start) {
    kill(start.pid, 'SIGINT')
    await gone(start)
  }
  await cleared()
  if (process.env.KEEP_SAID) copyFileSync(join(home, 'said.log'), process.env.KEEP_SAID)
  rmSync(home, { recursive: true, force: true, maxRetries: 5, retryDelay: 200 })
}
