// npm run bench: speed at full size (500 stations, five years) on a database of its own. BENCH_STATIONS and BENCH_YEARS make it
// smaller; "-- --keep" keeps the world it built (minutes of work) for the next run with --keep.
import { spawnSync } from 'node:child_process'
import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { DATA, ensureModules, ensurePackages, programs, ROOT, SetupError } from './lib/machine.mjs'

try {
  ensurePackages(['database', 'browser'])
  ensureModules()
  const { buildIfStale } = await import('./build.mjs')
  const { startDatabase } = await import('./lib/mariadb.mjs')
  await buildIfStale()
  const isKept = process.argv.includes('--keep')
  const folder = join(DATA, isKept ? 'bench-kept' : `bench-${process.pid}`)
  const database = await startDatabase({ folder, wantedPort: 36460, isThrowaway: true })
  const done = spawnSync(process.execPath, ['--enable-source-maps', join(ROOT, 'dist/server/bench.js')], {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, DATABASE_URL: database.url, BENCH_CHROMIUM: programs.chromium() },
  })
  await database.stop()
  if (!isKept) rmSync(folder, { recursive: true, force: true })
  process.exitCode = done.status ?? 1
} catch (problem) {
  console.error(problem instanceof SetupError ? problem.message : problem)
  process.exitCode = 1
}
