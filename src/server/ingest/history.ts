import { type StationId } from '@core/ids/id.ts'
import { groupKey, readNote, type NoteAct, type ReadNote } from '@core/ingest/notes.ts'
import { parseNumber } from '@core/units/number.ts'
import { type BadRow, type NoteDecision } from '@contract/ingest.ts'
import { type ShopModel, type ShopPlaces } from '@server/shopmodel/model.ts'
import { wallToMsOrNext } from '@server/time/wall.ts'
import { parseWhen } from '@contract/when.ts'
import { badCell, cellOf, type Sheet } from './sheet.ts'

export interface PlannedNote {
  row: number
  stationId: StationId
  happenedMs: number
  precision: 'exact' | 'day'
  text: string
  read: ReadNote
  /** As written; only a name of somebody here is kept. */
  who: string
}
export interface HistoryPlan {
  notes: PlannedNote[]
  bad: BadRow[]
}

/** Past work as a shop wrote it down: where and when must be readable; what was done is read as far as it goes. */
export function planHistory(sheet: Sheet, shop: ShopModel, nowMs: number): HistoryPlan {
  const plan: HistoryPlan = { notes: [], bad: [] }
  const find = placeFinder(shop)
  const known = new Map<string, ReadNote>()
  const readOnce = (text: string) => {
    const kept = known.get(text) ?? readNote(text, shop.kinds)
    known.set(text, kept)
    return kept
  }
  sheet.rows.forEach((row, i) => {
    const number = sheet.numbers[i] ?? 0
    const bad = (key: string, why: string) => void plan.bad.push(badCell(sheet, row, { key, why, number }))
    const stationId = find(cellOf(sheet, row, 'place'))
    if (!stationId) return bad('place', whyNoPlace(cellOf(sheet, row, 'place')))
    const when = parseWhen(cellOf(sheet, row, 'date'), shop.site.units)
    if (!when) return bad('date', 'that is no date; write 2026-11-20')
    const happenedMs = wallToMsOrNext(shop.site.zone, when.day, when.time ?? '12:00')
    if (happenedMs > nowMs) return bad('date', 'that day is still to come')
    const text = cellOf(sheet, row, 'note')
    const read = counted(readOnce(text), cellOf(sheet, row, 'count'))
    plan.notes.push({
      row: number,
      stationId,
      happenedMs,
      precision: when.time ? 'exact' : 'day',
      text,
      read,
      who: cellOf(sheet, row, 'who'),
    })
  })
  return plan
}

const whyNoPlace = (text: string) =>
  text
    ? 'there is no such place; set it up under places first, mend the name, or leave the row out'
    : 'the place is missing'

/** A place by its name as people write it: "A-07", "a 7" and "gun A7" are A7, as long as only one place can be meant. */
function placeFinder(shop: ShopPlaces): (text: string) => StationId | null {
  const exact = new Map(shop.stations.map((s) => [s.name.toLowerCase(), s.id]))
  const loose = new Map<string, StationId | null>()
  for (const s of shop.stations) loose.set(loosely(s.name), loose.has(loosely(s.name)) ? null : s.id)
  return (text) => exact.get(text.toLowerCase()) ?? loose.get(loosely(text)) ?? null
}
const loosely = (name: string) =>
  name
    .toLowerCase()
    .replace(/\b(gun|booth|cell|bench|bay|no|nr)\b\.?/g, '')
    .replace(/[^a-z0-9]/g, '')
    .replace(/0+(?=\d)/g, '')

/** A column of its own for how many speaks for a note that names one part. */
function counted(read: ReadNote, text: string): ReadNote {
  const count = text ? parseNumber(text) : null
  const [only, more] = read.acts
  const isOne = only && !more && count !== null && Number.isInteger(count) && count >= 1 && count <= 20
  return isOne ? { ...read, acts: [{ ...only, count }] } : read
}

/** What an act counts as: as said, or as the person who brings the sheet decided for its group; undecided it stays out. */
export function decided(act: NoteAct, decisions: Record<string, NoteDecision>): NoteDecision {
  return decisions[groupKey(act)] ?? (act.verb === 'unsaid' ? 'out' : act.verb)
}
