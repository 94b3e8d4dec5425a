// npm start: everything a bare machine needs, then the program, kept up until Ctrl-C stops all of it.
import { spawn } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { join } from 'node:path'
import { keepUp, PAUSES } from './lib/keep.mjs'
import { latestVersion, shopAt } from './lib/version.mjs'
import { lockFile } from './lib/lock.mjs'
import {
  answers,
  BACKUPS,
  DATA,
  ensureModules,
  ensurePackages,
  freePort,
  lean,
  readJson,
  ROOT,
  say,
  SetupError,
  stopProcess,
  wait,
  writeJson,
} from './lib/machine.mjs'

const RUN = join(DATA, 'run.json')
const SERVER = join(ROOT, 'dist/server/main.js')
const STANDIN = join(ROOT, 'dist/server/standin.js')
const STANDIN_FILE = join(DATA, 'standin.json')
/** An argument of their own by which the processes of this folder, and of no other, are known. */
const SERVER_OF = `--server-of=${DATA}`
const STANDIN_OF = `--standin-of=${DATA}`
const isEmpty = process.argv.includes('--no-demo')
const isLan = process.argv.includes('--lan')
/** From here on for this folder, also where it is left out. */
const isJournaled = process.argv.includes('--journal')

async function main() {
  // Held as long as this lives, by the kernel: however it ends, the next start finds the folder free.
  const lock = await lockFile(join(DATA, 'start.lock'))
  if (!lock) return sayWhatRuns()
  ensurePackages(['database'])
  ensureModules()
  const before = readJson(RUN)
  if (before?.serverPid) await stopProcess(before.serverPid, SERVER_OF)
  if (before?.standInPid) await stopProcess(before.standInPid, STANDIN_OF)
  const { buildIfStale } = await import('./build.mjs')
  const { startDatabase } = await import('./lib/mariadb.mjs')
  await buildIfStale()
  await run({ startDatabase: () => startDatabase({ folder: join(DATA, 'db'), isJournaled }) })
}

/** The folder is another start's: where it answers, or that it does not yet. */
async function sayWhatRuns() {
  const address = readJson(RUN)?.address
  if (address && (await answers(`${address}/api/ready`)))
    return say(`Idle Spool already runs here: ${address}  (Ctrl-C in the other window stops it)`)
  say(
    'Another start is at this folder and does not answer yet: it is still coming up, or its database is. Give it a minute; Ctrl-C in its window stops it.',
  )
  process.exitCode = 1
}

/** On the network the program speaks HTTPS; this machine's own equipment keeps a plain door on loopback. */
async function portsNow() {
  const wanted = Number(process.env.PORT ?? 8460)
  const port = await freePort(wanted)
  if (port !== wanted) say(`Port ${wanted} is taken by another program; using ${port}.`)
  const trustPort = isLan ? await freePort(port + 1) : null
  const localPort = isLan ? await freePort(trustPort + 1) : null
  return { port, trustPort, localPort }
}

async function run({ startDatabase }) {
  const secret = standInSecret()
  let database = await startDatabase()
  await backUpFirst(database)
  let isStopping = false
  const told = { pid: process.pid, address: null }
  const note = (more) => writeJson(RUN, Object.assign(told, more))
  const server = keepUp({
    start: async () => {
      const ports = await portsNow()
      const child = startServer({ database, ports, secret })
      const before = told.address
      note({ serverPid: child.pid, address: `http://127.0.0.1:${ports.localPort ?? ports.port}` })
      // The stand-in knows the shop by its address alone.
      if (before && before !== told.address) standIn.restart()
      return child
    },
    onAgain: ({ code, signal, pauseMs }) =>
      say(
        `The server ended by itself (${signal ?? `code ${code}`}); started again in ${Math.round(pauseMs / 1000)} s.`,
      ),
    onGiveUp: (code) => {
      say('The server ends again and again; what it said stands above.')
      void stop(code || 1)
    },
  })
  const standIn = keepUp({
    start: () => {
      const child = startStandIn(told.address, secret)
      note({ standInPid: child.pid })
      return child
    },
    onGiveUp: () => say('The demo’s feeders stay silent: their stand-in ends again and again.'),
  })
  const stop = async (code) => {
    if (isStopping) return
    isStopping = true
    await standIn.stop((pid) => stopProcess(pid, STANDIN_OF))
    await server.stop((pid) => stopProcess(pid, SERVER_OF))
    await database.stop()
    writeJson(RUN, {})
    process.exit(code)
  }
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0))
  await server.begin()
  if (!isEmpty) await standIn.begin()
  // A demo is built anew in a minute.
  if (isEmpty) void backUpDaily({ isStopping: () => isStopping })
  void watchServer({ server, told, isStopping: () => isStopping })
  void watchDatabase({
    database: () => database,
    isStopping: () => isStopping,
    start: async () => {
      // What this one still holds of the old one is given back first: the last who uses a database stops it.
      await database.stop()
      database = await startDatabase()
    },
  })
}

