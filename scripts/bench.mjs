// npm run bench: speed at full size (500 stations, five years) on a database of its own. BENCH_STATIONS and BENCH_YEARS make it smaller. The world is
// built once and kept (minutes of work); each run takes a copy of it. "-- --fresh" builds it anew, "-- --baseline" keeps this run's ratios.
import { spawnSync } from 'node:child_process'
import { cpSync, existsSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { DATA, ensureModules, ensurePackages, lean, programs, ROOT, SetupError } from './lib/machine.mjs'

const size = `${process.env.BENCH_STATIONS ?? 500}x${process.env.BENCH_YEARS ?? 5}`
const world = join(DATA, `bench-world-${size}`)
const copy = join(DATA, `bench-${process.pid}`)

try {
  ensurePackages(['database', 'browser'])
  ensureModules()
  const { buildIfStale } = await import('./build.mjs')
  await buildIfStale()
  if (process.argv.includes('--fresh')) rmSync(world, { recursive: true, force: true })
  if (!existsSync(world)) await within(world, { BENCH_ONLY_BUILD: '1' })
  if (process.exitCode) rmSync(world, { recursive: true, force: true })
  else {
    cpSync(world, copy, { recursive: true })
    await within(copy, process.argv.includes('--baseline') ? { BENCH_BASELINE: '1' } : {})
  }
} catch (problem) {
  console.error(problem instanceof SetupError ? problem.message : problem)
  process.exitCode = 1
} finally {
  rmSync(copy, { recursive: true, force: true })
}

/** Runs the measuring on the database in a folder. */
async function within(folder, env) {
  const { startDatabase } = await import('./lib/mariadb.mjs')
  const database = await startDatabase({ folder, wantedPort: 36460, isThrowaway: true })
  const done = spawnSync(process.execPath, [...lean(), '--enable-source-maps', join(ROOT, 'dist/server/bench.js')], {
    cwd: ROOT,
    stdio: 'inherit',
    env: {
      ...process.env,
      DATABASE_URL: database.url,
      BENCH_CHROMIUM: programs.chromium(),
      BENCH_LEAN: lean().join(' '),
      ...env,
    },
  })
  await database.stop()
  process.exitCode = done.status ?? 1
}
