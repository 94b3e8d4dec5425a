import { type FamilyId, type Id, NO_ID, type PartId, type StationId, type WireId } from '@core/ids/id.ts'
import { and, asc, eq, inArray } from 'drizzle-orm'
import { type z } from 'zod'
import { costOf, type ChangeCost } from '@core/changeover/cost.ts'
import { planChange, type ChangePlan } from '@core/changeover/plan.ts'
import { type GuideRules } from '@core/guide/rules.ts'
import { type Step } from '@core/guide/step.ts'
import { stepsOf } from '@core/changeover/steps.ts'
import { type RuledBy } from '@core/houserule/schools.ts'
import { type Stocked } from '@core/rightparts/check.ts'
import { type Gas } from '@core/rightparts/facts.ts'
import { type Finding } from '@core/rightparts/finding.ts'
import { type ChangeAnswer, type changeQuery, type GunChange } from '@contract/changeover.ts'
import { isLead, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { type Reader } from '@server/db/db.ts'
import { reading } from '@server/db/schema.ts'
import { DomainError } from '@server/problem/problem.ts'
import { survey, type Surveyed } from '@server/floor/survey.ts'
import { rulesHere, shopWords } from '@server/guide/at.ts'
import { ownCautions } from '@server/guide/notes.ts'
import { stepLine, type OwnCautions } from '@server/guide/steps.ts'
import { hungAt } from '@server/gunnow/hung.ts'
import { brief, findingLine, stockedParts } from '@server/gunnow/line.ts'
import { builtHere, procedureFacts, ruledBy, setupOf, tagsHere, wireFacts, type Hung } from '@server/gunnow/setup.ts'
import { loadShop, type ShopModel, type ShopKinds } from '@server/shopmodel/model.ts'

export interface Planned {
  hung: Hung
  plan: ChangePlan
  rules: GuideRules
  by: RuledBy
  steps: Step[]
  cost: ChangeCost & { plannedMin: number; learntFrom: number }
}

/** The sum of the steps, times how worked and planned minutes went together on the changes logged here. */
function learntCost(cost: ChangeCost, shop: ShopKinds, familyId: FamilyId | null): Planned['cost'] {
  const { n, others, median, p80 } = shop.learnt('change', familyId, 1)
  const learntFrom = n + others
  const plannedMin = cost.minutes
  if (learntFrom === 0) return { ...cost, plannedMin, learntFrom }
  const minutes = plannedMin * median
  return {
    ...cost,
    minutes,
    minutesLow: (minutes * median) / p80,
    minutesHigh: plannedMin * p80,
    plannedMin,
    learntFrom,
  }
}

/** The change at one gun, as the shop does it. */
export function planAt(
  hung: Hung,
  at: {
    shop: ShopModel
    parts: readonly Stocked[]
    wireId: WireId
    procedureId?: Id<'procedure'> | null | undefined
    isScrapped?: boolean | undefined
    /** Where the knob stood for this wire on the feeder there. */
    mark?: number | null | undefined
  },
): Planned {
  const { shop, parts } = at
  const wire = shop.wires.get(at.wireId)
  if (!wire) throw new DomainError('not-found', 'There is no such wire.', ['Choose one of the list.'])
  const from = setupOf(hung, shop)
  const tags = tagsHere(hung, shop)
  const guide = tags.find((t) => t.tag === 'guideOut')
  const plan = planChange(
    from,
    { wire: wireFacts(wire), procedure: procedureFacts(at.procedureId ?? null, shop) },
    {
      parts,
      keptIds: tags.find((t) => t.tag === 'partsKept')?.partIds ?? [],
      isGuideOut: guide !== undefined,
      guideId: guide?.partIds[0] ?? null,
      gases: gasesOf(shop),
    },
  )
  const built = builtHere(hung, shop)
  const by = ruledBy(hung.station, built)
  const { rules, isScrapped, isSaid } = cableHere(rulesHere(by, shop.choices), at.isScrapped)
  const made = stepsOf(plan, rules, { ...shopWords(shop, built.familyId), mark: at.mark ?? null })
  const steps = isSaid ? made.map((s) => (s.byRule === 'D15' ? { ...s, byRule: null } : s)) : made
  const cost = costOf(plan, { steps, rules, gasMinorPerM3: shop.site.gasMinorPerM3, isScrapped })
  return { hung, plan, rules, by, steps, cost: learntCost(cost, shop, built.familyId) }
}

/** What becomes of the wire in the cable: what the hand said of this one, else the shop's rule. */
function cableHere(rules: GuideRules, said: boolean | undefined) {
  const isScrapped = said ?? rules.cable === 'scrap'
  const isSaid = said !== undefined && said !== (rules.cable === 'scrap')
  const cable = isSaid ? (said ? 'scrap' : 'rewind') : rules.cable
  return { rules: { ...rules, cable }, isScrapped, isSaid } as const
}

/** Gases that somebody here welds with, the most used first; a day's plan asks for each booth and pair of wires. */
const gases = new WeakMap<ShopModel, Gas[]>()
function gasesOf(shop: ShopModel): Gas[] {
  const known = gases.get(shop)
  if (known) return known
  const places = new Map<Gas, number>()
  for (const { id } of shop.stations) {
    const { gas } = shop.built(id)
    if (gas) places.set(gas, (places.get(gas) ?? 0) + 1)
  }
  const made = [...places].sort((a, b) => b[1] - a[1]).map(([gas]) => gas)
  gases.set(shop, made)
  return made
}

/** Where the knob was left last for a wire, by feeder. */
async function knobMarks(db: Reader, hung: readonly Hung[], wireId: WireId): Promise<Map<string, number>> {
  const heads = hung.flatMap((h) => h.now.headId ?? [])
  if (heads.length === 0) return new Map()
  const rows = await db
    .select({ headId: reading.headId, value: reading.value, leftAt: reading.leftAt })
    .from(reading)
    .where(and(eq(reading.what, 'tension'), eq(reading.wireId, wireId), inArray(reading.headId, heads)))
    .orderBy(asc(reading.atMs))
  return new Map(
    rows.flatMap(({ headId, value, leftAt }) => {
      const mark = leftAt ?? value
      return headId && mark !== null ? [[headId, mark] as const] : []
    }),
  )
}

/** What changing wire takes at some guns: parts against the shelf, order, minutes, money for leads. */
export async function readChange(deps: Deps, who: Who, q: z.output<typeof changeQuery>): Promise<ChangeAnswer> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const parts = await stockedParts(deps.db)
  const stationIds = q.stationIds.split(',') as StationId[]
  const isScrapped = q.isScrapped === undefined ? undefined : q.isScrapped === 'yes'
  const hung = await hungAt(deps.db, shop, stationIds)
  const marks = await knobMarks(deps.db, hung, q.wireId)
  const planned = hung.map((h) =>
    planAt(h, {
      ...{ shop, parts, wireId: q.wireId, procedureId: q.procedureId, isScrapped },
      mark: marks.get(h.now.headId ?? NO_ID) ?? null,
    }),
  )
  const surveyed = await survey(deps.db, shop, { nowMs: deps.now(), stationIds })
  const [wire, own] = [shop.wires.get(q.wireId), await ownCautions(deps.db)]
  return {
    toWire: wire?.name ?? '',
    toWireId: q.wireId,
    currency: shop.site.currency,
    guns: planned.map((p) => ({
      ...gunChange(p, { shop, parts, own, isMoney: isLead(who) }),
      alsoDue: alsoDue(
        p,
        surveyed.find((s) => s.station.id === p.hung.station.id),
      ),
    })),
    parts: partsList(planned),
    minutes: planned.reduce((sum, p) => sum + p.cost.minutes, 0),
  }
}

