import { type FamilyId } from '@core/ids/id.ts'
import { type KindKey } from '@core/path/columns.ts'
import { parseNumber } from '@core/units/number.ts'
import { readFaces, readWireRange, readWord } from '@core/ingest/fitwords.ts'
import { readNote } from '@core/ingest/notes.ts'
import { kindFromWord } from '@core/path/kinds.ts'
import {
  GUIDE_MATERIALS,
  LINER_HOLDS,
  LINER_KINDS,
  METALS,
  NOZZLE_STYLES,
  PROOFS,
  type FamilyFit,
  type PartFit,
} from '@core/rightparts/facts.ts'
import { UNTOLD_FAMILY, UNTOLD_PART } from '@core/rightparts/untold.ts'
import { parseWireSize } from '@core/units/wiresize.ts'
import { type BadRow } from '@contract/ingest.ts'
import { type KindRow, type ShopKinds, type ShopFit } from '@server/shopmodel/model.ts'
import { badCell, cellOf, type Sheet } from './sheet.ts'

export interface PlannedPart {
  code: string
  name: string
  kindKey: KindKey
  familyId: FamilyId | null
  wireSizeMm: number | null
  priceMinor: number | null
  onHand: number | null
  fit: PartFit
}
export interface PartPlan {
  parts: PlannedPart[]
  bad: BadRow[]
  /** Freight, gloves, totals: lines whose words name no part of a gun. */
  leftOut: { row: number; text: string }[]
  /** Words for a kind of part that nobody has explained yet. */
  words: string[]
}
export interface FamilyPlan {
  families: { name: string; fit: FamilyFit }[]
  bad: BadRow[]
}

/** Reads one cell: what it says, or null where it is empty; a cell that cannot be read is put on the list. */
type Cell = <T>(key: string, read: (text: string) => { ok: true; value: T } | { ok: false; reason: string }) => T | null

function cellReader(sheet: Sheet, at: { row: readonly string[]; number: number; bad: BadRow[] }): Cell {
  return (key, read) => {
    const text = cellOf(sheet, at.row, key)
    if (text === '') return null
    const said = read(text)
    if (said.ok) return said.value
    at.bad.push(badCell(sheet, at.row, { key, why: said.reason, number: at.number }))
    return null
  }
}

const number = (least: number) => (text: string) => {
  const value = parseNumber(text)
  return value !== null && value >= least
    ? { ok: true as const, value }
    : { ok: false as const, reason: `write a number, ${least} or more` }
}
const size = (text: string) => {
  const read = parseWireSize(text)
  return read.ok ? { ok: true as const, value: read.diameterMm } : read
}
function yesNo(text: string): { ok: true; value: boolean } | { ok: false; reason: string } {
  if (/^(yes|y|x|1|true)$/i.test(text)) return { ok: true, value: true }
  return /^(no|n|0|false)$/i.test(text) ? { ok: true, value: false } : { ok: false, reason: 'write yes or no' }
}

/** Parts with what they fit. A family or kind nobody has entered is named, and nothing is taken. */
export function planParts(sheet: Sheet, shop: ShopKinds & ShopFit): PartPlan {
  const plan: PartPlan = { parts: [], bad: [], leftOut: [], words: [] }
  const isKindColumn = sheet.columns['kind'] !== undefined
  const familyBy = new Map([...shop.families].map(([id, name]) => [name.toLowerCase(), id as FamilyId]))
  sheet.rows.forEach((row, i) => {
    const cell = cellReader(sheet, { row, number: sheet.numbers[i] ?? 0, bad: plan.bad })
    const before = plan.bad.length
    const named = cellOf(sheet, row, 'partName')
    const byName = isKindColumn ? null : kindNamed(named || cellOf(sheet, row, 'part'), shop.kinds)
    if (!isKindColumn && (!byName || cellOf(sheet, row, 'part') === ''))
      return void plan.leftOut.push({ row: sheet.numbers[i] ?? 0, text: row.filter((c) => c.trim()).join(' · ') })
    const code = cell('part', partCode)
    const told = kindSaid(cell, shop, plan)
    const kind = told ?? byName
    const familyId = cell('family', (t) => {
      const id = familyBy.get(t.toLowerCase())
      return id ? { ok: true, value: id } : { ok: false, reason: 'there is no such fit family; make it first' }
    })
    const price = priceEach(cell)
    const onHand = cell('onHand', number(0))
    const wireSizeMm = cell('size', size) ?? (byName ? sizeNamed(named, byName.key) : null)
    const fit = partFit(cell, kind?.key ?? null)
    const missing = [!code && 'part', !kind && 'kind'].filter((k): k is string => Boolean(k))
    for (const key of missing)
      if (cellOf(sheet, row, key) === '')
        plan.bad.push(badCell(sheet, row, { key, why: 'every part needs one', number: sheet.numbers[i] ?? 0 }))
    if (!code || !kind || plan.bad.length > before) return
    plan.parts.push({
      code,
      name: (cellOf(sheet, row, 'partName') || `${kind.name} ${code}`).slice(0, 80),
      kindKey: kind.key,
      familyId,
      wireSizeMm,
      priceMinor: price === null ? null : Math.round(price * 100),
      onHand: onHand === null ? null : Math.round(onHand),
      fit,
    })
  })
  return plan
}

