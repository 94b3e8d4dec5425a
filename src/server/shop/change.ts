import { ridesOnNeck, type CarrierType, type KindKey, type LifeUnit } from '@core/path/columns.ts'
import { and, asc, eq, inArray } from 'drizzle-orm'
import { type z } from 'zod'
import { makeId, type PartId, type StationId } from '@core/ids/id.ts'
import { type RuleChange } from '@core/ledger/shopchange.ts'
import { isOptionalKind } from '@core/path/kinds.ts'
import { NOTHING_BUILT } from '@core/shop/built.ts'
import { parseWireSize } from '@core/units/wiresize.ts'
import {
  type areaRequest,
  type classRequest,
  type limitsRequest,
  type partRequest,
  type ruleRequest,
  type shiftsRequest,
  type siteRequest,
  type stationRequest,
  type wireRequest,
} from '@contract/shop.ts'
import { carriersAt } from '@server/gunnow/setup.ts'
import {
  area,
  carrier,
  fitFamily,
  holiday,
  houseRule,
  part,
  partKind,
  shiftPattern,
  site,
  station,
  stationClass,
  stationNow,
  wire,
} from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { nothingTouched, type Touched } from '@server/ledger/lines.ts'
import { isZone } from '@server/time/wall.ts'
import { type Writing } from '@server/write/act.ts'
import { recount, toBeRecounted } from '@server/projection/recount.ts'
import { changing, OK, shopLine } from '@server/write/changing.ts'
import { standBeside } from './beside.ts'
import { mustBeClass } from './places.ts'

export const saveSite = (deps: Deps, who: Who, r: z.infer<typeof siteRequest>) => {
  if (!isZone(r.zone))
    throw new DomainError('bad-request', `"${r.zone}" is no time zone this machine knows.`, [
      'Write it like Europe/Oslo.',
    ])
  return changing(deps, who, {
    key: r.key,
    change: { of: 'site', name: r.name, zone: r.zone },
    work: async (tx) => {
      await tx.update(site).set({
        name: r.name,
        zone: r.zone,
        units: r.units,
        currency: r.currency,
        ...(r.gasMinorPerM3 === undefined ? {} : { gasMinorPerM3: r.gasMinorPerM3 }),
      })
      // Every clock runs differently from here on.
      await toBeRecounted(tx, r.key)
    },
    then: recount,
  })
}

export async function headsAt(tx: Tx, stationIds: readonly StationId[]): Promise<Touched> {
  const nows =
    stationIds.length === 0
      ? []
      : await tx
          .select()
          .from(stationNow)
          .where(inArray(stationNow.stationId, [...stationIds]))
  return {
    ...nothingTouched(),
    carrierIds: new Set(nows.flatMap((n) => n.headId ?? [])),
    stationIds: new Set(stationIds),
  }
}

export const saveArea = (deps: Deps, who: Who, r: z.infer<typeof areaRequest>) => {
  let name = r.name ?? ''
  return changing(deps, who, {
    key: r.key,
    change: () => ({ of: 'area', name }),
    work: async (tx) => {
      const [row] = await tx.select().from(area).where(eq(area.id, r.areaId)).for('update')
      if (!row) throw new DomainError('not-found', 'There is no such area.')
      name = r.name ?? row.name
      await tx
        .update(area)
        .set({ ...(r.name ? { name: r.name } : {}), built: { ...NOTHING_BUILT, ...row.built, ...r.built } })
        .where(eq(area.id, r.areaId))
      const stations = await tx
        .select()
        .from(station)
        .where(eq(station.areaId, r.areaId))
        .orderBy(asc(station.walkOrder))
      if (r.walk) await reorder(tx, r.walk, stations)
      return headsAt(
        tx,
        stations.map((s) => s.id),
      )
    },
  })
}

