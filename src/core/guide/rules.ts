/** How the shop does it where schools differ: the keys of the questions that shape steps. */
export interface GuideRules {
  /** D01 */
  air: 'emptyTube' | 'never' | 'fittedToo'
  /** D03 */
  tight: 'byJoint' | 'allTight' | 'handNip'
  /** D07 */
  trim: 'family' | 'old' | 'feederEnd'
  /** D08 */
  cutter: 'byMaterial' | 'cutters'
  /** D10 to D15 */
  tipWhileFeeding: 'off' | 'on'
  power: 'twoStates' | 'always' | 'unplug'
  gas: 'jog' | 'shut' | 'leave'
  speed: 'slowThenFast' | 'fast' | 'steady'
  lock: 'first' | 'last'
  cable: 'byState' | 'rewind' | 'scrap'
  /** D17 */
  antiSpatter: 'optional' | 'dip' | 'none'
  /** D23 */
  crooked: 'cause' | 'knock'
  /** D24 */
  setScrew: 'family' | 'screwFirst' | 'unscrew'
  /** D30 */
  tension: 'allFour' | 'liner' | 'wire' | 'fault'
}

/** Which question each of them answers, and the schools this program knows, the usual one first. */
export const RULE_OF = {
  air: { code: 'D01', keys: ['emptyTube', 'never', 'fittedToo'] },
  tight: { code: 'D03', keys: ['byJoint', 'allTight', 'handNip'] },
  trim: { code: 'D07', keys: ['family', 'old', 'feederEnd'] },
  cutter: { code: 'D08', keys: ['byMaterial', 'cutters'] },
  tipWhileFeeding: { code: 'D10', keys: ['off', 'on'] },
  power: { code: 'D11', keys: ['twoStates', 'always', 'unplug'] },
  gas: { code: 'D12', keys: ['jog', 'shut', 'leave'] },
  speed: { code: 'D13', keys: ['slowThenFast', 'fast', 'steady'] },
  lock: { code: 'D14', keys: ['first', 'last'] },
  cable: { code: 'D15', keys: ['byState', 'rewind', 'scrap'] },
  antiSpatter: { code: 'D17', keys: ['optional', 'dip', 'none'] },
  crooked: { code: 'D23', keys: ['cause', 'knock'] },
  setScrew: { code: 'D24', keys: ['family', 'screwFirst', 'unscrew'] },
  tension: { code: 'D30', keys: ['allFour', 'liner', 'wire', 'fault'] },
} as const satisfies { [K in keyof GuideRules]: { code: string; keys: readonly GuideRules[K][] } }

type Written = { [K in keyof GuideRules]: (typeof RULE_OF)[K]['keys'][number] }
/** Rules from what the shop chose: `chosen` tells the school that holds for a code. */
export function guideRules(chosen: (code: string) => string): GuideRules {
  const rules = Object.fromEntries(
    Object.entries(RULE_OF).map(([name, { code, keys }]) => {
      const key = chosen(code)
      return [name, (keys as readonly string[]).includes(key) ? key : keys[0]]
    }),
  )
  return rules as unknown as Written
}
export const USUAL_RULES: GuideRules = guideRules(() => '')
