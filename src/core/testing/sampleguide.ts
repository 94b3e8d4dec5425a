import { type GuideAt } from '@core/guide/guideat.ts'
import { USUAL_RULES, type GuideRules } from '@core/guide/rules.ts'
import { LINER_HOLDS, NOZZLE_STYLES, type FamilyFit, type Setup } from '@core/rightparts/facts.ts'
import { UNTOLD_FAMILY } from '@core/rightparts/untold.ts'
import { roughLength, ruleSpan } from '@core/units/length.ts'
import { anId } from './ids.ts'
import { onShelf, RIGHT_STEEL } from './sampleparts.ts'

/** A gun of a family, for a guide; every other field as the sample bench has it. */
export function gunOf(
  fit: Partial<FamilyFit>,
  more: { rules?: Partial<GuideRules>; setup?: Partial<Setup>; liner?: string } = {},
): GuideAt {
  const family = { id: anId('family', 'fam'), name: 'Any', fit: { ...UNTOLD_FAMILY, ...fit } }
  const liner = onShelf(more.liner ?? 'LS10')
  const parts = {
    ...RIGHT_STEEL.parts,
    orings: null,
    hub: null,
    liner,
    ...(fit.hasClampRing ? { clampring: null } : {}),
  }
  return {
    setup: { ...RIGHT_STEEL, parts, ...more.setup, family },
    rules: { ...USUAL_RULES, ...more.rules },
    putOf: (kindKey) => (kindKey === 'liner' ? liner : null),
    minutesOf: () => 4,
    sizeWord: (mm) => mm.toFixed(1),
    lengthWord: (m) => `${m} m`,
    ruleWord: (mm) => `${Math.round(mm * 10) / 10} mm`,
    spanWord: (mm) => ruleSpan(mm, 'mm'),
    roughWord: (mm) => roughLength(mm, 'mm'),
  }
}

/** Every way a family can be built, as far as a guide goes by it. */
export function families(): Partial<FamilyFit>[] {
  const all: Partial<FamilyFit>[] = []
  for (const linerHeldBy of [...LINER_HOLDS, null])
    for (const nozzleStyle of [...NOZZLE_STYLES, null])
      for (const hasClampRing of [false, true])
        for (const [linerRule, doesTipSeatLiner] of [
          ['A', false],
          ['B', true],
          ['C', false],
          [null, false],
        ] as const)
          all.push({
            linerHeldBy,
            nozzleStyle,
            hasClampRing,
            linerRule,
            doesTipSeatLiner,
            seatDepthMm: 18,
            pushBackMm: 3,
            plug: hasClampRing ? 'tabs' : 'keyed',
          })
  return all
}
