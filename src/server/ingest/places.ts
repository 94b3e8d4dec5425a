import { parseDay } from '@contract/when.ts'
import { type WireId } from '@core/ids/id.ts'
import { parseNumber } from '@core/units/number.ts'
import { readCell } from '@core/ingest/cellsheet.ts'
import { kindFromWord } from '@core/path/kinds.ts'
import { readWireWords, type CatalogueWire } from '@core/catalogue/wires.ts'
import { type CellFit } from '@core/rightparts/facts.ts'
import { parseWireSize } from '@core/units/wiresize.ts'
import { type BadRow } from '@contract/ingest.ts'
import { type KindRow, type ShopModel, type ShopFit, type ShopSite, type ShopKinds } from '@server/shopmodel/model.ts'
import { dayOf, wallToMsOrNext } from '@server/time/wall.ts'
import { badCell, cellOf, type Sheet } from './sheet.ts'

export interface PlannedPlace {
  name: string
  areaName: string
  wireId: WireId | null
  /** A wire of the trade that the shop has not said yet. */
  newWire: CatalogueWire | null
  cableM: number | null
  /** What kind of place it is; null: the sheet does not say. */
  classKey: string | null
  /** How a robot’s cell is built, as far as the row tells. */
  cell: Partial<CellFit>
  row: number
}
export interface PlannedFit {
  place: string
  kind: KindRow
  partCode: string | null
  fittedMs: number
  row: number
}
export interface PlacePlan {
  places: PlannedPlace[]
  fits: PlannedFit[]
  bad: BadRow[]
  /** Words for a part that nobody has explained yet. */
  words: string[]
}

/**
 * What a sheet of places and parts asks for, row by row; every cell that can't be read is named with row, column, value and
 * why. A place may stand in several rows, one per part.
 */
export function planPlaces(sheet: Sheet, shop: ShopModel, at: { nowMs: number }): PlacePlan {
  const plan: PlacePlan = { places: [], fits: [], bad: [], words: [] }
  const seen = new Map<string, PlannedPlace>()
  sheet.rows.forEach((row, i) => {
    const bad: Bad = (key, why) => (
      plan.bad.push(badCell(sheet, row, { key, why, number: sheet.numbers[i] ?? 0 })),
      null
    )
    const place = placeOf(sheet, row, { shop, bad, number: sheet.numbers[i] ?? 0 })
    if (!place) return
    const before = seen.get(place.name.toLowerCase())
    if (before && before.areaName.toLowerCase() !== place.areaName.toLowerCase())
      return void bad('area', `${place.name} stands in ${before.areaName} in row ${before.row}; a place has one area`)
    if (!before) {
      seen.set(place.name.toLowerCase(), place)
      plan.places.push(place)
    }
    const onWord = (word: string) => void plan.words.push(word)
    const fit = fitOf(sheet, row, { shop, bad, nowMs: at.nowMs, onWord })
    if (fit) plan.fits.push({ ...fit, place: place.name, row: sheet.numbers[i] ?? 0 })
  })
  return plan
}

type Bad = (key: string, why: string) => null

function placeOf(
  sheet: Sheet,
  row: readonly string[],
  at: { shop: ShopModel; bad: Bad; number: number },
): PlannedPlace | null {
  const name = cellOf(sheet, row, 'place')
  const areaName = cellOf(sheet, row, 'area')
  if (!name) return at.bad('place', 'the place has no name; write the number painted on it')
  if (name.length > 24) return at.bad('place', `the name has ${name.length} letters; 24 at most`)
  if (!areaName) return at.bad('area', 'say which area or bay it stands in')
  const wire = wireOf(cellOf(sheet, row, 'wire'), at)
  const cableM = cableOf(cellOf(sheet, row, 'cable'), at.bad)
  // Left out, a cell takes nothing else of its row with it.
  const classKey = classOf(cellOf(sheet, row, 'placeClass'), at)
  const cell = readCell((key) => cellOf(sheet, row, key), at.shop.site.units, at.bad)
  const known = at.shop.stations.find((s) => s.name.toLowerCase() === name.toLowerCase())
  if (Object.keys(cell).length > 0 && known && known.classKey !== 'cell')
    at.bad(
      'place',
      `${known.name} is no robot’s cell here; say what it is in Our shop first, or leave those columns empty`,
    )
  if (Object.keys(cell).length > 0 && classKey !== null && classKey !== 'cell')
    at.bad(
      'placeClass',
      'the row tells how a robot’s cell is built, and this is none; write cell, or leave those columns empty',
    )
  return {
    ...{ name, areaName, ...(wire ?? UNTOLD_WIRE), cableM: cableM ?? null, row: at.number },
    ...{ cell, classKey: classKey ?? (Object.keys(cell).length > 0 ? 'cell' : null) },
  }
}

