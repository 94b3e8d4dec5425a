import { CAUTIONS, cautionWords, type Hazard } from '@core/guide/cautions.ts'
import { type Step } from '@core/guide/step.ts'
import { rulingFor, type RuledBy } from '@core/houserule/schools.ts'
import { type CautionLine, type GuideStep } from '@contract/guide.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'

export type OwnCautions = Partial<Record<Hazard, string>>
export interface OwnNote {
  words: string
  isInstead: boolean
  by: string | null
  atMs: number
}

export const cautionLineOf = (hazard: Hazard, own: OwnCautions): CautionLine => ({
  hazard,
  words: cautionWords(hazard, own),
  how: CAUTIONS[hazard].how,
  answer: CAUTIONS[hazard].answer,
})

/** A step as it is told: with the site's cautions, the school that holds, and the shop's own words. */
export function stepLine(
  s: Step,
  at: { own: OwnCautions; by: RuledBy; choices: ShopModel['choices']; note?: OwnNote | null },
): GuideStep {
  return {
    key: s.key,
    phase: s.phase,
    power: s.power,
    do: s.do,
    look: s.look,
    cautions: s.hazards.map((h) => told(s, cautionLineOf(h, at.own))),
    minutes: s.minutes,
    ties: s.tie,
    unties: s.untie,
    swap: s.swap,
    tight: s.joint?.words ?? null,
    drawing: s.drawing,
    settles: s.settles,
    gate: s.gate,
    canSkip: canSkip(s),
    byRule: s.byRule,
    school: s.byRule ? rulingFor(s.byRule, at.by, at.choices).school.name : null,
    own: at.note ?? null,
  }
}

/** Isolation is asked for once, where the power goes off; at the steps after it is only told. */
const told = (s: Step, caution: CautionLine): CautionLine =>
  MADE_SAFE.has(caution.hazard) && s.key !== 'isolate' && s.key !== 'offAgain'
    ? { ...caution, how: 'tell', answer: null }
    : caution
const MADE_SAFE: ReadonlySet<Hazard> = new Set<Hazard>(['isolate', 'robot'])

/** What nothing later rests on may be skipped; isolation, and what closes something that was opened, may not. */
const canSkip = (s: Step) =>
  s.makes.length === 0 && s.undoes.length === 0 && s.key !== 'isolate' && (s.gate === null || s.gate === 'air')
