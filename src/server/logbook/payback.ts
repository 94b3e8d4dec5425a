import { NO_ID } from '@core/ids/id.ts'
import { and, desc, eq, gt, inArray, type ColumnBaseConfig } from 'drizzle-orm'
import { type MySqlColumn } from 'drizzle-orm/mysql-core'
import { usualLife, type UsualLife } from '@core/life/kaplanmeier.ts'
import { isWornOut, kindOfPosition, type KindKey, type LifeUnit } from '@core/path/columns.ts'
import { type LoggedAct } from '@contract/logbook.ts'
import { life } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { type EventRow } from '@server/ledger/lines.ts'
import { type ShopPlaces, type ShopKinds } from '@server/shopmodel/model.ts'

type LifeRow = typeof life.$inferSelect

/** A life's use in its kind's unit; null where that is not measured or not known. */
export const amountOf = (row: Pick<LifeRow, LifeUnit>, unit: LifeUnit): number | null => row[unit]

/** What the logger gets back: what the part that came out did, and the usual here. Silent where it is not known. */
export async function payBack(
  db: Reader,
  shop: ShopPlaces & ShopKinds,
  rows: readonly EventRow[],
): Promise<LoggedAct[]> {
  const ended =
    rows.length === 0
      ? []
      : await db
          .select()
          .from(life)
          .where(
            inArray(
              life.toEventId,
              rows.map((r) => r.id),
            ),
          )
  const usual = usualOnce(db)
  const answers: LoggedAct[] = []
  for (const row of rows) {
    const out = ended.find((l) => l.toEventId === row.id)
    answers.push(await payBackOne(row, { shop, out, usual }))
  }
  return answers
}

/** Asks for each kind and class once. */
function usualOnce(db: Reader) {
  const known = new Map<string, UsualLife>()
  return async (scope: Parameters<typeof usualHere>[1]): Promise<UsualLife> => {
    const key = `${scope.kindKey} ${scope.classKey}`
    const life = known.get(key) ?? (await usualHere(db, scope))
    known.set(key, life)
    return life
  }
}

async function payBackOne(
  row: EventRow,
  at: { shop: ShopPlaces & ShopKinds; out: typeof life.$inferSelect | undefined; usual: ReturnType<typeof usualOnce> },
): Promise<LoggedAct> {
  const { shop, out } = at
  const fact = row.body.type === 'fact' ? row.body.fact : null
  const position = fact && 'position' in fact ? fact.position : null
  const station = row.stationId ? shop.stationById.get(row.stationId) : undefined
  const kind = position ? shop.kindByKey.get(kindOfPosition(position)) : undefined
  const here =
    kind && station && out
      ? await at.usual({ kindKey: kind.key, classKey: station.classKey, unit: kind.lifeUnit })
      : undefined
  return {
    eventId: row.id,
    stationId: row.stationId ?? NO_ID,
    stationName: station?.name ?? '',
    position,
    didAmount: out && kind && out.parts === 1 && out.entryAge === 'new' ? amountOf(out, kind.lifeUnit) : null,
    unit: kind?.lifeUnit ?? null,
    isEstimated: false,
    usualAmount: here?.ok ? here.median : null,
    usualN: here?.ok ? here.n : null,
  }
}

/** The newest lives speak: with 400 the median stands within some 4%, and older ones tell of another time. */
const MOST_LIVES = 400

/** Median life of this kind at places of this class, from own lives: whole, of known age, one part each. */
export async function usualHere(
  db: Reader,
  scope: { kindKey: KindKey; classKey: string; unit: LifeUnit },
): Promise<UsualLife> {
  const amount = COUNTED_IN[scope.unit]
  const rows = await db
    .select({ amount, outReason: life.outReason })
    .from(life)
    .where(
      and(
        eq(life.kindKey, scope.kindKey),
        eq(life.classKey, scope.classKey),
        eq(life.entryAge, 'new'),
        eq(life.parts, 1),
        gt(amount, 0),
      ),
    )
    .orderBy(desc(life.toMs))
    .limit(MOST_LIVES)
  return usualLife({ time: rows.map((r) => r.amount ?? 0), event: rows.map((r) => (isWornOut(r.outReason) ? 1 : 0)) })
}

const COUNTED_IN: Record<LifeUnit, MySqlColumn<ColumnBaseConfig<'number', string>>> = {
  kg: life.kg,
  km: life.km,
  arcHours: life.arcHours,
  starts: life.starts,
  cleanings: life.cleanings,
  matings: life.matings,
  spools: life.spools,
}
