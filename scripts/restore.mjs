// npm run restore -- <file>: a back-up put back on this machine, bare or not. What is there already goes only when its name is said.
import { join, resolve } from 'node:path'
import { backupsIn, headOf, restoreBackup } from './lib/backup.mjs'
import { lockFile } from './lib/lock.mjs'
import { BACKUPS, DATA, ensureModules, ensurePackages, say, SetupError } from './lib/machine.mjs'

const given = process.argv.slice(2)
const over = given.includes('--over') ? given[given.indexOf('--over') + 1] : null
const file = given.find((word) => !word.startsWith('--') && word !== over)

function whichFile() {
  if (file) return resolve(file)
  const known = backupsIn(BACKUPS).map((b) => `  ${b.path}`)
  throw new SetupError(
    `Which one? npm run restore -- <file>${known.length > 0 ? `\nThere are, the newest first:\n${known.join('\n')}` : ''}`,
  )
}

try {
  ensurePackages(['database'])
  ensureModules()
  const path = whichFile()
  const lock = await lockFile(join(DATA, 'start.lock'))
  if (!lock) throw new SetupError('Idle Spool runs here. Stop it first (Ctrl-C in its window), then run this again.')
  const { startDatabase } = await import('./lib/mariadb.mjs')
  const { latestVersion, shopAt } = await import('./lib/version.mjs')
  const head = await headOf(path)
  if (head.version > latestVersion())
    throw new SetupError('That back-up is of a newer version of this program. Fetch that version, then run this again.')
  const database = await startDatabase({ folder: join(DATA, 'db') })
  try {
    const there = (await shopAt(database.url))?.name ?? null
    if (there !== null && there !== over)
      throw new SetupError(
        `There is a shop here already: "${there}". Nothing was touched. To put "${head.shop}" in its place:\n  npm run restore -- ${path} --over "${there}"`,
      )
    await restoreBackup(path, { url: database.url })
    say(`"${head.shop}" is back as it stood at ${new Date(head.madeMs).toISOString()}, every table checked.`)
    say('Start it: npm start -- --no-demo')
  } finally {
    await database.stop()
  }
} catch (problem) {
  console.error(problem instanceof SetupError ? problem.message : problem)
  process.exitCode = 1
}
