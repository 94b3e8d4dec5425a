import { type EventId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { and, gte, inArray, isNotNull } from 'drizzle-orm'
import { ignoredRule, type LimitedLife } from '@core/houserule/ignored.ts'
import { isMeasured } from '@core/ledger/exposure.ts'
import { type OutReason } from '@core/path/columns.ts'
import { type IgnoredAnswer } from '@contract/houserule.ts'
import { ledgerEvent, life, stoppage } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { mustLead, type Deps, type Who } from '@server/call/context.ts'
import { loadShop, type RuleRow, type ShopModel } from '@server/shopmodel/model.ts'

const DAYS = 60
/** A stoppage that ends with the act that took the part out was this part's. */
const SAME_MS = 10 * 60_000
const HARMS: readonly OutReason[] = ['burnedBack', 'stripped', 'blocked', 'kinked']

/** House rules that ask to be changed: what was run past them in the last sixty days, and what came of it. */
export async function readIgnored(deps: Deps, who: Who): Promise<IgnoredAnswer> {
  mustLead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  const { lives, stopsOf } = await endedSince(deps.db, nowMs - DAYS * DAY_MS)
  const isHarm = (l: (typeof lives)[number]) =>
    HARMS.includes(l.outReason) || stopsOf(l.toEventId).some((ms) => Math.abs(ms - l.toMs) < SAME_MS)
  return {
    days: DAYS,
    rules: rulesOf(shop).flatMap(({ rule, unit, limit }) => {
      const under = lives.filter(
        (l) => l.kindKey === rule.kindKey && l.classKey !== null && shop.ruleFor(l.kindKey, l.classKey) === rule,
      )
      const made = ignoredRule({
        limit,
        lives: under.flatMap((l): LimitedLife[] => {
          const used = l[unit]
          return used === null ? [] : [{ used, isHarm: isHarm(l) }]
        }),
      })
      return made ? [{ kindKey: rule.kindKey, classKey: rule.classKey, limit, unit, ...made }] : []
    }),
  }
}

/** Rules with a limit in what a clock counts. */
function rulesOf(shop: ShopModel) {
  const classes = ['*', ...shop.classes.keys()]
  return shop.kinds.flatMap((kind) => {
    const unit = kind.lifeUnit
    if (!isMeasured(unit)) return []
    const rules = new Set(classes.flatMap((c) => shop.ruleFor(kind.key, c) ?? []))
    return [...rules].flatMap((rule: RuleRow) =>
      rule.changeLimit === null ? [] : [{ rule, unit, limit: rule.changeLimit }],
    )
  })
}

/** Lives that ended lately, and when the place they ended at stopped standing. */
async function endedSince(db: Reader, sinceMs: number) {
  const [lives, stops] = await Promise.all([
    db
      .select()
      .from(life)
      .where(and(gte(life.toMs, sinceMs), isNotNull(life.classKey))),
    db.select({ stationId: stoppage.stationId, toMs: stoppage.toMs }).from(stoppage).where(gte(stoppage.toMs, sinceMs)),
  ])
  const ids = lives.map((l) => l.toEventId)
  const places = await db
    .select({ id: ledgerEvent.id, stationId: ledgerEvent.stationId })
    .from(ledgerEvent)
    .where(inArray(ledgerEvent.id, ids))
  const stationOf = new Map(places.map((p) => [p.id, p.stationId]))
  const stopsAt = new Map<string, number[]>()
  for (const { stationId, toMs } of stops)
    if (toMs !== null) stopsAt.set(stationId, [...(stopsAt.get(stationId) ?? []), toMs])
  return { lives, stopsOf: (eventId: EventId) => stopsAt.get(stationOf.get(eventId) ?? '') ?? [] }
}
