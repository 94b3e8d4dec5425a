import { eq, inArray } from 'drizzle-orm'
import { makeId, type PartId } from '@core/ids/id.ts'
import { type FamilyFit, type PartFit } from '@core/rightparts/facts.ts'
import { fitFamily, part } from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'
import { type Deps, type Who } from '@server/http/context.ts'
import { append, factDraft, nothingTouched, type Draft, type Touched } from '@server/ledger/append.ts'
import { shopDraft } from '@server/shop/changing.ts'
import { type FamilyPlan, type PartPlan, type PlannedPart } from './fitsheet.ts'
import { shortHash } from './key.ts'

interface At {
  deps: Deps
  who: Who
  key: string
}

/** What a sheet says wins; what it leaves empty stays as it was. */
function over<F extends PartFit | FamilyFit>(said: F, before: F | null): F {
  const told = Object.entries(said).filter(([, v]) => v !== null && v !== false && !isEmpty(v))
  return { ...said, ...before, ...Object.fromEntries(told) }
}
const isEmpty = (value: unknown) => typeof value === 'object' && value !== null && Object.keys(value).length === 0

/** Parts that are new, and what is new about those that are there; counts become lines of the ledger. */
export async function writeParts(tx: Tx, at: At & { plan: PartPlan }): Promise<Touched> {
  const { deps, who, plan } = at
  const codes = plan.parts.map((p) => p.code)
  const there = codes.length === 0 ? [] : await tx.select().from(part).where(inArray(part.code, codes))
  const byCode = new Map(there.map((p) => [p.code.toLowerCase(), p]))
  const counts: Draft[] = [shopDraft(deps, who, { key: at.key, what: `parts list: ${plan.parts.length} lines` })]
  for (const p of plan.parts) {
    const before = byCode.get(p.code.toLowerCase())
    const id = before?.id ?? makeId('part', deps.now(), deps.random)
    const values = {
      name: p.name,
      kindKey: p.kindKey,
      familyId: p.familyId ?? before?.familyId ?? null,
      wireSizeMm: p.wireSizeMm ?? before?.wireSizeMm ?? null,
      priceMinor: p.priceMinor ?? before?.priceMinor ?? null,
      fit: over(p.fit, before?.fit ?? null),
    }
    await tx
      .insert(part)
      .values({ id, code: p.code, ...values })
      .onDuplicateKeyUpdate({ set: values })
    counts.push(...countDraft(at, p, id))
  }
  return append(tx, counts)
}

function countDraft({ deps, who, key }: At, p: PlannedPart, partId: string): Draft[] {
  if (p.onHand === null) return []
  return [
    factDraft(deps, who, {
      fact: { kind: 'counted', partId: partId as PartId, quantity: p.onHand },
      happenedMs: deps.now(),
      precision: 'exact',
      stationId: null,
      idempotencyKey: `sheet/${shortHash(`${key} ${p.code}`)}`,
    }),
  ]
}

export async function writeFamilies(tx: Tx, at: At & { plan: FamilyPlan }): Promise<Touched> {
  const { deps, plan } = at
  const there = await tx.select().from(fitFamily).for('update')
  const byName = new Map(there.map((f) => [f.name.toLowerCase(), f]))
  for (const { name, fit } of plan.families) {
    const before = byName.get(name.toLowerCase())
    if (before)
      await tx
        .update(fitFamily)
        .set({ fit: over(fit, before.fit) })
        .where(eq(fitFamily.id, before.id))
    else {
      const row = { id: makeId('family', deps.now(), deps.random), name, fit }
      await tx.insert(fitFamily).values(row)
      byName.set(name.toLowerCase(), row)
    }
  }
  await append(tx, [shopDraft(deps, at.who, { key: at.key, what: `fit families: ${plan.families.length} lines` })])
  return nothingTouched()
}