/** The walk's order keeps the places it had on the whole walk; only who stands where in them changes. */
async function reorder(
  tx: Tx,
  walk: readonly StationId[],
  stations: readonly { id: StationId; walkOrder: number }[],
): Promise<void> {
  const slots = stations.map((s) => s.walkOrder).sort((a, b) => a - b)
  const order = [
    ...walk.filter((id) => stations.some((s) => s.id === id)),
    ...stations.map((s) => s.id).filter((id) => !walk.includes(id)),
  ]
  for (const [i, id] of order.entries())
    await tx
      .update(station)
      .set({ walkOrder: slots[i] ?? i })
      .where(eq(station.id, id))
}

export const saveStation = (deps: Deps, who: Who, r: z.infer<typeof stationRequest>) => {
  let name = r.name ?? ''
  return changing(deps, who, {
    key: r.key,
    change: () => ({ of: 'place', name }),
    work: async (tx, w) => {
      const [row] = await tx.select().from(station).where(eq(station.id, r.stationId)).for('update')
      if (!row) throw new DomainError('not-found', 'There is no such place.')
      name = r.name ?? row.name
      if (r.classKey) await mustBeClass(tx, r.classKey)
      const values = {
        name: r.name,
        placeWord: r.placeWord,
        classKey: r.classKey,
        walkMinutes: r.walkMinutes,
        stopGroup: r.stopGroup,
        except: r.except ? { ...row.except, ...r.except } : undefined,
      }
      const given = Object.fromEntries(Object.entries(values).filter(([, v]) => v !== undefined))
      if (Object.keys(given).length > 0) await tx.update(station).set(given).where(eq(station.id, r.stationId))
      if (r.absent ?? r.extra) await setPositions(tx, { w, r })
      if (r.except?.cell) await standBeside(w, r.stationId, r.except.cell)
      const touched = await headsAt(tx, [r.stationId])
      const [own] = await tx.select({ id: carrier.id }).from(carrier).where(eq(carrier.stationId, r.stationId))
      if (own) touched.carrierIds.add(own.id)
      return touched
    },
  })
}

async function setPositions(tx: Tx, at: { w: Writing; r: z.infer<typeof stationRequest> }): Promise<void> {
  const { stationId, absent, extra } = at.r
  const shop = await at.w.shop()
  const [now] = await tx.select().from(stationNow).where(eq(stationNow.stationId, stationId))
  const ids = carriersAt(stationId, now, shop)
  const rows = await tx.select().from(carrier).where(inArray(carrier.id, ids))
  const hasNeck = Boolean(now?.neckId)
  for (const row of rows) {
    const has = (key: KindKey) => row.positions.includes(key)
    const isOn = (key: KindKey) =>
      isOptionalKind(key) ? (extra?.includes(key) ?? has(key)) : absent ? !absent.includes(key) : has(key)
    const positions = shop.kinds.filter((k) => isOn(k.key) && ridesHere(k, row.type, hasNeck)).map((k) => k.key)
    const lanes = row.positions.filter((p) => p.includes('#'))
    await tx
      .update(carrier)
      .set({ positions: [...positions, ...lanes] })
      .where(eq(carrier.id, row.id))
  }
}

/** What of a gun rides on its neck, where necks go round. */
function ridesHere({ key, rides }: { key: KindKey; rides: CarrierType }, type: CarrierType, hasNeck: boolean): boolean {
  const isNecks = hasNeck && rides === 'gun' && ridesOnNeck(key)
  return isNecks ? type === 'neck' : rides === type
}

/** A rule for all places that have none of their own. */
const ANY_CLASS = '*'

