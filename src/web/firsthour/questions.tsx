import { type ReactNode } from 'react'
import { BAY_QUESTIONS, type BayAnswers, type BayQuestion } from '@core/catalogue/bay.ts'
import { FEEDER_KIND_KEYS, FEEDER_KINDS } from '@core/catalogue/feeders.ts'
import { BOUGHT_GASES, gasAgainst, gasesInOrder } from '@core/catalogue/gases.ts'
import { sizeOnBox, wireKind } from '@core/catalogue/wires.ts'
import { MODES, NOZZLE_STYLES, type Mode, type NozzleStyle } from '@core/rightparts/facts.ts'
import { cable, type Units } from '@web/format/numbers.ts'
import { NozzlePicture, RollsPicture } from './pictures.tsx'

/** One thing that can be tapped: its name, half a line for who is not sure, and a picture where words differ from shop to shop. */
export interface Choice {
  name: string
  told?: string | undefined
  picture?: ReactNode
  /** Why it is likely not this one; it can be tapped all the same. */
  against?: string | null
  answer: Partial<BayAnswers>
}

export const ASK: Record<BayQuestion, { ask: string; why: string }> = {
  wire: { ask: 'What wire?', why: 'Tip, rolls, liner, gas and polarity are checked against it.' },
  gunName: {
    ask: 'What do you call the gun?',
    why: 'Any name: the one on its handle, or “the grey one”. Guns of one name take the same parts.',
  },
  nozzle: { ask: 'How does the nozzle go on?', why: 'One is handed out that fits.' },
  feeder: { ask: 'How is the wire driven?', why: 'Says how many rolls there are to look at.' },
  mode: { ask: 'How is it welded?', why: 'Where the tip stands, and what gas goes with it.' },
  gas: { ask: 'What gas, as it stands on the cylinder?', why: 'A wrong one shows as spatter and holes.' },
  cableM: { ask: 'How long is the gun’s cable?', why: 'A liner is ordered by it, and bends count.' },
}
/** In the order in which one answer helps with the next. */
export const ORDER = BAY_QUESTIONS

const MODE_TOLD: Record<Mode, string> = {
  'short circuit': 'crackles like frying; thin sheet and all positions',
  spray: 'hisses; thick, flat, hot',
  pulse: 'hums; set by the machine’s own programme',
  globular: 'big drops, hot, much spatter',
}
const NOZZLE_WORD: Record<NozzleStyle, { name: string; told: string }> = {
  'push-on': { name: 'pushed on', told: 'pulls off with a twist' },
  threaded: { name: 'screwed on', told: 'has a thread inside' },
}
const CABLES: Record<Units, readonly number[]> = {
  metric: [3, 3.5, 4, 4.5, 5],
  us: [10, 12, 15, 20, 25].map((ft) => Math.round(ft * 304.8) / 1000),
}

/** What can be tapped for a question, given what is known already; none: it is typed. */
export function choicesOf(
  question: BayQuestion,
  at: { answers: BayAnswers; units: Units; gunNames: readonly string[] },
): Choice[] {
  const { answers, units } = at
  switch (question) {
    case 'wire':
      return []
    case 'gunName':
      return at.gunNames.map((name) => ({ name, answer: { gunName: name } }))
    case 'nozzle':
      return NOZZLE_STYLES.map((nozzle) => ({
        ...NOZZLE_WORD[nozzle],
        picture: <NozzlePicture style={nozzle} />,
        answer: { nozzle },
      }))
    case 'feeder':
      return FEEDER_KIND_KEYS.map((feeder) => ({
        name: FEEDER_KINDS[feeder].name.replace(/^feeder, /, ''),
        told: FEEDER_KINDS[feeder].told,
        picture: <RollsPicture kind={feeder} />,
        answer: { feeder },
      }))
    case 'mode':
      return MODES.map((mode) => ({ name: mode, told: MODE_TOLD[mode], answer: { mode } }))
    case 'gas':
      return gasesInOrder({ wire: answers.wire?.kind ?? null, mode: answers.mode }).map((gas) => ({
        name: BOUGHT_GASES[gas].name,
        told: BOUGHT_GASES[gas].suits,
        against: gasAgainst(gas, { wire: answers.wire?.kind ?? null, mode: answers.mode }),
        answer: { gas },
      }))
    case 'cableM':
      return CABLES[units].map((cableM) => ({ name: cable(cableM, units), answer: { cableM } }))
  }
}

/** What was answered, as one line of the list. */
export function answerWords(question: BayQuestion, answers: BayAnswers, units: Units): string | null {
  const { wire, gunName, nozzle, feeder, mode, gas, cableM } = answers
  const words: Record<BayQuestion, string | null> = {
    wire: wire ? `${wireKind(wire.kind).name} ${sizeOnBox(wire.sizeMm, units)}` : null,
    gunName,
    nozzle: nozzle ? NOZZLE_WORD[nozzle].name : null,
    feeder: feeder ? FEEDER_KINDS[feeder].name.replace(/^feeder, /, '') : null,
    mode,
    gas: gas ? BOUGHT_GASES[gas].name : null,
    cableM: cableM === null ? null : cable(cableM, units),
  }
  return words[question]
}
