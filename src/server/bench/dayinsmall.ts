import { spawn } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { join } from 'node:path'

const freePort = () =>
  new Promise<number>((done) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const address = probe.address()
      probe.close(() => done(typeof address === 'object' && address ? address.port : 0))
    })
  })

export interface OwnServer {
  root: string
  databaseUrl: string
  flags: readonly string[]
  cookie: string
  stationIds: readonly string[]
}
export interface DayInSmall {
  /** Threads and all; NaN where the machine does not tell. */
  memoryMb: number
  /** The longest that nobody else was served while one was asked for, by route, the worst first. */
  held: { route: string; ms: number }[]
}

const LAG = /^nodejs_eventloop_lag_max_seconds ([0-9.e+-]+)/m
/** What a server as `npm start` begins it holds, and for how long it holds all others up, over everything that pages ask for. */
export async function dayInSmall(of: OwnServer): Promise<DayInSmall> {
  const port = await freePort()
  const child = spawn(process.execPath, [...of.flags, '--enable-source-maps', join(of.root, 'dist/server/main.js')], {
    cwd: of.root,
    env: { ...process.env, DATABASE_URL: of.databaseUrl, PORT: String(port) },
    stdio: 'ignore',
  })
  const base = `http://127.0.0.1:${port}/api`
  const headers = { cookie: of.cookie, 'content-type': 'application/json', 'x-idle-spool': '1' }
  const ask = async (path: string) => (await fetch(base + path, { headers })).text()
  const lagMs = async () => Number(LAG.exec(await ask('/metrics'))?.[1] ?? NaN) * 1000
  try {
    for (let tries = 0; tries < 600; tries++) {
      const isUp = await fetch(`${base}/ready`).then(
        (r) => r.ok,
        () => false,
      )
      if (isUp) break
      await new Promise((done) => setTimeout(done, 200))
    }
    for (let i = 0; i < 100; i++) await ask('/floor')
    for (let i = 0; i < 200; i++) await ask(`/gun/${of.stationIds[i % of.stationIds.length] ?? ''}`)
    const held: DayInSmall['held'] = []
    for (const path of pathsOf(of.stationIds)) {
      // What is asked for the first time is made ready once.
      await ask(path)
      await lagMs()
      await ask(path)
      held.push({ route: path.replace(/[?].*|stn_\w+/g, '…'), ms: await lagMs() })
    }
    const memoryMb = Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))?.[1] ?? NaN) / 1000
    return { memoryMb, held: held.sort((a, b) => b.ms - a.ms) }
  } finally {
    const gone = new Promise((done) => child.once('exit', done))
    child.kill('SIGINT')
    await gone
  }
}

const pathsOf = ([one = '']: readonly string[]) => [
  ...['/floor', `/gun/${one}`, '/walk?minutes=25', '/handover', '/logbook', '/find', '/shop', '/spools', '/audit'],
  ...[
    '/payback?days=90',
    '/payback?days=365',
    '/rightparts/look',
    `/reading?stationId=${one}`,
    `/drag?stationId=${one}`,
  ],
  ...[`/down?stationId=${one}`, `/liner?stationId=${one}`, '/print.pdf?what=cards', '/logbook.csv'],
]