export function saveRule(deps: Deps, who: Who, r: z.infer<typeof ruleRequest>) {
  const said: RuleChange = {
    ...{ of: 'houseRule', kindKey: r.kindKey, classKey: r.classKey, lookDays: r.lookDays },
    ...{ changeAt: r.changeLimit, cleanAt: r.cleanLimit, school: null, lives: null },
  }
  return changing(deps, who, {
    key: r.key,
    change: () => said,
    work: async (tx) => {
      const [kind] = await tx.select().from(partKind).where(eq(partKind.key, r.kindKey))
      if (!kind) throw new DomainError('not-found', `There is no part called "${r.kindKey}".`)
      said.unit = kind.lifeUnit
      await mustBeClass(tx, r.classKey, ANY_CLASS)
      const isHere = and(eq(houseRule.kindKey, r.kindKey), eq(houseRule.classKey, r.classKey))
      const [before] = await tx.select().from(houseRule).where(isHere).for('update')
      const values = {
        changeLimit: r.changeLimit,
        cleanLimit: kind.canClean ? r.cleanLimit : null,
        lookDays: r.lookDays,
        // A limit typed over one that lives had told rests on them no longer.
        basis: before?.changeLimit === r.changeLimit ? before.basis : null,
        chosenById: who.person?.id ?? null,
        chosenMs: deps.now(),
      }
      await tx
        .insert(houseRule)
        .values({ id: makeId('rule', deps.now(), deps.random), kindKey: r.kindKey, classKey: r.classKey, ...values })
        .onDuplicateKeyUpdate({ set: values })
    },
  })
}

/** Several limits at once, each a line of its own: what is there already of another column is left. */
export const saveLimits = (deps: Deps, who: Who, r: z.infer<typeof limitsRequest>) => {
  const units = new Map<string, LifeUnit>()
  const lineOf = (l: (typeof r.limits)[number]): RuleChange => {
    const unit = units.get(l.kindKey)
    return {
      ...{ of: 'houseRule', kindKey: l.kindKey, classKey: r.classKey, changeAt: l.changeLimit },
      ...{ cleanAt: null, lookDays: l.lookDays, school: null, lives: null, ...(unit ? { unit } : {}) },
    }
  }
  const [first, ...rest] = r.limits
  if (!first) return Promise.resolve(OK)
  return changing(deps, who, {
    key: r.key,
    change: () => lineOf(first),
    work: async (tx, w) => {
      const known = await tx.select({ key: partKind.key, unit: partKind.lifeUnit }).from(partKind)
      known.forEach((k) => units.set(k.key, k.unit))
      const stranger = r.limits.find((l) => !known.some((k) => k.key === l.kindKey))
      if (stranger) throw new DomainError('not-found', `There is no part called "${stranger.kindKey}".`)
      await mustBeClass(tx, r.classKey, ANY_CLASS)
      for (const l of r.limits) {
        const given = Object.fromEntries(
          Object.entries({ changeLimit: l.changeLimit, lookDays: l.lookDays }).filter(([, v]) => v !== null),
        )
        const values = { ...given, basis: null, chosenById: who.person?.id ?? null, chosenMs: deps.now() }
        const id = makeId('rule', deps.now(), deps.random)
        await tx
          .insert(houseRule)
          .values({ id, kindKey: l.kindKey, classKey: r.classKey, ...values })
          .onDuplicateKeyUpdate({ set: values })
      }
      for (const l of rest) w.say({ kind: 'shop', lines: [shopLine(deps, lineOf(l))] })
    },
  })
}

export const saveClass = (deps: Deps, who: Who, r: z.infer<typeof classRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'rates', classKey: r.classKey },
    work: async (tx) => {
      await mustBeClass(tx, r.classKey)
      await tx
        .update(stationClass)
        .set({
          labourMinorPerHour: r.labourMinorPerHour,
          stopMinorPerHour: r.stopMinorPerHour,
          ...(r.scrapMinorPerPiece === undefined ? {} : { scrapMinorPerPiece: r.scrapMinorPerPiece }),
        })
        .where(eq(stationClass.key, r.classKey))
    },
  })

function sizeOf(text: string | null | undefined): number | null {
  if (!text) return null
  const size = parseWireSize(text)
  if (!size.ok) throw new DomainError('bad-request', `Size: ${size.reason}.`)
  return size.diameterMm
}

/** A family that is there; rolls with a number on each face, so that anybody can tell which way round they are. */
async function mustMakeSense(tx: Tx, r: z.infer<typeof partRequest>): Promise<void> {
  const wanted = [r.familyId, ...(r.fit?.alsoFamilyIds ?? [])].filter((id) => id !== null && id !== undefined)
  const known =
    wanted.length === 0
      ? []
      : await tx.select({ id: fitFamily.id }).from(fitFamily).where(inArray(fitFamily.id, wanted))
  if (wanted.some((id) => !known.some((k) => k.id === id)))
    throw new DomainError('not-found', `${r.code}: there is no such fit family.`, ['Make the family first.'])
  for (const groove of r.fit?.grooves ?? []) sizeOf(`${groove.sizeMm} mm`)
}

