import { makeId } from '@core/ids/id.ts'
import { KIND_DEFAULTS } from '@core/path/kinds.ts'
import { meta, partKind, site, stationClass } from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'
import { type Deps } from '@server/call/context.ts'

/** Rates are 0 until the lead says what an hour costs: no number of ours may pass for the shop's. */
const CLASSES = [
  { key: 'booth', name: 'Booths' },
  { key: 'training', name: 'Training booths' },
  { key: 'cell', name: 'Robot cells' },
  { key: 'bench', name: 'Repair benches' },
]

/** Every kind of part that ships, where it is not there yet: a new shop's, and one whose file is older than a kind. */
export async function withAllKinds(tx: Tx): Promise<void> {
  const has = new Set((await tx.select({ key: partKind.key }).from(partKind)).map((k) => k.key))
  const rows = KIND_DEFAULTS.map(({ isOptional: _, ...kind }, walkOrder) => ({
    ...kind,
    reasons: [...kind.reasons],
    synonyms: [...kind.synonyms],
    walkOrder,
  })).filter((k) => !has.has(k.key))
  if (rows.length > 0) await tx.insert(partKind).values(rows)
}

/** What every shop starts with: its name, the kinds of part on a wire path, and four classes of place. */
export async function seedShop(
  tx: Tx,
  at: { deps: Pick<Deps, 'now' | 'random'>; name: string; zone: string; units: 'metric' | 'us'; currency: string },
): Promise<void> {
  // One row that only one can write: of two who open a shop in the same moment the second is refused by the database.
  await tx.insert(meta).values({ key: 'opened', value: String(at.deps.now()) })
  await tx.insert(site).values({
    id: makeId('site', at.deps.now(), at.deps.random),
    name: at.name,
    zone: at.zone,
    units: at.units,
    currency: at.currency,
  })
  await withAllKinds(tx)
  await tx.insert(stationClass).values(CLASSES.map((c) => ({ ...c, labourMinorPerHour: 0, stopMinorPerHour: 0 })))
}
