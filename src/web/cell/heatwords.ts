import { type CellLine } from '@contract/cell.ts'
import { capital, listed, partName } from '@web/format/words.ts'

type Heat = NonNullable<CellLine['heat']>
const in10 = (share: number) => `${Math.max(1, Math.round(share * 10))} in 10`

/** The chance that heat takes the front, as a hand would say it. */
const CHANCE_WORDS: readonly [below: number, says: (where: string) => string][] = [
  [0.03, (where) => `${where} has room: a failure by heat is not to be expected`],
  [0.2, (where) => `${where} is warm, with little room: a failure by heat is unlikely`],
  [0.5, (where) => `${where} is at its edge: longer welds or a hot day are too much, and threads seize`],
  [
    0.8,
    (where) => `${where} carries more than it may: sooner or later heat takes it, a tip burns back or a thread seizes`,
  ],
]
const TOO_MUCH = (where: string) => `${where} carries far more than it may: count on a failure by heat`

/** How the front carries the program's heat, and what is not known of it. */
export function heatSentence({ heat }: Pick<CellLine, 'heat'>): string {
  if (!heat) return ''
  const where = `the ${partName(heat.at)}`
  const says = CHANCE_WORDS.find(([below]) => heat.chance < below)?.[1] ?? TOO_MUCH
  return `At ${programWords(heat)} it may weld ${in10(heat.may)} of the time; the program welds ${in10(heat.wants)}. ${capital(says(where))}.${untoldWords(heat)}`
}
function programWords({ amps, heatAmps }: Heat): string {
  const pulse = heatAmps > amps * 1.01 ? `, which in pulse heats like ${Math.round(heatAmps)}` : ''
  return `${Math.round(amps)} A${pulse},`
}
const untoldWords = ({ untold }: Heat): string =>
  untold.length === 0
    ? ''
    : ` ${capital(listed(untold.map((k) => `the ${partName(k)}`)))} ${untold.length === 1 ? 'tells' : 'tell'} no rating.`

/** From so likely on it is said first. */
export const isHot = ({ heat }: Pick<CellLine, 'heat'>): boolean => heat !== null && heat.chance >= 0.2
