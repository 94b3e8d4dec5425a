import Papa from 'papaparse'
import { type Fact } from '@core/ledger/event.ts'
import { and, gte, lt } from 'drizzle-orm'
import { ledgerEvent } from '@server/db/schema.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { loadShop } from '@server/shopmodel/model.ts'
import { addDays, dayOf, wallOf, wallToMsOrNext } from '@server/time/wall.ts'
import { linesWhere } from './read.ts'

/** A cell that a spreadsheet would take for a formula is made plain text; some take the wide signs of other keyboards for the same. */
export const harmless = (text: string) => (/^[=+\-@\uff1d\uff0b\uff0d\uff20\t\r]/.test(text) ? `'${text}` : text)

/** The log between two days as CSV, oldest first, times in the site's zone. */
export async function logbookCsv(deps: Deps, who: Who, span: { from: string; to: string }): Promise<string> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const zone = shop.site.zone
  const where = and(
    gte(ledgerEvent.happenedMs, wallToMsOrNext(zone, span.from, '00:00')),
    lt(ledgerEvent.happenedMs, wallToMsOrNext(zone, addDays(span.to, 1), '00:00')),
  )
  const lines = await linesWhere(deps.db, { who, shop, where })
  const rows = lines.reverse().map((line) => ({
    day: dayOf(zone, line.happenedMs),
    time: wallOf(zone, line.happenedMs),
    precision: line.precision,
    place: harmless(line.stationName ?? ''),
    what: line.actKind === 'look' ? 'look' : line.fact.kind,
    part: harmless(line.position ?? ''),
    code: harmless(line.names.part ?? ''),
    reason: 'outReason' in line.fact ? line.fact.outReason : '',
    count: countIn(line.fact),
    wire: harmless(line.names.wire ?? ''),
    label_kg: kgIn(line.fact) ?? '',
    standing: line.standing,
    logged_utc: new Date(line.loggedMs).toISOString(),
    note: harmless(line.note ?? ''),
    line: line.eventId,
  }))
  return Papa.unparse(rows, { newline: '\r\n' })
}

const countIn = (fact: Fact): number => (fact.kind === 'fitted' ? fact.count : 'quantity' in fact ? fact.quantity : 1)

/** Kilos that a line speaks of: on a label, left on a spool, lost. */
function kgIn(fact: Fact): number | null {
  if (fact.kind === 'wireLoaded' || fact.kind === 'spoolIn') return fact.labelKg
  if (fact.kind === 'wireLost') return fact.kg
  return fact.kind === 'wireOff' || fact.kind === 'spoolRead' || fact.kind === 'spoolGone' ? fact.leftKg : null
}
