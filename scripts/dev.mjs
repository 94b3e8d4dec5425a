// npm run dev: database, server rebuilt and restarted on change, and the web app with hot reload.
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { DATA, ensureModules, ensurePackages, ROOT, say, SetupError } from './lib/machine.mjs'

try {
  ensurePackages(['database'])
  ensureModules()
  const { startDatabase } = await import('./lib/mariadb.mjs')
  const database = await startDatabase({ folder: join(DATA, 'db') })
  const env = { ...process.env, DATABASE_URL: database.url, PORT: '8460', WITH_DEMO: '1', SAY_READY: '1' }
  const children = [
    spawn(
      process.execPath,
      [join(ROOT, 'node_modules/tsx/dist/cli.mjs'), 'watch', '--clear-screen=false', 'src/server/main.ts'],
      { cwd: ROOT, stdio: 'inherit', env },
    ),
    spawn(process.execPath, [join(ROOT, 'node_modules/vite/bin/vite.js'), '--config', 'vite.config.ts'], {
      cwd: ROOT,
      stdio: 'inherit',
      env,
    }),
  ]
  say('Server on 8460; open the address that Vite prints. Ctrl-C stops both.')
  const stop = async () => {
    children.forEach((child) => child.kill('SIGTERM'))
    await database.stop()
    process.exit(0)
  }
  process.on('SIGINT', stop)
  process.on('SIGTERM', stop)
} catch (problem) {
  console.error(problem instanceof SetupError ? problem.message : problem)
  process.exitCode = 1
}
