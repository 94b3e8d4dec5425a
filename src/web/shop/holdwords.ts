import { offClocks, silentFeeders, worstOf, type Held, type HeldLevel } from '@core/holding/holding.ts'
import { type HoldingAnswer } from '@contract/holding.ts'
import { ago, when } from '@web/format/times.ts'

/** What a page says of how the program holds up: a line each, and what to do about it where something is to be done. */
export const HELD_NAME: Readonly<Record<Held, string>> = {
  database: 'Database',
  backups: 'Back-ups',
  disk: 'Disk',
  clock: 'Clock',
  feeders: 'Feeders',
  counting: 'Hours of feeders',
  refused: 'Not taken from devices',
}

export const bytesWords = (bytes: number): string =>
  bytes >= 1e9 ? `${(bytes / 1e9).toFixed(bytes < 10e9 ? 1 : 0)} GB` : `${Math.max(1, Math.round(bytes / 1e6))} MB`

const some = (names: readonly string[]): string =>
  names.length > 4 ? `${names.slice(0, 3).join(', ')} and ${names.length - 3} more` : names.join(', ')

export function holdingSentence({ lines }: Pick<HoldingAnswer, 'lines'>): string {
  const level = worstOf(lines.map((l) => l.level))
  const off = lines.filter((l) => l.level === level).map((l) => HELD_NAME[l.what].toLowerCase())
  if (level === 'act') return `Needs somebody today: ${off.join(', ')}.`
  if (level === 'look') return `It runs. Worth a look: ${off.join(', ')}.`
  return level === 'unknown' ? 'What can be seen from here is well.' : 'All is well.'
}

const levelOf = (at: HoldingAnswer, what: Held): HeldLevel => at.lines.find((l) => l.what === what)?.level ?? 'unknown'

type Words = (at: HoldingAnswer) => { is: string; todo?: string | undefined }

const backups: Words = (at) => {
  const { backups: b, nowMs, zone, isDemo } = at
  if (!b) return { is: 'This server was started by something of yours and is not told where back-ups lie.' }
  if (isDemo) return { is: 'None: a demo is built anew in a minute.' }
  const todo = 'On this machine: npm run backup. What it says, when it fails, is what is wrong.'
  if (b.newestMs === null) return { is: 'There is none yet. The first is made within a day of the start.', todo }
  const age = ago(b.newestMs, nowMs)
  return {
    is: `The newest is ${age} old (${when(b.newestMs, nowMs, zone)}), checked by putting it back beside; ${b.count} kept, ${bytesWords(b.bytes)}.`,
    todo:
      levelOf(at, 'backups') !== 'well'
        ? todo
        : 'A copy belongs off this machine: a disk that dies takes its back-ups along.',
  }
}

const disk: Words = ({ disk: d }) =>
  d
    ? {
        is: `${bytesWords(d.freeBytes)} of ${bytesWords(d.totalBytes)} are free.`,
        todo: 'Make room on the disk that the shop’s data lie on. When it is full nothing is written, and says so; nothing written is lost.',
      }
    : { is: 'This server is not told which disk its data lie on.' }

const clock: Words = (at) =>
  levelOf(at, 'clock') === 'well'
    ? { is: 'The machine’s clock has not been set back while this ran.' }
    : {
        is: `The machine’s clock was set back by ${ago(0, at.clockAheadMs)}. Until it has caught up this program’s own clock runs a tenth slower: nothing is noted before what came before it.`,
        todo: 'See that the machine takes its time from the network.',
      }

const feeders: Words = (at) => {
  if (at.feeders.length === 0) return { is: 'None sends its counters here.' }
  const silent = silentFeeders(at)
  const off = offClocks(at)
  const never = at.feeders.filter((f) => f.heardMs === null).map((f) => f.name)
  const said = [
    silent.length > 0
      ? `${silent.length} of ${at.feeders.length} have sent nothing for three hours: ${some(silent)}.`
      : `${at.feeders.length - never.length} of ${at.feeders.length} have been heard within three hours.`,
    never.length > 0 ? `Never heard: ${some(never)}.` : '',
    off.length > 0 ? `Their own clock is off by over two minutes: ${some(off)}.` : '',
  ]
  return {
    is: said.filter(Boolean).join(' '),
    todo: 'A feeder that is switched off is silent too. Where one welds and is silent its hours are an estimate from the days before: look at its line to the network and its token.',
  }
}

const counting: Words = ({ countingSinceMs, nowMs }) =>
  // It is counted every few seconds.
  countingSinceMs === null || nowMs - countingSinceMs < 60_000
    ? { is: 'All that feeders sent is counted.' }
    : {
        is: `What came ${ago(countingSinceMs, nowMs)} ago waits to be counted.`,
        todo: 'It goes on by itself when the machine has room; until then wear runs on by what was counted before.',
      }

export const HELD_WORDS: Readonly<Record<Held, Words>> = {
  database: ({ answeredMs, databaseBytes }) => ({
    is: `It answers in ${answeredMs < 1 ? 'under 1' : Math.round(answeredMs)} ms and holds ${bytesWords(databaseBytes)}.`,
    todo: 'The machine has too much to do, or too slow a disk: look what else runs on it.',
  }),
  ...{ backups, disk, clock, feeders, counting },
  refused: ({ refused }) => ({
    is:
      refused === 0
        ? 'Everything that was noted without a link has gone in, in the last fortnight.'
        : `${refused} ${refused === 1 ? 'entry' : 'entries'} noted without a link could not be kept. Each stands on its device (This device) until somebody puts it away.`,
    todo: 'Ask there what was done, log it anew where it belongs, and put it away.',
  }),
}
