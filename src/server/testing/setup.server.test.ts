import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import {
  cpSync,
  mkdtempSync,
  readFileSync,
  statSync,
  rmSync,
  writeFileSync,
  mkdirSync,
  symlinkSync,
  existsSync,
} from 'node:fs'
import { createServer, type Server } from 'node:net'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { fileURLToPath, pathToFileURL } from 'node:url'
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'

/** The two commands' own machinery: the database taken up and recovered, ports, missing packages, strangers' processes. */
const ROOT = fileURLToPath(new URL('../../..', import.meta.url))
const machineUrl = pathToFileURL(join(ROOT, 'scripts/lib/machine.mjs')).href
const mariadbUrl = pathToFileURL(join(ROOT, 'scripts/lib/mariadb.mjs')).href
interface Machine {
  freePort: (wanted: number, tries?: number) => Promise<number>
  isRunning: (pid: number | undefined, argument: string) => boolean
  stopProcess: (pid: number, word: string, waitMs?: number) => Promise<void>
  readJson: (path: string) => unknown
  writeJson: (path: string, value: unknown) => void
}
interface Started {
  url: string
  pid: number
  wasRunning: boolean
  stop: () => Promise<void>
}
interface Mariadb {
  startDatabase: (at: { folder: string; wantedPort?: number; isThrowaway?: boolean }) => Promise<Started>
}
let machine: Machine
let mariadb: Mariadb
let folder: string
beforeAll(async () => {
  machine = (await import(/* @vite-ignore */ machineUrl)) as Machine
  mariadb = (await import(/* @vite-ignore */ mariadbUrl)) as Mariadb
  folder = mkdtempSync(join(existsSync('/dev/shm') ? '/dev/shm' : tmpdir(), 'idle-setup-'))
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const listen = (port: number) =>
  new Promise<Server>((done) => {
    const server = createServer()
    server.listen(port, '127.0.0.1', () => done(server))
  })
const portOf = (server: Server) => {
  const address = server.address()
  return typeof address === 'object' && address ? address.port : 0
}
const ask = async (url: string, query: string) => {
  const connection = await mysql.createConnection(url)
  const [rows] = await connection.query(query)
  await connection.end()
  return rows
}

describe('the database', () => {
  it('loses nothing it works with when another starts on the same machine', async () => {
    const one = await mariadb.startDatabase({ folder: join(folder, 'one') })
    const connection = await mysql.createConnection(one.url)
    await connection.query('create temporary table half (n int) engine = aria')
    const other = await mariadb.startDatabase({ folder: join(folder, 'other') })
    await connection.query('insert into half values (1)')
    await connection.query('drop temporary table half')
    await connection.end()
    await Promise.all([one.stop(), other.stop()])
  })

  it('is made, taken up by a second start, and keeps what was acknowledged through a kill -9', async () => {
    const at = { folder: join(folder, 'db') }
    const first = await mariadb.startDatabase(at)
    expect(first.wasRunning).toBe(false)
    await ask(first.url, 'create table kept (n int)')
    await ask(first.url, 'insert into kept values (7)')
    const second = await mariadb.startDatabase(at)
    expect(second).toMatchObject({ wasRunning: true, pid: first.pid, url: first.url })
    process.kill(first.pid, 'SIGKILL')
    await first.stop()
    await second.stop()
    const again = await mariadb.startDatabase(at)
    expect(again.wasRunning).toBe(false)
    expect(again.pid).not.toBe(first.pid)
    expect(await ask(again.url, 'select n from kept')).toEqual([{ n: 7 }])
    await again.stop()
    expect(machine.isRunning(again.pid, `--datadir=${join(at.folder, 'data')}`)).toBe(false)
  })
  it('is stopped by the last who uses it, and not before', async () => {
    const at = { folder: join(folder, 'shared') }
    const first = await mariadb.startDatabase(at)
    const second = await mariadb.startDatabase(at)
    await first.stop()
    expect(await ask(second.url, 'select 1 as n')).toEqual([{ n: 1 }])
    await second.stop()
    await expect(ask(second.url, 'select 1')).rejects.toThrow()
  })
  it('of a folder copied from another is the copy’s own, started at the same moment', async () => {
    const one = join(folder, 'one')
    const made = await mariadb.startDatabase({ folder: one })
    await ask(made.url, 'create table whose (n int)')
    await made.stop()
    const copy = join(folder, 'copy')
    cpSync(one, copy, { recursive: true, filter: (path) => !path.endsWith('.sock') })
    spawnSync('chown', ['-R', '--reference', join(one, 'data'), join(copy, 'data')])
    const both = await Promise.all([one, copy].map((at) => mariadb.startDatabase({ folder: at, wantedPort: 37_660 })))
    const [a, b] = both.map((d) => new URL(d.url))
    expect(a?.port).not.toBe(b?.port)
    expect(a?.password).not.toBe(b?.password)
    await ask(both[0]?.url ?? '', 'insert into whose values (1)')
    expect(await ask(both[1]?.url ?? '', 'select * from whose')).toEqual([])
    await Promise.all(both.map((d) => d.stop()))
  })
  it('keeps its secret to its owner: no file of the folder can be read by others, and none holds it once it runs', async () => {
    const at = join(folder, 'private')
    const started = await mariadb.startDatabase({ folder: at })
    expect(existsSync(join(at, 'accounts.sql'))).toBe(false)
    expect(statSync(at).mode & 0o077).toBe(0)
    expect(statSync(join(at, 'state.json')).mode & 0o077).toBe(0)
    await started.stop()
  })
  it('left by a start that was killed while it came up is taken up by the next one', async () => {
    const at = join(folder, 'killed')
    await (await mariadb.startDatabase({ folder: at })).stop()
    const line = `import(${JSON.stringify(mariadbUrl)}).then((m) => m.startDatabase({ folder: ${JSON.stringify(at)} }))`
    const starter = spawn(process.execPath, ['-e', line], { stdio: 'ignore' })
    await vi.waitFor(() => expect(existsSync(join(at, 'accounts.sql'))).toBe(true), { timeout: 20_000, interval: 5 })
    starter.kill('SIGKILL')
    const taken = await mariadb.startDatabase({ folder: at })
    expect(await ask(taken.url, 'select @@pid_file as f')).toHaveLength(1)
    expect(Number(readFileSync(join(at, 'data', 'db.pid'), 'utf8'))).toBe(taken.pid)
    await taken.stop()
    expect(machine.isRunning(taken.pid, `--datadir=${join(at, 'data')}`)).toBe(false)
  })
  it('takes the next port when its own is taken, and lets nobody in without the secret', async () => {
    const taken = await listen(0)
    const started = await mariadb.startDatabase({
      folder: join(folder, 'db2'),
      wantedPort: portOf(taken),
      isThrowaway: true,
    })
    const url = new URL(started.url)
    expect(Number(url.port)).not.toBe(portOf(taken))
    await expect(ask(`mysql://root@127.0.0.1:${url.port}/`, 'select 1')).rejects.toThrow()
    await expect(ask(started.url.replace(url.password, 'guess'), 'select 1')).rejects.toThrow('Access denied')
    await started.stop()
    taken.close()
  })
  it('whose folder cannot be used says so with its last words', async () => {
    const at = join(folder, 'broken')
    mkdirSync(join(at, 'data', 'mysql'), { recursive: true })
    await expect(mariadb.startDatabase({ folder: at })).rejects.toThrow(/did not start|whole log/)
  })
})

describe('ports and processes', () => {
  it('the first free port of the wanted ones is taken', async () => {
    const taken = await listen(0)
    const free = await machine.freePort(portOf(taken))
    expect(free).toBeGreaterThan(portOf(taken))
    taken.close()
  })
  it('a process is ours only if one of its arguments says so: ids are used again by strangers', async () => {
    const child: ChildProcess = spawn(process.execPath, ['-e', 'setInterval(() => {}, 1000)', 'our-word'])
    const pid = child.pid ?? 0
    await new Promise((done) => child.once('spawn', done))
    // The whole argument, not a piece of it.
    expect([machine.isRunning(pid, 'our-word'), machine.isRunning(pid, 'our')]).toEqual([true, false])
    await machine.stopProcess(pid, 'our')
    expect(machine.isRunning(pid, 'our-word')).toBe(true)
    await machine.stopProcess(pid, 'our-word')
    expect(machine.isRunning(pid, 'our-word')).toBe(false)
  })
  it('one that will not go is ended after its time', async () => {
    const child = spawn(process.execPath, [
      '-e',
      "process.on('SIGTERM', () => {}); console.log('up'); setInterval(() => {}, 1000)",
      'stubborn',
    ])
    await new Promise((done) => child.stdout.once('data', done))
    await machine.stopProcess(child.pid ?? 0, 'stubborn', 200)
    await new Promise((done) =>
      child.exitCode === null && child.signalCode === null ? child.once('exit', done) : done(null),
    )
    expect(child.signalCode).toBe('SIGKILL')
  })
  it('a state file cut short by a crash reads as none', () => {
    const path = join(folder, 'deep', 'state.json')
    machine.writeJson(path, { pid: 5 })
    expect(machine.readJson(path)).toEqual({ pid: 5 })
    writeFileSync(path, '{"pid": ')
    expect([machine.readJson(path), machine.readJson(join(folder, 'none.json'))]).toEqual([null, null])
  })
})

describe('a machine that lacks something', () => {
  /** Runs a line of script where the known folders of programs hold only what is given. */
  function withPrograms(names: readonly string[], uid: number): string {
    const bin = join(folder, `bin-${names.join('-')}-${uid}`)
    mkdirSync(bin, { recursive: true })
    for (const name of names) symlinkSync('/bin/false', join(bin, name))
    const copy = join(bin, 'machine.mjs')
    const source = readFileSync(fileURLToPath(machineUrl), 'utf8')
    const dirs = source.slice(source.indexOf("['/usr/bin'"), source.indexOf(']', source.indexOf("['/usr/bin'")) + 1)
    writeFileSync(copy, source.replace(dirs, `['${bin}']`).replaceAll('process.getuid?.()', String(uid)))
    const line = `import('${pathToFileURL(copy).href}').then((m) => { try { m.ensurePackages(['database', 'browser']) } catch (p) { console.log(p.message) } })`
    return spawnSync(process.execPath, ['-e', line], { encoding: 'utf8', cwd: dirname(copy) }).stdout
  }
  it('without apt-get says what to install by hand', () =>
    expect(withPrograms([], 0)).toContain('lacks mariadb-server chromium-headless-shell and has no apt-get'))
  it('without the right to install says what to ask for', () => {
    const said = withPrograms(['apt-get'], 1000)
    expect(said).toContain('you may not install packages')
    expect(said).toContain('apt-get install -y --no-install-recommends mariadb-server chromium-headless-shell')
  })
  it('whose installation fails says what failed and what to run', () =>
    expect(withPrograms(['apt-get'], 0)).toContain('Could not install mariadb-server chromium-headless-shell'))
  it('with all of it installs nothing and says nothing', () =>
    expect(withPrograms(['mariadbd', 'chromium-headless-shell'], 0)).toBe(''))
})