export const savePart = (deps: Deps, who: Who, r: z.infer<typeof partRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'part', name: r.code },
    work: async (tx, w) => {
      const [kind] = await tx.select().from(partKind).where(eq(partKind.key, r.kindKey))
      if (!kind) throw new DomainError('not-found', `There is no part called "${r.kindKey}".`)
      const values = {
        name: r.name,
        kindKey: r.kindKey,
        familyId: r.familyId ?? null,
        wireSizeMm: sizeOf(r.wireSize),
        priceMinor: r.priceMinor ?? null,
        ...(r.fit === undefined ? {} : { fit: r.fit }),
      }
      await mustMakeSense(tx, r)
      const isThis = r.id ? eq(part.id, r.id) : eq(part.code, r.code)
      const [found] = await tx.select({ id: part.id }).from(part).where(isThis).for('update')
      if (r.id && !found) throw new DomainError('not-found', 'That part is not there any more.')
      const id = found?.id ?? makeId('part', deps.now(), deps.random)
      if (r.id)
        await tx
          .update(part)
          .set({ code: r.code, ...values })
          .where(eq(part.id, id))
      // Of two desks that say the same code at once, the second finds the first one's row.
      else
        await tx
          .insert(part)
          .values({ id, code: r.code, ...values })
          .onDuplicateKeyUpdate({ set: values })
      if (r.onHand === null || r.onHand === undefined) return
      const fact = { kind: 'counted', partId: id as PartId, quantity: r.onHand } as const
      w.say({ kind: 'supply', lines: [{ fact, stationId: null, happenedMs: deps.now() }] })
    },
  })

export const saveWire = (deps: Deps, who: Who, r: z.infer<typeof wireRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'wire', name: r.name },
    work: async (tx) => {
      const values = {
        construction: r.construction,
        diameterMm: sizeOf(r.size) ?? 0,
        densityGPerCm3: r.densityGPerCm3,
        spoolKg: r.spoolKg,
        tareKg: r.tareKg ?? null,
        coreMm: r.coreMm ?? null,
        fullMm: r.fullMm ?? null,
        widthMm: r.widthMm ?? null,
        ...(r.fit === undefined ? {} : { fit: r.fit }),
      }
      if (values.coreMm !== null && values.fullMm !== null && values.fullMm <= values.coreMm)
        throw new DomainError('bad-request', 'A full spool is wider across than its core.', ['Mend one of the two.'])
      await tx
        .insert(wire)
        .values({ id: makeId('wire', deps.now(), deps.random), name: r.name, ...values })
        .onDuplicateKeyUpdate({ set: values })
      // Every clock runs differently from here on.
      await toBeRecounted(tx, r.key)
    },
    then: recount,
  })

export const saveShifts = (deps: Deps, who: Who, r: z.infer<typeof shiftsRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'shifts', count: r.shifts.length },
    work: async (tx) => {
      const [bay] = r.areaId === null ? [] : await tx.select({ id: area.id }).from(area).where(eq(area.id, r.areaId))
      if (r.areaId !== null && !bay) throw new DomainError('not-found', 'There is no such area.')
      const all = await tx.select().from(shiftPattern)
      for (const old of all.filter((s) => s.areaId === r.areaId))
        await tx.delete(shiftPattern).where(eq(shiftPattern.id, old.id))
      if (r.shifts.length > 0)
        await tx
          .insert(shiftPattern)
          .values(r.shifts.map((s) => ({ id: makeId('pattern', deps.now(), deps.random), areaId: r.areaId, ...s })))
      if (r.holidays) {
        await tx.delete(holiday)
        if (r.holidays.length > 0) await tx.insert(holiday).values(r.holidays)
      }
      // Every clock runs differently from here on.
      await toBeRecounted(tx, r.key)
    },
    then: recount,
  })
