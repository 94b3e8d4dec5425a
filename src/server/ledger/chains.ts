import { sql, type SQL } from 'drizzle-orm'
import { type Said } from '@core/ledger/resolve.ts'
import { ledgerEvent } from '@server/db/schema.ts'
import { namesOf, rowsOf, type Reader } from '@server/db/db.ts'
import { type EventRow } from './lines.ts'

/**
 * Whole chains, fact and corrections, of every line that falls under a condition. The order of the two steps and the index are told: left to itself the
 * database takes the whole ledger from its beginning whenever its own counts are a little old, which is a hundred times slower in a shop of years.
 */
export const chainsWhere = (db: Reader, where: SQL | undefined): Promise<EventRow[]> =>
  rowsOf(db, ledgerEvent, { statement: chains(namesOf(ledgerEvent, 'chain'), where) })

const SAID = ['id', 'happenedMs', 'loggedMs', 'precision', 'stationId', 'body'] as const
/** The same, of each line only what it says and what decides whether it stands. */
export const saidWhere = (db: Reader, where: SQL | undefined): Promise<Said[]> =>
  rowsOf(db, ledgerEvent, { statement: chains(namesOf(ledgerEvent, 'chain', SAID), where), wanted: SAID })

const chains = (names: SQL, where: SQL | undefined): SQL => sql`select ${names}
      from (select distinct root_id from ${ledgerEvent} where ${where ?? sql`true`}) hit
      straight_join ${ledgerEvent} chain force index (ledger_root) on chain.root_id = hit.root_id`