/** A kind of place by its name; null where none is told or none is called that. */
function classOf(text: string, at: { shop: ShopModel; bad: Bad }): string | null {
  if (!text) return null
  const classes = [...at.shop.classes.values()]
  const wanted = text.toLowerCase()
  const found =
    classes.find((c) => c.key === wanted || c.name.toLowerCase() === wanted) ??
    classes.find((c) => c.name.toLowerCase().includes(wanted) || wanted.includes(c.key))
  return (
    found?.key ??
    at.bad('placeClass', `no kind of place is called that; there is ${classes.map((c) => c.name).join(', ')}`)
  )
}

const UNTOLD_WIRE = { wireId: null, newWire: null }
/** A wire by its name, by its size when only one wire of the shop has it, or one of the trade's by what it is made of; undefined when refused. */
function wireOf(
  text: string,
  at: { shop: ShopFit & ShopSite; bad: Bad },
): Pick<PlannedPlace, 'wireId' | 'newWire'> | undefined {
  if (!text) return UNTOLD_WIRE
  const wires = [...at.shop.wires.values()]
  const byName = wires.find((w) => w.name.toLowerCase() === text.toLowerCase())
  if (byName) return { wireId: byName.id, newWire: null }
  const size = parseWireSize(text)
  const ofSize = size.ok ? wires.filter((w) => w.diameterMm === size.diameterMm) : []
  if (ofSize.length === 1 && ofSize[0]) return { wireId: ofSize[0].id, newWire: null }
  const ofTrade = readWireWords(text, at.shop.site.units)
  if (ofTrade) {
    const same = wires.find((w) => w.name.toLowerCase() === ofTrade.name.toLowerCase())
    return { wireId: same?.id ?? null, newWire: same ? null : ofTrade }
  }
  const known = wires.map((w) => w.name).join(', ')
  const how = 'write what it is made of and its size, like "solid steel 0.9"'
  at.bad(
    'wire',
    ofSize.length > 1
      ? `several wires have this size: ${ofSize.map((w) => w.name).join(', ')}; write the name`
      : known
        ? `no such wire; there is ${known}, or ${how}`
        : `which wire is that? ${how}`,
  )
  return undefined
}

function cableOf(text: string, bad: Bad): number | null | undefined {
  if (!text) return null
  const metres = parseNumber(text)
  if (metres === null) return void bad('cable', 'that is not a number; write metres, like 4')
  if (metres > 60)
    return void bad(
      'cable',
      `${metres} m is too long for a cable; were these ${metres > 1000 ? 'millimetres' : 'centimetres'}?`,
    )
  if (metres <= 0) return void bad('cable', 'a cable is longer than nothing')
  return metres
}

function fitOf(
  sheet: Sheet,
  row: readonly string[],
  at: { shop: ShopSite & ShopKinds; bad: Bad; nowMs: number; onWord: (word: string) => void },
): Omit<PlannedFit, 'place' | 'row'> | null {
  const word = cellOf(sheet, row, 'position')
  const code = cellOf(sheet, row, 'part')
  const when = cellOf(sheet, row, 'fitted')
  if (!word) {
    if (when || code)
      at.bad('position', 'there is a part or date, but not which part it is; write tip, liner, nozzle …')
    return null
  }
  const kind = kindFromWord(word, at.shop.kinds)
  if (!kind) at.onWord(word)
  if (!kind)
    return at.bad(
      'position',
      `no part on the wire path is called that; there is ${at.shop.kinds.map((k) => k.name).join(', ')}`,
    )
  if (!when) return null
  const day = parseDay(when, at.shop.site.units, dayOf(at.shop.site.zone, at.nowMs))
  if (!day) return at.bad('fitted', 'that is no date; write 2026-11-20')
  const fittedMs = wallToMsOrNext(at.shop.site.zone, day, '12:00')
  if (fittedMs > at.nowMs) return at.bad('fitted', 'that day is still to come')
  return { kind, partCode: code || null, fittedMs }
}
