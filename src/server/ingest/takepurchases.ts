import { inArray } from 'drizzle-orm'
import { makeId } from '@core/ids/id.ts'
import { purchase } from '@server/db/schema.ts'
import { insertMany, type Reader, type Tx } from '@server/db/db.ts'
import { type Deps, type Who } from '@server/http/context.ts'
import { append, nothingTouched, type Touched } from '@server/ledger/append.ts'
import { shopDraft } from '@server/shop/changing.ts'
import { shortHash } from './key.ts'
import { purchaseIdentity, type PlannedPurchase } from './purchases.ts'

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
export async function writePurchases(
  tx: Tx,
  at: { deps: Deps; who: Who; rows: readonly PlannedPurchase[]; key: string },
): Promise<Touched> {
  const { deps } = at
  const fresh = await freshPurchases(tx, at.rows)
  await insertMany(tx, purchase, {
    rows: fresh.map((row) => ({
      ...row,
      id: makeId('purchase', deps.now(), deps.random),
      loggedMs: deps.now(),
      idempotencyKey: purchaseKey(row),
    })),
  })
  await append(tx, [shopDraft(deps, at.who, { key: at.key, what: `purchase list: ${fresh.length} lines` })])
  return nothingTouched()
}
