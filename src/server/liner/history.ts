import { type CarrierId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { chainsWhere } from '@server/ledger/chains.ts'
import { and, gte, inArray } from 'drizzle-orm'
import { type AutopsyFind } from '@core/ledger/event.ts'
import { standingFacts, type Standing } from '@core/ledger/resolve.ts'
import { NIP_CLEARANCE_MM } from '@core/liner/rule.ts'
import { type Stuck } from '@core/liner/resistance.ts'
import { type LinerAnswer } from '@contract/liner.ts'
import { ledgerEvent } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { fromRow } from '@server/ledger/lines.ts'
import { standingOfCarriers } from '@server/ledger/standings.ts'

const YEAR_MS = 365 * DAY_MS
const SHOWN = 5

/** What is known of the liners of one gun: how the last was cut, where they stuck, what the old ones showed. */
export interface LinerHistory {
  last: LinerAnswer['last']
  stuck: Stuck[]
  seatToNipMm: number | null
  autopsies: { atMs: number; found: AutopsyFind[]; isCertain: boolean; atMm: number | null }[]
}

export async function linerHistory(db: Reader, gunId: CarrierId | null): Promise<LinerHistory> {
  const standings = gunId ? ((await standingOfCarriers(db, [gunId])).get(gunId) ?? []) : []
  const inOrder = [...standings].sort((a, b) => b.happenedMs - a.happenedMs || b.loggedMs - a.loggedMs)
  return {
    last: lastCut(inOrder),
    stuck: inOrder.flatMap(({ fact, happenedMs: atMs }) =>
      fact.kind === 'stuck' && fact.atMm !== null ? [{ atMm: fact.atMm, atMs }] : [],
    ),
    seatToNipMm: lastNip(inOrder),
    autopsies: inOrder
      .flatMap(({ fact, happenedMs: atMs }) => {
        if (fact.kind !== 'autopsy' || fact.position !== 'liner') return []
        const { found, isCertain, atMm } = fact
        return [{ atMs, found, isCertain, atMm }]
      })
      .slice(0, SHOWN),
  }
}

function lastCut(inOrder: readonly Standing[]): LinerAnswer['last'] {
  for (const { fact, happenedMs: atMs } of inOrder)
    if (fact.kind === 'linerCut') return { atMs, by: fact.by, leftMm: fact.leftMm, lengthMm: fact.lengthMm }
  return null
}

/** How far the rolls were from the guide's seat when a liner was last cut there. */
function lastNip(inOrder: readonly Standing[]): number | null {
  for (const { fact } of inOrder)
    if (fact.kind === 'linerCut' && fact.by === 'feeder') return fact.neededMm + NIP_CLEARANCE_MM
  return null
}

/** New liners spoiled while they were put in, of all that were used, over a year; what was taken back does not count. */
export async function spoiledShare(db: Reader, nowMs: number): Promise<LinerAnswer['spoiled']> {
  const rows = await chainsWhere(
    db,
    and(inArray(ledgerEvent.kind, ['spoiled', 'linerCut']), gte(ledgerEvent.happenedMs, nowMs - YEAR_MS)),
  )
  const kinds = standingFacts(rows.map(fromRow)).map((s) => s.fact.kind)
  const n = kinds.filter((k) => k === 'spoiled').length
  return { n, of: n + kinds.filter((k) => k === 'linerCut').length }
}
