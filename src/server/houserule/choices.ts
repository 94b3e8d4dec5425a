import { and, eq } from 'drizzle-orm'
import { type z } from 'zod'
import { questionByCode, type ScopeType } from '@core/houserule/schools.ts'
import { type FamilyId, type Id, makeId } from '@core/ids/id.ts'
import { type choiceRequest, type choicesAnswer } from '@contract/houserule.ts'
import { feederType, fitFamily, houseChoice, person, stationClass } from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'
import { isLead, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { changing } from '@server/write/changing.ts'
import { loadShop } from '@server/shopmodel/model.ts'

/** What the shop chose among the schools, scope by scope. */
export async function readChoices(deps: Deps, who: Who): Promise<z.input<typeof choicesAnswer>> {
  mustRead(who)
  const [{ site }, rows, people] = await Promise.all([
    loadShop(deps.db, deps.shops, deps.now()),
    deps.db.select().from(houseChoice),
    deps.db.select().from(person),
  ])
  const nameOf = new Map(people.map((p) => [p.id, p.name]))
  return {
    zone: site.zone,
    choices: rows.map(({ id: _, chosenById, ...row }) => ({
      ...row,
      chosenBy: isLead(who) && chosenById ? (nameOf.get(chosenById) ?? null) : null,
    })),
  }
}

/** Chooses, or goes back to the usual; either is a line of the ledger that says what it was before. */
export const choose = (deps: Deps, who: Who, r: z.output<typeof choiceRequest>) => {
  const { code, scopeType, scopeKey, option } = r
  let was: string | null = null
  return changing(deps, who, {
    key: r.key,
    change: () => ({ of: 'school', code, scopeType, scopeKey, option, was, terms: r.terms ?? null }),
    work: async (tx) => {
      const question = questionByCode.get(r.code)
      if (!question) throw new DomainError('not-found', `There is no question ${r.code}.`)
      if (r.option !== null && question.standing)
        throw new DomainError('bad-request', `"${question.ask}" is told here and is no rule.`, [question.why])
      if (r.option !== null && !question.schools.some((s) => s.key === r.option))
        throw new DomainError('bad-request', `"${r.option}" is no school of ${r.code}.`, ['Choose one of those shown.'])
      await mustBeScope(tx, r.scopeType, r.scopeKey)
      const scope = and(
        eq(houseChoice.code, r.code),
        eq(houseChoice.scopeType, r.scopeType),
        eq(houseChoice.scopeKey, r.scopeKey),
      )
      if (r.terms && !(r.code === 'D06' && r.option === 'signs'))
        throw new DomainError('bad-request', 'Only the liner’s rule by signs has terms.', ['Leave them out.'])
      was = (await tx.select().from(houseChoice).where(scope))[0]?.option ?? null
      if (r.option === null) return void (await tx.delete(houseChoice).where(scope))
      const values = {
        option: r.option,
        ...(r.terms ? { terms: r.terms } : {}),
        note: r.note?.trim() || null,
        chosenById: who.person?.id ?? null,
        chosenMs: deps.now(),
      }
      await tx
        .insert(houseChoice)
        .values({ id: makeId('rule', deps.now(), deps.random), code, scopeType, scopeKey, ...values })
        .onDuplicateKeyUpdate({ set: values })
    },
  })
}

const MODES = ['short circuit', 'spray', 'pulse', 'globular']
const FEEDERS = ['2', '4']

async function mustBeScope(tx: Tx, type: ScopeType, key: string): Promise<void> {
  const known: Record<ScopeType, () => Promise<boolean>> = {
    site: () => Promise.resolve(key === '*'),
    mode: () => Promise.resolve(MODES.includes(key)),
    feeder: () => Promise.resolve(FEEDERS.includes(key)),
    class: async () => (await tx.select().from(stationClass).where(eq(stationClass.key, key))).length > 0,
    feederType: async () =>
      (
        await tx
          .select()
          .from(feederType)
          .where(eq(feederType.id, key as Id<'feederType'>))
      ).length > 0,
    family: async () =>
      (
        await tx
          .select()
          .from(fitFamily)
          .where(eq(fitFamily.id, key as FamilyId))
      ).length > 0,
  }
  if (!(await known[type]()))
    throw new DomainError('not-found', `There is no ${type} "${key}" here.`, ['Choose one of those shown.'])
}
