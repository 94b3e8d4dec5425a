// npm run backup: the shop as it stands now, into .data/backups (or the folder named), checked by putting it back beside. Runs while the program runs.
import { rmSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { backupsIn, backupsToDrop, checkBackup, makeBackup } from './lib/backup.mjs'
import { BACKUPS, DATA, ensureModules, ensurePackages, say, SetupError } from './lib/machine.mjs'

try {
  ensurePackages(['database'])
  ensureModules()
  const { startDatabase } = await import('./lib/mariadb.mjs')
  const named = process.argv.slice(2).find((word) => !word.startsWith('--'))
  const folder = named ? resolve(named) : BACKUPS
  const database = await startDatabase({ folder: join(DATA, 'db') })
  try {
    const { path, head } = await makeBackup({ url: database.url, folder })
    await checkBackup(path)
    const rows = Object.values(head.sums).reduce((sum, [n]) => sum + n, 0)
    const old = backupsToDrop(backupsIn(folder))
    for (const backup of old) rmSync(backup.path)
    say(`Backed up and checked: ${head.shop}, ${rows} rows in ${Object.keys(head.sums).length} tables.\n  ${path}`)
    if (old.length > 0)
      say(`${old.length} older ones were taken away; seven days, four weeks and twelve months are kept.`)
    say('Keep a copy off this machine. It holds the hashes of passwords: keep it like a key.')
  } finally {
    await database.stop()
  }
} catch (problem) {
  console.error(problem instanceof SetupError ? problem.message : problem)
  process.exitCode = 1
}
