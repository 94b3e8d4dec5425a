// Runs one of the server's tools against the shop's database: rebuild, demo-reset. Starts the database if it is not up.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { DATA, ensureModules, ensurePackages, ROOT, SetupError } from './lib/machine.mjs'

try {
  ensurePackages(['database'])
  ensureModules()
  const { buildIfStale } = await import('./build.mjs')
  const { startDatabase } = await import('./lib/mariadb.mjs')
  await buildIfStale()
  const database = await startDatabase({ folder: join(DATA, 'db') })
  const done = spawnSync(
    process.execPath,
    ['--enable-source-maps', join(ROOT, 'dist/server/tool.js'), ...process.argv.slice(2)],
    {
      stdio: 'inherit',
      env: { ...process.env, DATABASE_URL: database.url },
    },
  )
  await database.stop()
  process.exitCode = done.status ?? 1
} catch (problem) {
  console.error(problem instanceof SetupError ? problem.message : problem)
  process.exitCode = 1
}
