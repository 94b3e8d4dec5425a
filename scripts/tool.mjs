// Runs one of the server's tools against the shop's database: rebuild, demo-reset. Starts the database if it is not up.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { ROOT } from './lib/machine.mjs'
import { command, withDatabase } from './lib/shopdatabase.mjs'

await command(async () => {
  const { buildIfStale } = await import('./build.mjs')
  await buildIfStale()
  const tool = ['--enable-source-maps', join(ROOT, 'dist/server/tool.js'), ...process.argv.slice(2)]
  const done = await withDatabase(({ url }) =>
    spawnSync(process.execPath, tool, { stdio: 'inherit', env: { ...process.env, DATABASE_URL: url } }),
  )
  process.exitCode = done.status ?? 1
})
