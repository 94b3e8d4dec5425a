// npm run restore -- <file> [--until 2026-11-30T14:05:00Z [--journal <folder>]] [--over "its name"]: a back-up put back on this machine, bare or not, and
// with --until taken forward by the journal to that second. What is there already goes only when its name is said.
import { join, resolve } from 'node:path'
import { backupsIn, headOf, restoreBackup } from './lib/backup.mjs'
import { journalOf, noteRestore, piecesAfter } from './lib/journal.mjs'
import { lockFile } from './lib/lock.mjs'
import { BACKUPS, DATA, say, SetupError } from './lib/machine.mjs'
import { command, withDatabase } from './lib/shopdatabase.mjs'
import { latestVersion, shopAt } from './lib/version.mjs'

const given = process.argv.slice(2)
const valueOf = (name) => (given.includes(name) ? given[given.indexOf(name) + 1] : null)
const [over, until, journal] = ['--over', '--until', '--journal'].map(valueOf)
const file = given.find((word) => !word.startsWith('--') && ![over, until, journal].includes(word))

function whichFile() {
  if (file) return resolve(file)
  const known = backupsIn(BACKUPS).map((b) => `  ${b.path}`)
  throw new SetupError(
    `Which one? npm run restore -- <file>${known.length > 0 ? `\nThere are, the newest first:\n${known.join('\n')}` : ''}`,
  )
}

await command(async () => {
  const path = whichFile()
  const lock = await lockFile(join(DATA, 'start.lock'))
  if (!lock) throw new SetupError('Idle Spool runs here. Stop it first (Ctrl-C in its window), then run this again.')
  const head = await headOf(path)
  if (head.version > latestVersion())
    throw new SetupError('That back-up is of a newer version of this program. Fetch that version, then run this again.')
  await withDatabase(async ({ url }) => {
    const there = (await shopAt(url))?.name ?? null
    if (there !== null && there !== over)
      throw new SetupError(
        `There is a shop here already: "${there}". Nothing was touched. To put "${head.shop}" in its place:\n  npm run restore -- ${path} --over "${there}"`,
      )
    const folder = join(DATA, 'db')
    const untilMs = until ? Date.parse(until) : null
    const onward =
      until === null
        ? null
        : { untilMs, pieces: piecesAfter({ head, untilMs, folder, journal: journal ?? journalOf(folder) }) }
    await restoreBackup(path, { url, onward })
    noteRestore(folder, Date.now())
    say(
      onward
        ? `"${head.shop}" is back as it stood at ${new Date(untilMs).toISOString()}: the back-up, every table checked, and what the journal has after it.`
        : `"${head.shop}" is back as it stood at ${new Date(head.madeMs).toISOString()}, every table checked.`,
    )
    say('Start it: npm start -- --no-demo')
  })
})
