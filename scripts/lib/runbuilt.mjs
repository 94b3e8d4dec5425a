// Runs one program of the built server, as the benches are, and ends as it ended.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { ensureModules, ROOT, SetupError } from './machine.mjs'

export async function runBuilt(program) {
  try {
    ensureModules()
    const { buildIfStale } = await import('../build.mjs')
    await buildIfStale()
    const file = join(ROOT, 'dist/server', `${program}.js`)
    process.exitCode = spawnSync(process.execPath, [file], { cwd: ROOT, stdio: 'inherit' }).status ?? 1
  } catch (problem) {
    console.error(problem instanceof SetupError ? problem.message : problem)
    process.exitCode = 1
  }
}
