import { and, eq } from 'drizzle-orm'
import { carrier, meta } from '@server/db/schema.ts'
import { transact, type Tx } from '@server/db/db.ts'
import { type Deps } from '@server/call/context.ts'
import { nothingTouched } from '@server/ledger/lines.ts'
import { loadShop } from '@server/shopmodel/model.ts'
import { project } from './project.ts'

/**
 * Every gun counted again because the shop's own times or wires changed: some at a time and after the change stands, so that whoever logs a tip meanwhile
 * waits for a few guns and not for two hundred.
 *
 *   change ──same transaction──> mark     mark ──> guns, five at a time ──> mark away
 *
 * 1. While the mark stands some guns may stand as they were before the change; whoever starts finds it and goes on.
 * 2. A change made meanwhile puts a mark of its own in its place: then the first does not take it away.
 */
const RECOUNT = 'recount'
const AT_A_TIME = 5

export async function toBeRecounted(tx: Tx, mark: string): Promise<void> {
  await tx
    .insert(meta)
    .values({ key: RECOUNT, value: mark })
    .onDuplicateKeyUpdate({ set: { value: mark } })
}

/** Counts again what a change left to be; answers whether there was anything. */
export async function recount(deps: Deps): Promise<boolean> {
  const [open] = await deps.db.select().from(meta).where(eq(meta.key, RECOUNT))
  if (!open) return false
  const heads = await deps.db.select({ id: carrier.id }).from(carrier).where(eq(carrier.type, 'head'))
  for (let at = 0; at < heads.length; at += AT_A_TIME) {
    const carrierIds = new Set(heads.slice(at, at + AT_A_TIME).map((h) => h.id))
    const shop = await loadShop(deps.db, deps.shops, deps.now())
    await transact(deps.db, (tx) => project(tx, { ...nothingTouched(), carrierIds }, { shop }))
  }
  await deps.db.delete(meta).where(and(eq(meta.key, RECOUNT), eq(meta.value, open.value)))
  return true
}
