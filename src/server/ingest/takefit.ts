import { eq, inArray } from 'drizzle-orm'
import { makeId, type PartId } from '@core/ids/id.ts'
import { type FamilyFit, type PartFit } from '@core/rightparts/facts.ts'
import { fitFamily, part } from '@server/db/schema.ts'
import { keyOf, type Writing } from '@server/write/act.ts'
import { shopLine } from '@server/write/changing.ts'
import { type FamilyPlan, type PartPlan, type PlannedPart } from './fitsheet.ts'
import { shortHash } from './key.ts'

/** What a sheet says wins; what it leaves empty stays as it was. */
function over<F extends PartFit | FamilyFit>(said: F, before: F | null): F {
  const told = Object.entries(said).filter(([, v]) => v !== null && v !== false && !isEmpty(v))
  return { ...said, ...before, ...Object.fromEntries(told) }
}
const isEmpty = (value: unknown) => typeof value === 'object' && value !== null && Object.keys(value).length === 0

/** Parts that are new, and what is new about those that are there; counts become lines of the ledger. */
export async function writeParts(w: Writing, at: { key: string; plan: PartPlan }): Promise<void> {
  const { tx, deps } = w
  const { plan } = at
  const codes = plan.parts.map((p) => p.code)
  const there = codes.length === 0 ? [] : await tx.select().from(part).where(inArray(part.code, codes))
  const byCode = new Map(there.map((p) => [p.code.toLowerCase(), p]))
  const change = { of: 'sheet', list: 'parts', lines: plan.parts.length } as const
  w.say({ kind: 'shop', key: keyOf(at.key), lines: [shopLine(deps, change)] })
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
    countPart(w, { key: at.key, part: p, partId: id })
  }
  w.reshaped()
}

function countPart(w: Writing, at: { key: string; part: PlannedPart; partId: PartId }): void {
  const { onHand, code } = at.part
  if (onHand === null) return
  w.say({
    kind: 'sheet',
    key: shortHash(`${at.key} ${code}`),
    lines: [
      {
        fact: { kind: 'counted', partId: at.partId, quantity: onHand },
        stationId: null,
        happenedMs: w.deps.now(),
      },
    ],
  })
}

export async function writeFamilies(w: Writing, at: { key: string; plan: FamilyPlan }): Promise<void> {
  const { tx, deps } = w
  const { plan } = at
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
  const change = { of: 'sheet', list: 'families', lines: plan.families.length } as const
  w.say({ kind: 'shop', key: keyOf(at.key), lines: [shopLine(deps, change)] })
  w.reshaped()
}
