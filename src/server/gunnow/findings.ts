import { type KindKey } from '@core/path/columns.ts'
import { check } from '@core/rightparts/check.ts'
import { type Setup } from '@core/rightparts/facts.ts'
import { type Finding } from '@core/rightparts/finding.ts'
import { type keptFinding } from '@server/db/schema.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'
import { setupOf, type Hung } from './setup.ts'

type Kept = typeof keptFinding.$inferSelect
/** A finding with the lead's decision to live with it, where there is one. */
export interface Judged extends Finding {
  kept: Kept | null
}
export interface Checked {
  setup: Setup
  findings: Judged[]
}

/** What was found and wanted, as one text: another part or wire makes another text, and the decision no longer holds. */
export const ofWhat = (f: Finding) => JSON.stringify([f.found, f.wanted]).slice(0, 160)

/** Is the gun at a place built right; what the lead keeps so is told, and no longer counts. */
export function checkPlace(hung: Hung, shop: ShopModel): Checked {
  const setup = setupOf(hung, shop)
  const kept = shop.keptByStation.get(hung.station.id) ?? []
  const findings = check(setup).map((f) => ({
    ...f,
    kept: kept.find((k) => k.rule === f.rule && k.at === f.at && k.of === ofWhat(f)) ?? null,
  }))
  return { setup, findings }
}

export const standing = (findings: readonly Judged[]) => findings.filter((f) => f.kept === null)

/** Kinds of which another part has to go on: what stands there stops the gun or breaks something. */
export const wrongKinds = ({ findings }: Pick<Checked, 'findings'>): ReadonlySet<KindKey> =>
  new Set(
    standing(findings).flatMap((f) => (f.severity === 'stops' && f.remedy.do === 'change' ? [f.remedy.kindKey] : [])),
  )
