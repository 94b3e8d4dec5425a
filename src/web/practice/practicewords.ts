import { causeOf, type Index } from '@core/diagnose/belief.ts'
import { groupNamed } from '@core/diagnose/moves.ts'
import { type Worth } from '@core/practice/debrief.ts'
import { type DrillAct, type DrillStep } from '@core/practice/drill.ts'
import { type Meter } from '@core/practice/meters.ts'
import { flow, force, twoFigures, wireSpeed, type Units } from '@web/format/numbers.ts'
import { lower, partName } from '@web/format/words.ts'

/** A fault in the words of the shop's own list. */
export const faultWords = (knowledge: Index, fault: string): string => causeOf(knowledge, fault)?.says ?? fault
/** What an act is, in the words of the shop's own list. */
export function actWords(knowledge: Index, act: DrillAct): string {
  if (act.do === 'bead') return 'Pulled the trigger once more'
  if (act.do === 'hint') return 'Asked somebody'
  if (act.do === 'help') return 'Called for help'
  if (act.do === 'look') return knowledge.checkOf.get(act.key)?.do ?? act.key
  const group = groupNamed(knowledge, act.key)
  return knowledge.causes[group?.causes[0] ?? -1]?.fix.do ?? act.key
}
/** What came of it. */
export function cameWords({ act, outcome, runs, slip }: DrillStep): string {
  if (slip) return slip
  if (outcome) return runs ? `${outcome.says}: it runs` : outcome.says
  if (act.do === 'fix') return runs ? 'It runs' : 'Still there'
  if (act.do === 'help') return 'Put right by somebody else'
  return act.do === 'bead' ? 'The same' : ''
}

const MUCH_BITS = 0.8
const LITTLE_BITS = 0.15
/** What it was worth, in a word or two. */
export function worthWords({ step, bits, lostMin }: Worth): string {
  if (step.act.do === 'help') return 'not found'
  if (step.act.do === 'hint') return 'what it costs to ask'
  if (step.act.do === 'bead') return 'one more try'
  if (step.runs) return 'put it right'
  const told = bits > MUCH_BITS ? 'told much' : bits > LITTLE_BITS ? 'told a little' : 'told nothing new'
  return lostMin > 0 ? `${told}; about ${Math.round(lostMin)} min too many` : told
}

/** The sentence on top of a debrief. */
export function scoreWords(of: { minutes: number; bestMin: number; parts: number; isHelped?: boolean }): string {
  const [own, best] = [Math.round(of.minutes), Math.round(of.bestMin)]
  const parts = of.parts === 0 ? '' : of.parts === 1 ? ' and a part' : ` and ${of.parts} parts`
  if (of.isHelped) return `Not found. In the best order it takes ${best < 1 ? 'under a minute' : `${best} min`}.`
  const found = `Found in ${own < 1 ? 'under a minute' : `${own} min`}${parts}.`
  if (of.minutes <= of.bestMin * 1.05) return `${found} Nobody does it faster.`
  return `${found} In the best order it takes ${best < 1 ? 'under a minute' : `${best} min`}.`
}

/** "5 L/min; it should be 14 L/min". */
export function meterWords({ what, value, usual }: Meter, units: Units): string {
  const says = {
    gasLpm: (n: number) => flow(n, units),
    pullN: (n: number) => force(n, units),
    spoolN: (n: number) => force(n, units),
    speedMmS: (n: number) => wireSpeed(Number(twoFigures((n * 60) / 1000)), units),
    volts: (n: number) => `${n.toFixed(1)} V`,
  }[what]
  const names = { gasLpm: 'at the gun', pullN: 'pull', spoolN: 'spool drags', speedMmS: 'wire', volts: 'volts' }
  return `${names[what]} ${says(value)}; as it should be ${says(usual)}`
}

/** Parts that went, as a line. */
export const partsWords = (parts: readonly string[]): string =>
  parts.length === 0 ? 'no parts' : parts.map((p) => lower(partName(p as never))).join(', ')
