import { type StationId } from '@core/ids/id.ts'
import { groupKey, readNote, type NoteAct, type ReadNote } from '@core/ingest/notes.ts'
import { eachOnce } from '@core/ingest/once.ts'
import { parseNumber } from '@core/units/number.ts'
import { type BadRow, type NoteDecision } from '@contract/ingest.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'
import { dayOf, wallToMsOrNext } from '@server/time/wall.ts'
import { placeFinder, whyNoPlace } from './findplace.ts'
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
  leftOut: { row: number; text: string }[]
  /** Names that are painted on no place here. */
  names: string[]
}

/** Past work as a shop wrote it down: where and when must be readable; what was done is read as far as it goes. */
export function planHistory(
  sheet: Sheet,
  shop: ShopModel,
  at: { nowMs: number; names: Record<string, string> },
): HistoryPlan {
  const { nowMs } = at
  const plan: HistoryPlan = { notes: [], bad: [], leftOut: [], names: [] }
  const find = placeFinder(shop, at.names)
  const today = dayOf(shop.site.zone, nowMs)
  const readOnce = eachOnce((text) => readNote(text, shop.kinds))
  sheet.rows.forEach((row, i) => {
    const number = sheet.numbers[i] ?? 0
    const bad = (key: string, why: string) => void plan.bad.push(badCell(sheet, row, { key, why, number }))
    const named = cellOf(sheet, row, 'place')
    const stationId = find(named)
    if (stationId === 'out')
      return void plan.leftOut.push({ row: number, text: `${named}: ${cellOf(sheet, row, 'note')}` })
    if (!stationId) return (plan.names.push(named), bad('place', whyNoPlace(named)))
    const when = parseWhen(cellOf(sheet, row, 'date'), shop.site.units, today)
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
