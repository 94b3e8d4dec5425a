// npm run bench:r: the fits of part life against R's `survreg` on the same hundred thousand lives, in one run; where R is not, it says so.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { ensureModules, ROOT, SetupError } from './lib/machine.mjs'

try {
  ensureModules()
  const { buildIfStale } = await import('./build.mjs')
  await buildIfStale()
  const done = spawnSync(process.execPath, [join(ROOT, 'dist/server/rcompare.js')], { cwd: ROOT, stdio: 'inherit' })
  process.exitCode = done.status ?? 1
} catch (problem) {
  console.error(problem instanceof SetupError ? problem.message : problem)
  process.exitCode = 1
}