/** What wants hands on the same gun anyway: it is open, so it costs least now. */
function alsoDue(p: Planned, surveyed: Surveyed | undefined): GunChange['alsoDue'] {
  const swapped = new Set(p.plan.swaps.map((s) => s.kindKey))
  return (surveyed?.positions ?? []).flatMap(({ row, kind, verdict: { state } }) =>
    (state === 'due' || state === 'look') && !swapped.has(kind.key) ? [{ position: row.position, state }] : [],
  )
}

function gunChange(
  p: Planned,
  at: { shop: ShopModel; parts: readonly Stocked[]; own: OwnCautions; isMoney: boolean },
): Omit<GunChange, 'alsoDue'> {
  const { plan, hung, steps, cost } = p
  const stock = new Map(at.parts.map((x) => [x.id, x]))
  const briefOf = (id: PartId | undefined) => {
    const found = id ? stock.get(id) : undefined
    return found ? brief(found) : null
  }
  const line = (f: Finding) => findingLine({ ...f, kept: null }, { setup: plan.to, shop: at.shop, parts: at.parts })
  const stop = at.shop.classes.get(hung.station.classKey)
  const standMinor = stop ? (cost.minutes / 60) * (stop.labourMinorPerHour + stop.stopMinorPerHour) : 0
  return {
    stationId: hung.station.id,
    name: hung.station.name,
    fromWire: plan.from.wire?.name ?? null,
    swaps: plan.swaps.map((s) => ({
      kindKey: s.kindKey,
      from: briefOf(s.from?.id),
      to: s.to && brief(s.to),
      because: line(s.because),
      isKept: s.isKept,
    })),
    turns: plan.turns,
    unread: plan.unread,
    outletGuide: plan.outletGuide,
    stays: plan.stays.flatMap((x) => briefOf(x.id) ?? []),
    unknown: plan.unknown,
    settings: plan.settings,
    left: plan.left.map(line),
    steps: steps.map((s) => stepLine(s, { own: at.own, by: p.by, choices: at.shop.choices })),
    cost: {
      ...cost,
      wireMinor: at.isMoney ? cost.wireMinor : null,
      gasMinor: at.isMoney ? cost.gasMinor : null,
      standMinor: at.isMoney ? standMinor : null,
    },
  }
}

/** One list for all guns: what to take from the shelf. */
function partsList(planned: readonly Planned[]): ChangeAnswer['parts'] {
  const wanted = new Map<string, { part: Stocked; wanted: number }>()
  for (const { plan } of planned)
    for (const { to } of plan.swaps) {
      if (!to) continue
      const line = wanted.get(to.id) ?? { part: to, wanted: 0 }
      line.wanted++
      wanted.set(to.id, line)
    }
  return [...wanted.values()]
    .sort((a, b) => (a.part.code < b.part.code ? -1 : 1))
    .map(({ part, wanted: n }) => ({ ...brief(part), wanted: n }))
}