const HOUR_MS = 3_600_000
const DAY_MS = 24 * HOUR_MS
const backUp = () =>
  new Promise((done) => {
    // It works beside the shop, not before it.
    const child = spawn('nice', ['-n', '10', process.execPath, join(ROOT, 'scripts/backup.mjs')], {
      stdio: ['ignore', 'ignore', 'inherit'],
    })
    child.once('error', () => done(false))
    child.once('exit', (code) => done(code === 0))
  })

/** New tables are made by no version before the shop as it stands is safe. */
async function backUpFirst(database) {
  const shop = await shopAt(database.url)
  if (!shop || shop.version >= latestVersion() || process.argv.includes('--no-backup')) return
  say('A new version: the shop is backed up first …')
  if (await backUp()) return
  await database.stop()
  throw new SetupError(
    'The back-up before the new version failed; nothing was changed. Mend what it says above, or go on without one: npm start -- --no-backup',
  )
}

/** Once a day, into the folder of back-ups; one that fails is tried again in an hour, and said. */
async function backUpDaily({ isStopping }) {
  const { backupsIn } = await import('./lib/backup.mjs')
  for (;;) {
    await wait(HOUR_MS)
    if (isStopping()) return
    const [newest] = backupsIn(BACKUPS)
    if (newest && Date.now() - newest.madeMs < DAY_MS) continue
    if (!(await backUp())) say('The daily back-up failed; it is tried again in an hour.')
  }
}

const LOOK_MS = 1000
/** A database that is gone is started again, with pauses that grow while it does not come. */
async function watchDatabase({ database, start, isStopping }) {
  for (;;) {
    await wait(LOOK_MS)
    if (isStopping()) return
    if (database().isAlive()) continue
    say('The database ended by itself; it is started again.')
    for (let tries = 0; !isStopping(); tries++) {
      const isUp = await start().then(
        () => true,
        (problem) => void say(problem.message),
      )
      if (isUp) break
      await wait(Math.min(PAUSES.mostMs, PAUSES.firstMs * 2 ** tries))
    }
  }
}

const LIVE_EVERY_MS = 10_000
const MOST_SILENT = 6
/** Coming up it builds the demo, or counts what was left to be counted: on a slow machine that takes minutes. */
const MOST_COMING_UP = 360
/** A server that was up and says nothing for a minute is ended, and so started again; so is one that has not come up in an hour. */
async function watchServer({ server, told, isStopping }) {
  let upPid = null
  for (let silent = 0; ;) {
    await wait(LIVE_EVERY_MS)
    if (isStopping()) return
    const pid = server.pid()
    const isWell = pid === null || (await answers(`${told.address}/api/live`))
    if (isWell) upPid = pid
    silent = isWell ? 0 : silent + 1
    const wasUp = pid === upPid
    if (silent < (wasUp ? MOST_SILENT : MOST_COMING_UP) || pid !== server.pid()) continue
    say(`The server has said nothing for ${wasUp ? 'a minute' : 'an hour'}; it is ended and started again.`)
    server.restart()
    silent = 0
  }
}

function startServer({ database, ports, secret }) {
  const { port, trustPort, localPort } = ports
  return spawn(process.execPath, [...lean(), '--enable-source-maps', SERVER, SERVER_OF], {
    stdio: ['ignore', 'inherit', 'inherit'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      DATABASE_URL: database.url,
      PORT: String(port),
      WITH_DEMO: isEmpty ? '0' : '1',
      SAY_READY: '1',
      STANDIN_SECRET: secret,
      DATA_FOLDER: DATA,
      BACKUP_FOLDER: BACKUPS,
      ...(localPort
        ? { LAN_FOLDER: join(DATA, 'lan'), TRUST_PORT: String(trustPort), LOCAL_PORT: String(localPort) }
        : {}),
    },
  })
}

/** Made once a folder: server and stand-in make the same tokens from it. */
function standInSecret() {
  const path = join(DATA, 'standin-secret.json')
  const known = readJson(path)?.secret
  if (known) return known
  const secret = randomBytes(24).toString('hex')
  writeJson(path, { secret })
  return secret
}

/** The demo's feeders, as a process that knows the shop only by its address. It waits by itself until the server answers. */
function startStandIn(address, secret) {
  return spawn(process.execPath, ['--enable-source-maps', STANDIN, STANDIN_OF], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: {
      ...process.env,
      SHOP_URL: address,
      STANDIN_SECRET: secret,
      STANDIN_FILE,
      // The yard's people log, forget and look as people do; --still leaves the demo as it is.
      STANDIN_PEOPLE: process.argv.includes('--still') ? '0' : '1',
    },
  })
}

main().catch((problem) => {
  if (problem instanceof SetupError) console.error(problem.message)
  else console.error(problem)
  process.exit(1)
})