const partCode = (t: string) =>
  t.length <= 40 ? { ok: true as const, value: t } : { ok: false as const, reason: 'a code has 40 letters at most' }
function kindSaid(cell: Cell, shop: ShopKinds, plan: PartPlan): KindRow | null {
  return cell('kind', (t) => {
    const found = kindFromWord(t, shop.kinds)
    if (!found) plan.words.push(t)
    return found ? { ok: true, value: found } : { ok: false, reason: 'there is no kind of part called that' }
  })
}

/** "0,64 €" and "$ 12.80 per 20": what one costs. */
function priceEach(cell: Cell): number | null {
  const price = cell('price', (t) => number(0)(t.replace(/[€$£¥]|\b[A-Z]{3}\b/g, '')))
  const per = cell('pricePer', number(1))
  return price === null ? null : price / (per ?? 1)
}

/** The one kind of part that a bill's words name; of "tip and nozzle set" there are two, and nobody's to guess. */
function kindNamed(text: string, kinds: ShopKinds['kinds']): KindRow | null {
  const keys = [...new Set(readNote(text, kinds).acts.map((a) => a.kindKey))]
  return keys.length === 1 ? (kinds.find((k) => k.key === keys[0]) ?? null) : null
}
const SIZED: ReadonlySet<KindKey> = new Set(['tip'])
/** "Contact tip M6 x 28, 1.0": the size of wire in a tip's name, if just one number in it can be one. */
function sizeNamed(text: string, kindKey: KindKey): number | null {
  if (!SIZED.has(kindKey)) return null
  const sizes = text.split(/[\s;/]+|,\s/).flatMap((word) => {
    const read = /[.,]/.test(word) ? parseWireSize(word.replace(/[,;]$/, '')) : ({ ok: false } as const)
    return read.ok ? [read.diameterMm] : []
  })
  return sizes.length === 1 ? (sizes[0] ?? null) : null
}

const OF_METAL: ReadonlySet<KindKey> = new Set(['tip', 'nozzle', 'diffuser', 'neck'])
function partFit(cell: Cell, kindKey: KindKey | null): PartFit {
  const isLiner = kindKey === 'liner' || kindKey === 'jump'
  const isGuide = kindKey === 'inlet' || kindKey === 'outlet'
  return {
    ...UNTOLD_PART,
    isForAluminium: cell('forAluminium', yesNo),
    proof: cell('proof', (t) => readWord(t, PROOFS)),
    wireMm: cell('wires', readWireRange),
    linerKind: isLiner ? cell('made', (t) => readWord(t, LINER_KINDS)) : null,
    material: isGuide ? cell('made', (t) => readWord(t, GUIDE_MATERIALS)) : null,
    metal: kindKey && OF_METAL.has(kindKey) ? cell('made', (t) => readWord(t, METALS)) : null,
    ratedAmps: kindKey && OF_METAL.has(kindKey) ? cell('rated', number(1)) : null,
    lengthM: cell('partLength', number(0.05)),
    grooves: kindKey === 'rolls' ? cell('faces', readFaces) : null,
  }
}

/** Families with how their parts seat. */
export function planFamilies(sheet: Sheet): FamilyPlan {
  const plan: FamilyPlan = { families: [], bad: [] }
  sheet.rows.forEach((row, i) => {
    const at = { row, number: sheet.numbers[i] ?? 0, bad: plan.bad }
    const cell = cellReader(sheet, at)
    const before = plan.bad.length
    const name = cellOf(sheet, row, 'family').slice(0, 40)
    if (!name)
      plan.bad.push(badCell(sheet, row, { key: 'family', why: 'every family needs a name', number: at.number }))
    const plain = (text: string) => ({ ok: true as const, value: text.slice(0, 60) })
    const standsOut = cell('standsOut', number(0))
    const fit: FamilyFit = {
      ...UNTOLD_FAMILY,
      thread: cell('thread', plain),
      pin: cell('pin', plain),
      linerHeldBy: cell('linerHeld', (t) => readWord(t, LINER_HOLDS)),
      linerRule: standsOut === null ? null : 'A',
      seatDepthMm: standsOut,
      nozzleStyle: cell('nozzle', (t) => readWord(t, NOZZLE_STYLES)),
      neckMm: cell('neck', number(1)),
    }
    if (plan.bad.length === before) plan.families.push({ name, fit })
  })
  return plan
}
