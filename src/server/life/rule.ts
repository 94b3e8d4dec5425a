import { type FloorDeps } from '@server/gunnow/positions.ts'
import { type KeptDeps } from '@server/lifekept/kept.ts'
import { and, eq } from 'drizzle-orm'
import { type z } from 'zod'
import { type Choice } from '@core/houserule/schools.ts'
import { makeId, NO_ID, type StationId } from '@core/ids/id.ts'
import { type LifeUnit } from '@core/path/columns.ts'
import { type RuleChange, type ShopChange } from '@core/ledger/shopchange.ts'
import { USUAL_TERMS, type LinerTerms } from '@core/liner/clauses.ts'
import { openedRows } from '@core/floor/rank.ts'
import { type RuleBasis } from '@core/life/kept.ts'
import { type lifeRuleRequest, type lifeWordRequest, type previewAnswer, type previewQuery } from '@contract/life.ts'
import { houseChoice, houseRule, partKind, toldLife } from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'
import { rankInput } from '@server/floor/floor.ts'
import { survey } from '@server/floor/survey.ts'
import { mustLead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { changing } from '@server/write/changing.ts'
import { loadShop, type ShopModel } from '@server/shopmodel/model.ts'

const LINER = 'liner'
/** Chooses when a kind is changed at a class of places; the look and the cleaning of the rule stay as they are. */
export function chooseLifeRule(
  deps: Deps,
  who: Who,
  { request: r, basis }: { request: LifeRule; basis: Omit<RuleBasis, 'school'> | null },
) {
  const said = chosen(r, { lives: basis?.n ?? null })
  return changing(deps, who, {
    key: r.key,
    change: () => said,
    work: async (tx, w) => {
      const [kind] = await tx.select().from(partKind).where(eq(partKind.key, r.kindKey))
      const shop = await w.shop()
      if (!kind || (r.classKey !== '*' && !shop.classes.has(r.classKey)))
        throw new DomainError('not-found', 'There is no such part or class of places.', ['Choose one of those shown.'])
      mustMakeSense(r)
      said.unit = kind.lifeUnit
      const now = shop.ruleFor(r.kindKey, r.classKey)
      const values = {
        changeLimit: r.school === 'runToFailure' || r.school === 'onCondition' ? null : r.at,
        cleanLimit: now?.cleanLimit ?? null,
        // On condition rests on being looked at.
        lookDays: r.school === 'onCondition' ? (now?.lookDays ?? 1) : (now?.lookDays ?? null),
        basis: basis
          ? { ...basis, school: r.school }
          : { school: r.school, n: 0, median: 0, savingLow: 0, savingHigh: 0, basis: '' },
        chosenById: who.person?.id ?? null,
        chosenMs: deps.now(),
      }
      await tx
        .insert(houseRule)
        .values({ id: makeId('rule', deps.now(), deps.random), kindKey: r.kindKey, classKey: r.classKey, ...values })
        .onDuplicateKeyUpdate({ set: values })
      const choice = linerChoice(r)
      if (choice) await putChoice(tx, deps, { choice, who })
    },
  })
}

type LifeRule = z.output<typeof lifeRuleRequest>
const chosen = (
  { kindKey, classKey, at, school }: LifeRule,
  of: { lives: number | null; unit?: LifeUnit },
): RuleChange => ({
  ...{ of: 'houseRule', kindKey, classKey, changeAt: at },
  ...{ cleanAt: null, lookDays: null, school, ...of },
})
function mustMakeSense(r: LifeRule): void {
  if (r.school === 'signs' && r.kindKey !== LINER)
    throw new DomainError('bad-request', 'Only liners are changed on signs.', ['Choose another rule.'])
  if ((r.school === 'fixed' || r.school === 'leastCost') && r.at === null)
    throw new DomainError('bad-request', 'A fixed rule needs the use at which the part is changed.', [
      'Slide the blade first.',
    ])
}

type Ruled = Pick<z.output<typeof lifeRuleRequest>, 'kindKey' | 'classKey' | 'school' | 'terms'>
type LinerChoice = Choice & { terms: LinerTerms | null }
/** What a school makes of the question when a liner is changed; null: it leaves it as it is. */
function linerChoice({ kindKey, classKey, school, terms }: Ruled): LinerChoice | null {
  if (kindKey !== LINER || school === 'onCondition') return null
  const scopeType = classKey === '*' ? 'site' : 'class'
  const option = school === 'signs' ? 'signs' : school === 'runToFailure' ? 'last' : 'byUse'
  return { code: 'D06', scopeType, scopeKey: classKey, option, terms: option === 'signs' ? (terms ?? null) : null }
}
async function putChoice(tx: Tx, deps: Deps, { choice, who }: { choice: LinerChoice; who: Who }): Promise<void> {
  const { code, scopeType, scopeKey, option, terms } = choice
  const set = { option, terms, note: null, chosenById: who.person?.id ?? null, chosenMs: deps.now() }
  await tx
    .insert(houseChoice)
    .values({ id: makeId('rule', deps.now(), deps.random), code, scopeType, scopeKey, ...set })
    .onDuplicateKeyUpdate({ set })
}
/** Terms of a query; what it leaves out is as usual. */
export const termsOf = (q: {
  on?: LinerTerms['on'] | undefined
  pullRatio?: number | undefined
  tips?: number | undefined
}): LinerTerms => ({
  on: q.on ?? USUAL_TERMS.on,
  pullRatio: q.pullRatio ?? USUAL_TERMS.pullRatio,
  tips: q.tips ?? USUAL_TERMS.tips,
})

/** What the floor would look like under another limit: the same survey, with the rule changed in hand only. */
export async function previewRule(
  deps: FloorDeps & KeptDeps,
  who: Who,
  q: z.output<typeof previewQuery>,
): Promise<z.input<typeof previewAnswer>> {
  mustLead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  const under = withLimit(shop, q)
  const [now, then] = await Promise.all([opensUnder(deps, shop, nowMs), opensUnder(deps, under, nowMs)])
  const nameOf = (id: StationId) => shop.stationById.get(id)?.name ?? '?'
  const places = shop.stations.filter((s) => q.classKey === '*' || s.classKey === q.classKey)
  return {
    opens: [...then.opened].filter((id) => !now.opened.has(id)).map(nameOf),
    closes: [...now.opened].filter((id) => !then.opened.has(id)).map(nameOf),
    due: then.due(q),
    places: places.length,
  }
}
function withLimit(shop: ShopModel, q: z.output<typeof previewQuery>): ShopModel {
  const choice = linerChoice({ kindKey: q.kind, classKey: q.classKey, school: q.school ?? 'fixed', terms: termsOf(q) })
  return {
    ...shop,
    revision: null,
    choices: choice ? choicesWith(shop.choices, choice) : shop.choices,
    ruleFor: (kindKey, classKey) => {
      const rule = shop.ruleFor(kindKey, classKey)
      const isIt = kindKey === q.kind && (q.classKey === '*' || classKey === q.classKey)
      if (!isIt) return rule
      const made = rule ?? {
        id: NO_ID,
        kindKey,
        classKey,
        cleanLimit: null,
        lookDays: null,
        basis: null,
        chosenById: null,
        chosenMs: 0,
        changeLimit: null,
      }
      return { ...made, changeLimit: q.at ?? null }
    },
  }
}
function choicesWith(choices: ShopModel['choices'], choice: LinerChoice): ShopModel['choices'] {
  const isSame = (c: Choice) =>
    c.code === choice.code && c.scopeType === choice.scopeType && c.scopeKey === choice.scopeKey
  const made = { id: NO_ID, note: null, chosenById: null, chosenMs: 0, ...choice }
  return [...choices.filter((c) => !isSame(c)), made]
}
async function opensUnder(deps: FloorDeps & KeptDeps, shop: ShopModel, nowMs: number) {
  const surveyed = await survey(deps.db, shop, {
    nowMs,
    store: deps.positions,
    fits: await deps.lives.read(deps.db, nowMs),
  })
  const opened = openedRows(
    surveyed.map((s) => rankInput(s, shop, nowMs)),
    nowMs,
  )
  return {
    opened: new Set(opened.map((o) => o.stationId)),
    due: (q: z.output<typeof previewQuery>) =>
      surveyed.filter((s) =>
        s.positions.some((p) => p.kind.key === q.kind && p.verdict.state === 'due' && p.verdict.act === 'change'),
      ).length,
  }
}

/** The lead's word: usual, and early one in ten. */
export function sayWord(deps: Deps, who: Who, r: z.output<typeof lifeWordRequest>) {
  const said: Extract<ShopChange, { of: 'word' }> = {
    ...{ of: 'word', kindKey: r.kindKey, usual: r.usual, early: r.usual === null ? null : (r.early ?? 0) },
  }
  return changing(deps, who, {
    key: r.key,
    change: () => said,
    work: async (tx) => {
      const scope = and(eq(toldLife.kindKey, r.kindKey), eq(toldLife.classKey, r.classKey))
      const [kind] = await tx.select().from(partKind).where(eq(partKind.key, r.kindKey))
      if (!kind) throw new DomainError('not-found', `There is no part called "${r.kindKey}".`)
      said.unit = kind.lifeUnit
      if (r.usual === null || r.early === null) return void (await tx.delete(toldLife).where(scope))
      if (!(r.early < r.usual))
        throw new DomainError('bad-request', 'The early one must be less than the usual one.', [
          `Of ten, one is gone by ${r.early}: then half of them cannot be gone by ${r.usual} already.`,
        ])
      const values = { usual: r.usual, early: r.early, toldById: who.person?.id ?? null, toldMs: deps.now() }
      await tx
        .insert(toldLife)
        .values({ kindKey: r.kindKey, classKey: r.classKey, ...values })
        .onDuplicateKeyUpdate({ set: values })
    },
  })
}
