import { type FamilyId } from '@core/ids/id.ts'
import { guideRules, type GuideRules } from '@core/guide/rules.ts'
import { type GuideAt } from '@core/guide/guideat.ts'
import { type ShopWords } from '@core/guide/step.ts'
import { rulingFor, type RuledBy } from '@core/houserule/schools.ts'
import { KIND_DEFAULTS } from '@core/path/kinds.ts'
import { rightPart, type Stocked } from '@core/rightparts/check.ts'
import { type PartFacts, type Setup } from '@core/rightparts/facts.ts'
import { MM_PER_FOOT } from '@core/units/convert.ts'
import { roughLength, ruleLength, ruleSpan } from '@core/units/length.ts'
import { inchName } from '@core/units/wiresize.ts'
import { builtHere, ruledBy, setupOf, type Hung } from '@server/gunnow/setup.ts'
import { type ShopModel, type ShopSite, type ShopKinds } from '@server/shopmodel/model.ts'

/** How the shop does it at one gun, by its choices among schools. */
export const rulesHere = (by: RuledBy, choices: ShopModel['choices']): GuideRules =>
  guideRules((code) => rulingFor(code, by, choices).school.key)

/** Sizes, lengths and minutes as the shop has them. */
export function shopWords(shop: ShopSite & ShopKinds, familyId: FamilyId | null): ShopWords {
  const isUs = shop.site.units === 'us'
  const unit = isUs ? 'in' : 'mm'
  return {
    minutesOf: (kindKey) => shop.changeMinOf(kindKey, familyId),
    sizeWord: (mm) => (isUs ? (inchName(mm) ?? `${mm} mm`) : mm.toFixed(1)),
    lengthWord: (m) => (isUs ? `${((m * 1000) / MM_PER_FOOT).toFixed(1)} ft` : `${m.toFixed(2)} m`),
    ruleWord: (mm) => ruleLength(mm, unit),
    spanWord: (mm) => ruleSpan(mm, unit),
    roughWord: (mm) => roughLength(mm, unit),
  }
}

/** The gun of a place as a guide sees it. */
export function guideAtPlace(hung: Hung, shop: ShopModel, parts: readonly Stocked[]): GuideAt {
  const setup = setupOf(hung, shop)
  const built = builtHere(hung, shop)
  return {
    ...shopWords(shop, built.familyId),
    setup: { ...setup, parts: withOthers(setup.parts, new Set(Object.keys(setup.parts))) },
    rules: rulesHere(ruledBy(hung.station, built), shop.choices),
    putOf: (kindKey) => rightPart(setup, kindKey, parts) ?? setup.parts[kindKey] ?? null,
  }
}
const withOthers = (parts: Setup['parts'], keys: ReadonlySet<string>): Setup['parts'] =>
  Object.fromEntries([...keys].map((k) => [k, parts[k] ?? null]))

/** A family where no gun is named: everything such a gun can have, and nothing said of what is on. */
export function guideAtFamily(familyId: FamilyId, shop: ShopModel): GuideAt | null {
  const family = shop.familyById.get(familyId)
  if (!family) return null
  const kinds = KIND_DEFAULTS.filter((k) => !k.isOptional || (k.key === 'clampring' && family.fit?.hasClampRing))
  const parts: Record<string, PartFacts | null> = Object.fromEntries(kinds.map((k) => [k.key, null]))
  const setup: Setup = {
    wire: null,
    family: { id: family.id, name: family.name, fit: family.fit },
    feeder: null,
    procedure: null,
    mode: null,
    gas: null,
    cableM: null,
    settings: {},
    parts,
    polarityBy: 'wire',
    tipStands: 'byMode',
  }
  return {
    ...shopWords(shop, familyId),
    setup,
    rules: rulesHere({ family: familyId }, shop.choices),
    putOf: () => null,
  }
}
