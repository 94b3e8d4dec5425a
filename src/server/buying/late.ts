import { type LateAnswer } from '@contract/stock.ts'
import { mustRead, type Who } from '@server/call/context.ts'
import { askStock, type LifeDeps } from '@server/life/work.ts'
import { readOrders } from '@server/stock/orders.ts'
import { loadShop } from '@server/shopmodel/model.ts'

/** A gun is to wait for it where it is likelier than not out within a week. */
const SOON_DAYS = 7

/** Orders that are late and that a gun will wait for; what lies there for weeks is nobody's trouble on Floor. No money in it. */
export async function readLate(deps: LifeDeps, who: Who): Promise<LateAnswer> {
  mustRead(who)
  const nowMs = deps.now()
  const { site } = await loadShop(deps.db, deps.shops, nowMs)
  const overdue = (await readOrders(deps.db, nowMs)).some((o) => o.isOpen && o.row.dueMs < nowMs)
  const told = { nowMs, zone: site.zone }
  if (!overdue) return { ...told, late: [] }
  const { orders, parts } = await askStock(deps.lifeWork, undefined)
  const late = orders
    .filter((o) => o.isLate)
    .flatMap((o) =>
      o.lines.flatMap((l) => {
        const part = parts.find((p) => p.partId === l.partId)
        const outDays = part?.advice?.runsOut.middle ?? null
        if (!part || l.received >= l.quantity || outDays === null || outDays > SOON_DAYS) return []
        const { code, name, onHand, stands } = part
        return [{ code, name, supplierName: o.supplierName, dueMs: o.dueMs, onHand, outDays, stands }]
      }),
    )
  return { ...told, late }
}
