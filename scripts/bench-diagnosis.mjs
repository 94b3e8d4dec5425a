// npm run bench:diagnosis: minutes to fix on made-up stops, by the search and by fixed orders. BENCH_STOPS and BENCH_WORLDS make it smaller.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { ensureModules, ROOT, SetupError } from './lib/machine.mjs'

try {
  ensureModules()
  const { buildIfStale } = await import('./build.mjs')
  await buildIfStale()
  const done = spawnSync(process.execPath, [join(ROOT, 'dist/server/diagnosis.js')], { cwd: ROOT, stdio: 'inherit' })
  process.exitCode = done.status ?? 1
} catch (problem) {
  console.error(problem instanceof SetupError ? problem.message : problem)
  process.exitCode = 1
}
