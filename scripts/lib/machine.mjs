// What the machine must have before anything else runs: Debian packages and node_modules. No imports from node_modules here.
import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs'
import { createHash } from 'node:crypto'
import { createServer } from 'node:net'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const ROOT = dirname(dirname(dirname(fileURLToPath(import.meta.url))))
export const DATA = process.env.IDLE_DATA ?? join(ROOT, '.data')
/** Where back-ups go: another disk is better. */
export const BACKUPS = process.env.IDLE_BACKUPS ?? join(DATA, 'backups')

/** A problem the person at the keyboard can do something about: said in words, without a stack. */
export class SetupError extends Error {}

/** A number given as `--name 5`, or the usual one. */
export function numberOption(name, usual) {
  const at = process.argv.indexOf(`--${name}`)
  return at < 0 ? usual : Number(process.argv[at + 1])
}

export const say = (text) => console.log(text)
export const wait = (ms) => new Promise((r) => setTimeout(r, ms))
const find = (program) =>
  ['/usr/bin', '/usr/sbin', '/usr/local/bin', '/usr/local/sbin', '/bin', '/sbin']
    .map((d) => join(d, program))
    .find((p) => existsSync(p))

export const programs = {
  mariadbd: () => find('mariadbd'),
  installDb: () => find('mariadb-install-db'),
  chromium: () => find('chromium-headless-shell'),
  haproxy: () => find('haproxy'),
}

const NEEDS = {
  database: { package: 'mariadb-server', program: 'mariadbd' },
  browser: { package: 'chromium-headless-shell', program: 'chromium-headless-shell' },
  // What joins database nodes; its state goes over by rsync.
  galera: { package: 'galera-4', path: '/usr/lib/galera/libgalera_smm.so' },
  transfer: { package: 'rsync', program: 'rsync' },
  haproxy: { package: 'haproxy', program: 'haproxy' },
}

/** Installs what is missing with the package manager, or says exactly what to type. */
export function ensurePackages(names) {
  const missing = names.map((n) => NEEDS[n]).filter((need) => !(need.path ? existsSync(need.path) : find(need.program)))
  if (missing.length === 0) return
  const list = missing.map((need) => need.package).join(' ')
  const apt = find('apt-get')
  if (!apt)
    throw new SetupError(
      `This machine lacks ${list} and has no apt-get. Install ${list} (Debian's packages) by hand, then run this again.`,
    )
  const isRoot = process.getuid?.() === 0
  const sudo = isRoot ? null : find('sudo')
  if (!isRoot && !sudo)
    throw new SetupError(
      `This machine lacks ${list}, and you may not install packages. Ask for:\n  apt-get install -y --no-install-recommends ${list}\nthen run this again.`,
    )
  say(`Installing ${list} (once) …`)
  const run = (args) =>
    spawnSync(sudo ?? apt, sudo ? ['-n', apt, ...args] : args, {
      stdio: ['ignore', 'ignore', 'pipe'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    })
  const install = ['install', '-y', '--no-install-recommends', ...missing.map((need) => need.package)]
  let done = run(install)
  if (done.status !== 0) {
    run(['update', '-qq'])
    done = run(install)
  }
  if (done.status !== 0)
    throw new SetupError(
      `Could not install ${list}:\n${String(done.stderr).trim().split('\n').slice(-3).join('\n')}\nRun  apt-get install -y --no-install-recommends ${list}  with rights to install packages, then this again.`,
    )
}

/** `npm ci` when node_modules is missing or was made for another lock file. */
export function ensureModules() {
  const lock = readFileSync(join(ROOT, 'package-lock.json'))
  const wanted = createHash('sha256').update(lock).digest('hex')
  const stamp = join(ROOT, 'node_modules', '.idle-lock')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return
  if (existsSync(join(ROOT, 'node_modules', '.package-lock.json')) && isUpToDate()) {
    writeFileSync(stamp, wanted)
    return
  }
  say('Installing the program’s own packages (npm ci) …')
  const done = spawnSync('npm', ['ci', '--no-audit', '--no-fund'], {
    cwd: ROOT,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, NODE_ENV: 'development' },
  })
  if (done.status !== 0) throw new SetupError('npm ci failed; what it said stands above. Mend that and run this again.')
  writeFileSync(stamp, wanted)
}

