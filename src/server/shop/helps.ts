import { DAY_MS } from '@core/units/time.ts'
import { count, countDistinct, eq, inArray, isNotNull } from 'drizzle-orm'
import { type z } from 'zod'
import { helpsFor, type HelpKey, type Told } from '@core/firsthour/helps.ts'
import { type HelpsAnswer, type helpsClosedRequest } from '@contract/firsthour.ts'
import { headNow, houseRule, ledgerEvent, meta, person } from '@server/db/schema.ts'
import { isLead, mustLead, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { firstLoggedMs } from '@server/ledger/lines.ts'
import { loadShop, type ShopModel } from '@server/shopmodel/model.ts'

const CLOSED = 'helps_closed'
const CARDS = 'helps_cards'
const ABOUT_BAY = new Set<HelpKey>(['bay', 'limits', 'hours'])

/** What else would help: for leads alone, while they want it. */
export async function readHelps(deps: Deps, who: Who): Promise<HelpsAnswer> {
  mustRead(who)
  if (!isLead(who)) return { helps: [] }
  const { db } = deps
  const closed = new Set(
    (
      await db
        .select({ key: meta.key })
        .from(meta)
        .where(inArray(meta.key, [CLOSED, CARDS]))
    ).map((m) => m.key),
  )
  if (closed.has(CLOSED) || !(await isYoung(deps))) return { helps: [] }
  const shop = await loadShop(db, deps.shops, deps.now())
  const untold = baysUntold(shop)
  const told = await toldOf(deps, shop, { baysUntold: untold.length, cardsPrinted: closed.has(CARDS) })
  const [first = null] = [...untold, ...shop.areas.filter((a) => shop.stations.some((s) => s.areaId === a.id))]
  const areaId = first?.id ?? null
  return { helps: helpsFor(told).map((key) => ({ key, areaId: ABOUT_BAY.has(key) ? areaId : null })) }
}

const YOUNG_MS = 45 * DAY_MS
/** Nobody has written anything down here for longer than some weeks. */
const isYoung = async ({ db, now }: Deps): Promise<boolean> => now() - ((await firstLoggedMs(db)) ?? now()) < YOUNG_MS

/** Areas with guns of which nobody has said the wire. */
const baysUntold = (shop: ShopModel) =>
  shop.areas.filter((a) => !a.built.wireId && shop.stations.some((s) => s.areaId === a.id))

async function toldOf(deps: Deps, shop: ShopModel, at: Pick<Told, 'baysUntold' | 'cardsPrinted'>): Promise<Told> {
  const { db } = deps
  const [[clocked], [rules], [looked], [brought], [people]] = await Promise.all([
    db.select({ n: count() }).from(headNow).where(isNotNull(headNow.lastEntryMs)),
    db.select({ n: count() }).from(houseRule),
    db
      .select({ n: countDistinct(ledgerEvent.stationId) })
      .from(ledgerEvent)
      .where(eq(ledgerEvent.actKind, 'look')),
    db.select({ n: count() }).from(ledgerEvent).where(eq(ledgerEvent.actKind, 'sheet')),
    db.select({ n: count() }).from(person),
  ])
  return {
    ...at,
    guns: shop.stations.length,
    limits: rules?.n ?? 0,
    gunsClocked: clocked?.n ?? 0,
    gunsLooked: looked?.n ?? 0,
    shifts: shop.shifts.length,
    costsTold: [...shop.classes.values()].some((c) => c.stopMinorPerHour > 0),
    linesBroughtIn: brought?.n ?? 0,
    people: people?.n ?? 0,
  }
}

/** Put away for good. Safe to repeat. */
export async function closeHelps(deps: Deps, who: Who, r: z.infer<typeof helpsClosedRequest>) {
  mustLead(who)
  const value = String(deps.now())
  await deps.db
    .insert(meta)
    .values({ key: r.what === 'all' ? CLOSED : CARDS, value })
    .onDuplicateKeyUpdate({ set: { value } })
  return { ok: true as const }
}
