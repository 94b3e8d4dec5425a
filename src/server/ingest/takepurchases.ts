import { inArray } from 'drizzle-orm'
import { makeId } from '@core/ids/id.ts'
import { purchase } from '@server/db/schema.ts'
import { insertMany, type Reader } from '@server/db/db.ts'
import { keyOf, type Writing } from '@server/write/act.ts'
import { shopLine } from '@server/write/changing.ts'
import { shortHash } from './key.ts'
import { purchaseIdentity } from '@server/parts/purchases.ts'
import { type PlannedPurchase } from './purchases.ts'

/** The same item, month and quantity again is the same line; a mended quantity is a new one, and holds. */
export const purchaseKey = (p: PlannedPurchase) => `buy/${shortHash(`${purchaseIdentity(p)} ${p.quantity}`)}`

export async function freshPurchases(db: Reader, rows: readonly PlannedPurchase[]): Promise<PlannedPurchase[]> {
  if (rows.length === 0) return []
  const there = await db
    .select({ key: purchase.idempotencyKey })
    .from(purchase)
    .where(inArray(purchase.idempotencyKey, rows.map(purchaseKey)))
  const known = new Set(there.map((t) => t.key))
  return rows.filter((r) => !known.has(purchaseKey(r)))
}

/** Purchases that are not there yet, and one line of the Logbook about them. */
export async function writePurchases(w: Writing, at: { rows: readonly PlannedPurchase[]; key: string }): Promise<void> {
  const { tx, deps } = w
  const fresh = await freshPurchases(tx, at.rows)
  await insertMany(tx, purchase, {
    rows: fresh.map((row) => ({
      ...row,
      id: makeId('purchase', deps.now(), deps.random),
      loggedMs: w.nowMs,
      idempotencyKey: purchaseKey(row),
    })),
  })
  const change = { of: 'sheet', list: 'purchases', lines: fresh.length } as const
  w.say({ kind: 'shop', key: keyOf(at.key), lines: [shopLine(deps, change)] })
}
