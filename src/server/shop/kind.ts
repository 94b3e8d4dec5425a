import { and, eq } from 'drizzle-orm'
import { type z } from 'zod'
import { type RuleChange, type ShopChange } from '@core/ledger/shopchange.ts'
import { type LifeUnit } from '@core/path/columns.ts'
import { inUnit } from '@core/spools/bylength.ts'
import { type kindRequest } from '@contract/shop.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { houseRule, lifeFit, partKind, toldLife } from '@server/db/schema.ts'
import { DomainError } from '@server/problem/problem.ts'
import { recount, toBeRecounted } from '@server/projection/recount.ts'
import { type Writing } from '@server/write/act.ts'
import { changing, shopLine } from '@server/write/changing.ts'

/** How a kind of part is counted and kept. Another unit: limits and the lead's word go along where they can be said in it, else they are put aside. */
export function saveKind(deps: Deps, who: Who, r: z.infer<typeof kindRequest>) {
  const said: Extract<ShopChange, { of: 'kind' }> = { of: 'kind', kindKey: r.kindKey }
  return changing(deps, who, {
    key: r.key,
    change: () => said,
    work: async (tx, w) => {
      const { changeMin, cleanMin, confirmDays, lifeUnit, partClass, synonyms, reasons } = r
      const [kind] = await tx.select().from(partKind).where(eq(partKind.key, r.kindKey)).for('update')
      if (!kind) throw new DomainError('not-found', `There is no part called "${r.kindKey}".`)
      const given = Object.fromEntries(
        Object.entries({ changeMin, cleanMin, confirmDays, lifeUnit, partClass, synonyms, reasons }).filter(
          ([, v]) => v !== undefined,
        ),
      )
      if (Object.keys(given).length > 0) await tx.update(partKind).set(given).where(eq(partKind.key, r.kindKey))
      if (lifeUnit === undefined || lifeUnit === kind.lifeUnit) return
      said.unit = lifeUnit
      await toUnit(w, kind, lifeUnit)
      // Length is counted only where a kind goes by it.
      if (lifeUnit === 'km' || kind.lifeUnit === 'km') await toBeRecounted(tx, r.key)
    },
    then: recount,
  })
}

/** Limits and words of a kind in its new unit; each changed limit is a line of the log. */
async function toUnit(w: Writing, kind: typeof partKind.$inferSelect, unit: LifeUnit): Promise<void> {
  const { tx, deps } = w
  const kindKey = kind.key
  // Fitted to lives in the old unit: fitted anew before anybody goes by it.
  await tx.delete(lifeFit).where(eq(lifeFit.kindKey, kindKey))
  const to = (value: number | null) => (value === null ? null : inUnit(value, kind.lifeUnit, unit))
  for (const rule of await tx.select().from(houseRule).where(eq(houseRule.kindKey, kindKey))) {
    const [changeLimit, cleanLimit] = [to(rule.changeLimit), to(rule.cleanLimit)]
    if (rule.changeLimit === null && rule.cleanLimit === null) continue
    // What lives had told was told in the old unit.
    const values = { changeLimit, cleanLimit, basis: null, chosenById: w.who.person?.id ?? null, chosenMs: deps.now() }
    await tx.update(houseRule).set(values).where(eq(houseRule.id, rule.id))
    const change: RuleChange = {
      ...{ of: 'houseRule', kindKey, classKey: rule.classKey, changeAt: changeLimit, cleanAt: cleanLimit },
      ...{ lookDays: rule.lookDays, school: null, lives: null, unit },
    }
    w.say({ kind: 'shop', lines: [shopLine(deps, change)] })
  }
  for (const word of await tx.select().from(toldLife).where(eq(toldLife.kindKey, kindKey))) {
    const isThis = and(eq(toldLife.kindKey, kindKey), eq(toldLife.classKey, word.classKey))
    const [usual, early] = [to(word.usual), to(word.early)]
    if (usual === null || early === null) await tx.delete(toldLife).where(isThis)
    else await tx.update(toldLife).set({ usual, early }).where(isThis)
    w.say({ kind: 'shop', lines: [shopLine(deps, { of: 'word', kindKey, usual, early, unit })] })
  }
}
