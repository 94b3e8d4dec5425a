import { and, eq, inArray, not, notInArray, or, type SQL } from 'drizzle-orm'
import { actsThatRead, ACTS } from '@core/ledger/acts.ts'
import { SILENT_FACTS } from '@core/ledger/facts.ts'
import { ledgerEvent } from '@server/db/schema.ts'
import { type EventRow } from '@server/ledger/lines.ts'

/** The lines that people read: as a condition, so that hidden ones take no place in a short list. */
export const isToRead: SQL | undefined = and(
  notInArray(ledgerEvent.actKind, actsThatRead('none')),
  or(notInArray(ledgerEvent.actKind, actsThatRead('first')), eq(ledgerEvent.lineNo, 0)),
  not(
    and(
      inArray(ledgerEvent.actKind, actsThatRead('telling')),
      inArray(ledgerEvent.kind, SILENT_FACTS),
      // Work by a list is read though its first line says nothing but that.
      not(and(eq(ledgerEvent.actKind, 'job'), eq(ledgerEvent.lineNo, 0)) as SQL),
    ) as SQL,
  ),
)

/** The same of a line in hand. */
export function isReadLine({ actKind, lineNo, kind }: Pick<EventRow, 'actKind' | 'lineNo' | 'kind'>): boolean {
  if (actKind === 'job' && lineNo === 0) return true
  switch (ACTS[actKind].reads) {
    case 'all':
    case 'none':
      return true
    case 'first':
      return lineNo === 0
    case 'telling':
      return !SILENT_FACTS.some((k) => k === kind)
  }
}
