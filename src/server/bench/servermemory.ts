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

/** Megabytes that a server as `npm start` begins it holds after a day's work in small, threads and all; NaN where the machine does not tell. */
export async function serverMemory(of: {
  root: string
  databaseUrl: string
  flags: readonly string[]
  cookie: string
  stationIds: readonly string[]
}): Promise<number> {
  const port = await freePort()
  const child = spawn(process.execPath, [...of.flags, '--enable-source-maps', join(of.root, 'dist/server/main.js')], {
    cwd: of.root,
    env: { ...process.env, DATABASE_URL: of.databaseUrl, PORT: String(port) },
    stdio: 'ignore',
  })
  const base = `http://127.0.0.1:${port}/api`
  const ask = async (path: string) => (await fetch(base + path, { headers: { cookie: of.cookie } })).text()
  try {
    for (let tries = 0; tries < 600; tries++) {
      if (
        await fetch(`${base}/ready`).then(
          (r) => r.ok,
          () => false,
        )
      )
        break
      await new Promise((done) => setTimeout(done, 200))
    }
    for (let i = 0; i < 100; i++) await ask('/floor')
    for (let i = 0; i < 200; i++) await ask(`/gun/${of.stationIds[i % of.stationIds.length] ?? ''}`)
    for (let i = 0; i < 10; i++) await ask('/walk?minutes=25')
    for (let i = 0; i < 3; i++) await ask('/payback?days=90')
    await ask('/payback?days=365')
    return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))?.[1] ?? NaN) / 1000
  } finally {
    const gone = new Promise((done) => child.once('exit', done))
    child.kill('SIGINT')
    await gone
  }
}
