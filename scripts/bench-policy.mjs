// npm run bench:policy: six months of made-up shops under run to failure, every Friday, and the rule chosen from an imperfect first year. BENCH_WORLDS makes it smaller.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { ensureModules, ROOT, SetupError } from './lib/machine.mjs'

try {
  ensureModules()
  const { buildIfStale } = await import('./build.mjs')
  await buildIfStale()
  const done = spawnSync(process.execPath, [join(ROOT, 'dist/server/policy.js')], { cwd: ROOT, stdio: 'inherit' })
  process.exitCode = done.status ?? 1
} catch (problem) {
  console.error(problem instanceof SetupError ? problem.message : problem)
  process.exitCode = 1
}
