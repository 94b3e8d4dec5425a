import { rulingFor, type RuledBy } from '@core/houserule/schools.ts'
import { USUAL_TERMS, type LinerTerms } from '@core/liner/clauses.ts'
import { NO_EVIDENCE, type LinerEvidence } from '@core/liner/signs.ts'
import { type Built } from '@core/shop/built.ts'
import { ruledBy, type Hung } from './setup.ts'
import { type ShopModel, type ShopRules } from '@server/shopmodel/model.ts'

/** When the liner of one gun is changed, and what speaks of the one that is in. */
export interface LinerHere {
  school: string
  terms: LinerTerms
  evidence: LinerEvidence
}

export function linerRule(by: RuledBy, choices: ShopModel['choices']): Pick<LinerHere, 'school' | 'terms'> {
  const { school, choice } = rulingFor('D06', by, choices)
  return { school: school.key, terms: choice?.terms ?? USUAL_TERMS }
}
export function linerHere(hung: Hung, shop: ShopRules, built: Built): LinerHere {
  const rule = linerRule(ruledBy(hung.station, built), shop.choices)
  const evidence = hung.stateOf(hung.now.gunId)?.now?.liner ?? NO_EVIDENCE
  return { ...rule, evidence }
}