function isUpToDate() {
  const installed = join(ROOT, 'node_modules', '.package-lock.json')
  return (
    statSync(installed).mtimeMs >= statSync(join(ROOT, 'package-lock.json')).mtimeMs &&
    existsSync(join(ROOT, 'node_modules', 'mysql2'))
  )
}

/** The first of the wanted ports that nobody listens on; any free one after that. */
export async function freePort(wanted, tries = 20) {
  for (let port = wanted; port < wanted + tries; port++) if (await isFree(port)) return port
  return new Promise((done, fail) => {
    const server = createServer()
    server.once('error', fail)
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address()
      server.close(() => done(port))
    })
  })
}

function isFree(port) {
  return new Promise((done) => {
    const server = createServer()
    server.once('error', () => done(false))
    server.listen(port, '127.0.0.1', () => server.close(() => done(true)))
  })
}

/** The arguments of a running process; null where there is none by that id, or it has ended and nobody has taken note. */
function argumentsOf(pid) {
  if (!pid) return null
  try {
    const args = readFileSync(`/proc/${pid}/cmdline`, 'utf8').split('\0')
    return args.length > 1 ? args : null
  } catch {
    return null
  }
}

/** Whether a process runs by that id with that very argument: ids are used again by strangers after a crash, and in a container by oneself. */
export const isRunning = (pid, argument) => pid !== process.pid && (argumentsOf(pid)?.includes(argument) ?? false)

/** The process that runs with that very argument; null where none does. */
export function findRunning(argument) {
  const ids = readdirSync('/proc').map(Number).filter(Number.isInteger)
  return ids.find((pid) => isRunning(pid, argument)) ?? null
}

/** Ends a process by its id and one of its arguments: asked first, after a time made to. */
export async function stopProcess(pid, argument, waitMs = 15_000) {
  if (!isRunning(pid, argument)) return
  process.kill(pid, 'SIGTERM')
  for (let waited = 0; waited < waitMs; waited += 50) {
    if (!isRunning(pid, argument)) return
    await wait(50)
  }
  if (isRunning(pid, argument)) process.kill(pid, 'SIGKILL')
}

export function readJson(path) {
  try {
    return JSON.parse(readFileSync(path, 'utf8'))
  } catch {
    return null
  }
}

export function writeJson(path, value) {
  mkdirSync(dirname(path), { recursive: true, mode: 0o700 })
  // Whole or not at all: a file cut short by a crash reads as none.
  const beside = `${path}.${process.pid}`
  writeFileSync(beside, JSON.stringify(value), { mode: 0o600 })
  renameSync(beside, path)
}

/** Whether something answers well at an address, within three seconds. */
export async function answers(url) {
  try {
    return (await fetch(url, { signal: AbortSignal.timeout(3000) })).ok
  } catch {
    return false
  }
}

/** The end of a process, or what it said last. */
export const ended = (child, what) =>
  new Promise((done, fail) => {
    let said = ''
    child.stderr.on('data', (text) => (said = (said + text).slice(-2000)))
    child.once('error', fail)
    child.once('close', (code) =>
      code === 0 ? done() : fail(new SetupError(`${what} failed: ${said.trim().split('\n').at(-1) ?? code}`)),
    )
  })

/**
 * How a server is started so that it stays small: left to itself the heap grows to several times what it holds before anything is cleared away. A program
 * that does not know the first goes without.
 */
export function lean() {
  const known = spawnSync(process.execPath, ['--v8-options'], { encoding: 'utf8' }).stdout ?? ''
  return [
    ...(known.includes('--heap-growing-percent') ? ['--heap-growing-percent=30'] : []),
    '--max-semi-space-size=16',
  ]
}
