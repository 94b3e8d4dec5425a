import { isDeepStrictEqual } from 'node:util'
import { asc, eq } from 'drizzle-orm'
import { type z } from 'zod'
import { bayFrom, type BayDraft, type DraftPart } from '@core/catalogue/bay.ts'
import { makeId, type FamilyId, type Id, type PartId, type WireId } from '@core/ids/id.ts'
import { isSameSize } from '@core/rightparts/facts.ts'
import { UNTOLD_FAMILY, UNTOLD_PART } from '@core/rightparts/untold.ts'
import { NOTHING_BUILT, type Built } from '@core/shop/built.ts'
import { type bayRequest } from '@contract/shop.ts'
import { area, feederType, fitFamily, part, site, station, wire } from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { changing } from '@server/write/changing.ts'
import { headsAt } from './change.ts'

/**
 * A bay from seven answers, in one act: what the answers speak of is made where the shop has nothing like it, and the bay is built of it. What was
 * said before of a question that is not answered now stays.
 */
export const saveBay = (deps: Deps, who: Who, r: z.infer<typeof bayRequest>) => {
  let name = ''
  return changing(deps, who, {
    key: r.key,
    change: () => ({ of: 'area', name }),
    work: async (tx) => {
      const [row] = await tx.select().from(area).where(eq(area.id, r.areaId)).for('update')
      if (!row) throw new DomainError('not-found', 'There is no such area.')
      name = row.name
      const [of] = await tx.select({ units: site.units }).from(site)
      const draft = bayFrom(r.answers, of?.units ?? 'metric')
      const before = { ...NOTHING_BUILT, ...row.built }
      const built = { ...before, ...(await builtFrom(tx, { draft, before, deps })) }
      if (isDeepStrictEqual(built, row.built)) return {}
      await tx.update(area).set({ built }).where(eq(area.id, r.areaId))
      const stations = await tx
        .select({ id: station.id })
        .from(station)
        .where(eq(station.areaId, r.areaId))
        .orderBy(asc(station.walkOrder))
      return headsAt(
        tx,
        stations.map((s) => s.id),
      )
    },
  })
}

interface Making {
  draft: BayDraft
  before: Built
  deps: Pick<Deps, 'now' | 'random'>
}
async function builtFrom(tx: Tx, at: Making): Promise<Partial<Built>> {
  const { draft, before, deps } = at
  const wireId = await wireOf(tx, at)
  const familyId = await familyOf(tx, at)
  const feederTypeId = await feederOf(tx, at)
  const parts: Built['parts'] = { ...before.parts }
  for (const p of draft.parts) parts[p.kindKey] = await partOf(tx, { part: p, familyId, deps })
  // A speed that somebody has told is better than a guess.
  const wireSpeedMPerMin = before.wireSpeedMPerMin ?? draft.built.wireSpeedMPerMin
  const told = { ...draft.built, wireSpeedMPerMin, wireId, familyId, feederTypeId }
  return { ...Object.fromEntries(Object.entries(told).filter(([, v]) => v !== null)), parts }
}

async function wireOf(tx: Tx, { draft, deps }: Making): Promise<WireId | null> {
  const wanted = draft.wire
  if (!wanted) return null
  const all = await tx.select().from(wire)
  const same = all.find(
    (w) =>
      w.construction === wanted.construction &&
      isSameSize(w.diameterMm, wanted.diameterMm) &&
      (w.fit?.alloy ?? wanted.fit.alloy) === wanted.fit.alloy &&
      (w.fit?.isSelfShielded ?? wanted.fit.isSelfShielded) === wanted.fit.isSelfShielded,
  )
  if (same) return same.id
  const id = makeId('wire', deps.now(), deps.random)
  await tx.insert(wire).values({ id, ...wanted })
  return id
}

async function familyOf(tx: Tx, { draft, deps }: Making): Promise<FamilyId | null> {
  const wanted = draft.family
  if (!wanted) return null
  const all = await tx.select().from(fitFamily).for('update')
  const same = all.find((f) => f.name.toLowerCase() === wanted.name.toLowerCase())
  if (!same) {
    const id = makeId('family', deps.now(), deps.random)
    await tx.insert(fitFamily).values({ id, ...wanted })
    return id
  }
  // How its nozzle goes on is told once: what the shop has said of it already stays.
  if (wanted.fit.nozzleStyle && !same.fit?.nozzleStyle)
    await tx
      .update(fitFamily)
      .set({ fit: { ...UNTOLD_FAMILY, ...same.fit, nozzleStyle: wanted.fit.nozzleStyle } })
      .where(eq(fitFamily.id, same.id))
  return same.id
}

async function feederOf(tx: Tx, { draft, deps }: Making): Promise<Id<'feederType'> | null> {
  const wanted = draft.feeder
  if (!wanted) return null
  const [same] = await tx.select().from(feederType).where(eq(feederType.name, wanted.name))
  if (same) return same.id
  const id = makeId('feederType', deps.now(), deps.random)
  await tx.insert(feederType).values({ id, ...wanted })
  return id
}

/** What screws on belongs to its family; liner and rolls are asked for by wire alone. */
const OF_FAMILY = new Set(['tip', 'nozzle'])
async function partOf(
  tx: Tx,
  at: { part: DraftPart; familyId: FamilyId | null; deps: Making['deps'] },
): Promise<PartId> {
  const { kindKey, name, sizeMm, fit } = at.part
  const familyId = OF_FAMILY.has(kindKey) ? at.familyId : null
  const all = await tx.select().from(part).where(eq(part.kindKey, kindKey))
  const isLike = (p: (typeof all)[number]) => {
    const has = { ...UNTOLD_PART, ...p.fit }
    const isSized = sizeMm === null || (p.wireSizeMm !== null && isSameSize(p.wireSizeMm, sizeMm))
    const isKind = (['linerKind', 'nozzleStyle'] as const).every((k) => fit[k] === null || has[k] === fit[k])
    const isAlu = (has.isForAluminium ?? false) === (fit.isForAluminium ?? false)
    return isSized && isKind && isAlu && (familyId === null || p.familyId === familyId)
  }
  const same = all.find(isLike)
  if (same) return same.id
  const id = makeId('part', at.deps.now(), at.deps.random)
  await tx.insert(part).values({ id, code: await freeCode(tx, name), name, kindKey, familyId, wireSizeMm: sizeMm, fit })
  return id
}

/** Its name stands in for its number until somebody has the bag in hand; a second of that name gets a count. */
async function freeCode(tx: Tx, name: string): Promise<string> {
  const taken = new Set((await tx.select({ code: part.code }).from(part)).map((p) => p.code.toLowerCase()))
  for (let n = 1; ; n++) {
    const code = n === 1 ? name : `${name} (${n})`
    if (!taken.has(code.toLowerCase())) return code
  }
}
