// npm start: everything a bare machine needs, then the program. Ctrl-C stops all of it.
import { spawn } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { join } from 'node:path'
import {
  DATA,
  ensureModules,
  ensurePackages,
  freePort,
  isOurs,
  readJson,
  ROOT,
  say,
  SetupError,
  stopProcess,
  writeJson,
} from './lib/machine.mjs'

const RUN = join(DATA, 'run.json')
const SERVER = join(ROOT, 'dist/server/main.js')
const STANDIN = join(ROOT, 'dist/server/standin.js')
const STANDIN_FILE = join(DATA, 'standin.json')

async function main() {
  const before = readJson(RUN)
  if (before && isOurs(before.pid, 'start.mjs')) {
    say(`Idle Spool already runs here: ${before.address}  (Ctrl-C in the other window stops it)`)
    return
  }
  ensurePackages(['database'])
  ensureModules()
  if (before?.serverPid) await stopProcess(before.serverPid, SERVER)
  if (before?.standInPid) await stopProcess(before.standInPid, STANDIN)
  const { buildIfStale } = await import('./build.mjs')
  const { startDatabase } = await import('./lib/mariadb.mjs')
  await buildIfStale()
  const database = await startDatabase({ folder: join(DATA, 'db'), wantedPort: 33460 })
  const wanted = Number(process.env.PORT ?? 8460)
  const port = await freePort(wanted)
  if (port !== wanted) say(`Port ${wanted} is taken by another program; using ${port}.`)
  const isLan = process.argv.includes('--lan')
  const trustPort = isLan ? await freePort(port + 1) : null
  const localPort = isLan ? await freePort(trustPort + 1) : null
  run({ database, port, trustPort, localPort })
}

/** On the network the program speaks HTTPS; this machine's own equipment keeps a plain door on loopback. */
function run({ database, port, trustPort, localPort }) {
  const isEmpty = process.argv.includes('--no-demo')
  const address = `http://127.0.0.1:${localPort ?? port}`
  const secret = standInSecret()
  const server = spawn(process.execPath, ['--enable-source-maps', SERVER], {
    stdio: ['ignore', 'inherit', 'inherit'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      DATABASE_URL: database.url,
      PORT: String(port),
      WITH_DEMO: isEmpty ? '0' : '1',
      SAY_READY: '1',
      STANDIN_SECRET: secret,
      ...(localPort
        ? { LAN_FOLDER: join(DATA, 'lan'), TRUST_PORT: String(trustPort), LOCAL_PORT: String(localPort) }
        : {}),
    },
  })
  const standIn = isEmpty ? null : startStandIn(address, secret)
  writeJson(RUN, { pid: process.pid, serverPid: server.pid, standInPid: standIn?.pid, address })
  let isStopping = false
  const stop = async (code) => {
    if (isStopping) return
    isStopping = true
    if (standIn) await stopProcess(standIn.pid, STANDIN)
    await stopProcess(server.pid, SERVER)
    await database.stop()
    writeJson(RUN, {})
    process.exit(code)
  }
  process.on('SIGINT', () => stop(0))
  process.on('SIGTERM', () => stop(0))
  process.on('SIGHUP', () => stop(0))
  server.on('exit', (code) => {
    if (!isStopping) say('The server stopped by itself; what it said stands above.')
    stop(code ?? 1)
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
  return spawn(process.execPath, ['--enable-source-maps', STANDIN], {
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
