import { isDeepStrictEqual } from 'node:util'
import { eq, inArray, max } from 'drizzle-orm'
import { makeId, type WireId } from '@core/ids/id.ts'
import { type Fact } from '@core/ledger/event.ts'
import { part, station, wire } from '@server/db/schema.ts'
import { knownKeys } from '@server/ledger/lines.ts'
import { standBeside } from '@server/shop/beside.ts'
import { ensureArea, insertStations, type MadeStation } from '@server/shop/places.ts'
import { type SaidAct, type Writing } from '@server/write/act.ts'
import { shopLine } from '@server/write/changing.ts'
import { carrierAt, placesByName, type Place } from '@server/write/place.ts'
import { shortHash } from './key.ts'
import { type PlacePlan } from './places.ts'

/** Places that are not there yet, and the parts on them. */
export async function writePlaces(w: Writing, { plan }: { plan: PlacePlan }): Promise<void> {
  const { tx } = w
  const shop = await w.shop()
  const names = new Set(shop.stations.map((s) => s.name.toLowerCase()))
  const [last] = await tx.select({ order: max(station.walkOrder) }).from(station)
  const rows = []
  const wires = await makeWires(w, plan)
  for (const place of plan.places.filter((p) => !names.has(p.name.toLowerCase()))) {
    const areaId = await ensureArea(w, { name: place.areaName })
    const wireId = place.wireId ?? wires.get(place.newWire?.name ?? '')
    const except = {
      ...(wireId ? { wireId } : {}),
      ...(place.cableM ? { cableM: place.cableM } : {}),
      ...(isTold(place.cell) ? { cell: place.cell } : {}),
    }
    rows.push({
      name: place.name,
      areaId,
      placeWord: place.classKey === 'cell' ? ('cell' as const) : ('booth' as const),
      classKey: place.classKey ?? 'booth',
      walkMinutes: 1,
      walkOrder: (last?.order ?? 0) + rows.length + 1,
      except,
    })
  }
  const made = await insertStations(w, { rows, kinds: shop.kinds })
  await tellCells(w, plan, made)
  await sayFits(w, plan, made)
}

const isTold = (cell: object): boolean => Object.keys(cell).length > 0
/** Cells that were there already are told what the sheet adds; and a cutter or reamer of any has a blade from here on. */
async function tellCells(w: Writing, plan: PlacePlan, made: readonly MadeStation[]): Promise<void> {
  const told = new Map(plan.places.flatMap((p) => (isTold(p.cell) ? [[p.name.toLowerCase(), p.cell] as const] : [])))
  if (told.size === 0) return
  const rows = await w.tx.select().from(station)
  const isNew = new Set(made.map((m) => m.stationId))
  for (const row of rows) {
    const cell = told.get(row.name.toLowerCase())
    if (!cell || row.classKey !== 'cell') continue
    const except = { ...row.except, cell: { ...row.except.cell, ...cell } }
    if (!isNew.has(row.id)) {
      if (isDeepStrictEqual(except, row.except)) continue
      await w.tx.update(station).set({ except }).where(eq(station.id, row.id))
      w.say({ kind: 'shop', lines: [shopLine(w.deps, { of: 'place', name: row.name })] })
    }
    await standBeside(w, row.id, cell)
    w.touch({ stationIds: new Set([row.id]) })
    w.reshaped()
  }
}

/** Wires of the trade that the sheet speaks of and the shop has not. */
async function makeWires({ tx, deps }: Writing, plan: PlacePlan): Promise<ReadonlyMap<string, WireId>> {
  const made = new Map<string, WireId>()
  for (const { newWire } of plan.places) {
    if (!newWire || made.has(newWire.name)) continue
    const id = makeId('wire', deps.now(), deps.random)
    await tx.insert(wire).values({ id, ...newWire })
    made.set(newWire.name, id)
  }
  return made
}

/** A part in place with the day it went on. One that the log has already, same day, is not logged twice. */
async function sayFits(w: Writing, plan: PlacePlan, made: readonly MadeStation[]): Promise<void> {
  const { tx } = w
  const shop = await w.shop()
  const placeByName = new Map([...(await placesByName(tx, shop)), ...made.map(asPlace)])
  const codes = [...new Set(plan.fits.flatMap((f) => f.partCode ?? []))]
  const parts = codes.length === 0 ? [] : await tx.select().from(part).where(inArray(part.code, codes))
  const partIdOf = new Map(parts.map((p) => [p.code, p.id]))
  const acts = new Map<string, SaidAct>()
  for (const fit of plan.fits) {
    const place = placeByName.get(fit.place.toLowerCase())
    if (!place) throw new Error(`sayFits: the place ${fit.place} was not made`)
    const key = shortHash(`${place.stationId} ${fit.kind.key} ${fit.fittedMs}`)
    const fact: Fact = {
      kind: 'fitted',
      carrierId: carrierAt(place, fit.kind.key, shop),
      position: fit.kind.key,
      partId: partIdOf.get(fit.partCode ?? '') ?? null,
      outReason: 'notSaid',
      count: 1,
      entryAge: 'new',
    }
    const when = { happenedMs: fit.fittedMs, precision: 'day' as const }
    acts.set(key, { kind: 'sheet', key, lines: [{ fact, ...when, stationId: place.stationId }] })
  }
  const known = await knownKeys(tx, 'sheet', [...acts.keys()])
  for (const [key, act] of acts) if (!known.has(key)) w.say(act)
}

/** A place made just now: what hangs there is said in the same act, and not projected yet. */
const asPlace = ({ name, stationId, stationCarrierId, headId, gunId }: MadeStation): [string, Place] => [
  name.toLowerCase(),
  { stationId, stationCarrierId, now: { headId, gunId, neckId: null } },
]
