// npm run backup: the shop as it stands now, into .data/backups (or the folder named), checked by putting it back beside. Runs while the program runs.
import { rmSync } from 'node:fs'
import { resolve } from 'node:path'
import { backupsIn, backupsToDrop, checkBackup, makeBackup } from './lib/backup.mjs'
import { BACKUPS, say } from './lib/machine.mjs'
import { command, withDatabase } from './lib/shopdatabase.mjs'

await command(async () => {
  const named = process.argv.slice(2).find((word) => !word.startsWith('--'))
  const folder = named ? resolve(named) : BACKUPS
  await withDatabase(async ({ url }) => {
    const { path, head } = await makeBackup({ url, folder })
    await checkBackup(path)
    const rows = Object.values(head.sums).reduce((sum, [n]) => sum + n, 0)
    const old = backupsToDrop(backupsIn(folder))
    for (const backup of old) rmSync(backup.path)
    say(`Backed up and checked: ${head.shop}, ${rows} rows in ${Object.keys(head.sums).length} tables.\n  ${path}`)
    if (old.length > 0)
      say(`${old.length} older ones were taken away; seven days, four weeks and twelve months are kept.`)
    say('Keep a copy off this machine. It holds the hashes of passwords: keep it like a key.')
  })
})
