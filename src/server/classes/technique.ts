import { gte } from 'drizzle-orm'
import { type z } from 'zod'
import { technique, TURNED_OUT_KEYS } from '@core/classes/technique.ts'
import { makeId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { type techniqueAnswer, type techniqueQuery, type techniqueTold as toldRequest } from '@contract/classes.ts'
import { techniqueTold } from '@server/db/schema.ts'
import { transact } from '@server/db/db.ts'
import { mustLogAt, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { hungOne } from '@server/gunnow/hung.ts'
import { schoolHere, setupOf } from '@server/gunnow/setup.ts'
import { DomainError } from '@server/problem/problem.ts'
import { loadShop } from '@server/shopmodel/model.ts'
import { classAt, ofClassHere } from './found.ts'

const COUNTED_DAYS = 28

/** How the gun is held and moved for this wire and process; whether a minute on the equipment comes first, by house rule; and what it turned out to be lately. */
export async function readTechnique(
  deps: Deps,
  who: Who,
  q: z.output<typeof techniqueQuery>,
): Promise<z.input<typeof techniqueAnswer>> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const hung = await hungOne(deps.db, shop, q.stationId)
  const setup = setupOf(hung, shop)
  const asked = { joint: q.joint, position: q.position, wire: setup.wire }
  const mode = setup.mode ?? setup.procedure?.mode ?? null
  const told = await deps.db
    .select()
    .from(techniqueTold)
    .where(gte(techniqueTold.atMs, deps.now() - COUNTED_DAYS * DAY_MS))
  const { of } = classAt(shop, { stationId: q.stationId, atMs: deps.now() })
  const own = told.filter((t) => of === null || t.groupId === of.groupId)
  const { school } = shop
  return {
    name: hung.station.name,
    wireName: setup.wire?.name ?? null,
    mode,
    minuteFirst: schoolHere('D26', hung, shop) !== 'hand',
    ...technique({
      ...asked,
      mode,
      stickOutMm: setup.procedure?.stickOutMm ?? null,
      pushPull: schoolHere('D27', hung, shop),
    }),
    of: school.groups.find((g) => g.id === of?.groupId)?.name ?? null,
    days: COUNTED_DAYS,
    was: TURNED_OUT_KEYS.map((key) => ({ key, n: own.filter((t) => t.was === key).length }))
      .filter((w) => w.n > 0)
      .sort((a, b) => b.n - a.n),
  }
}

/** What it turned out to be: counted for the group that has the booth. */
export async function keepTold(deps: Deps, who: Who, r: z.output<typeof toldRequest>): Promise<{ ok: true }> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const station = shop.stationById.get(r.stationId)
  if (!station) throw new DomainError('not-found', 'There is no such booth.')
  mustLogAt(who, station)
  const here = ofClassHere(deps, shop, r.stationId)
  const row = {
    ...{ id: makeId('told', deps.now(), deps.random), stationId: r.stationId, ...here },
    ...{ was: r.was, idempotencyKey: r.key },
  }
  await transact(deps.db, (tx) =>
    tx
      .insert(techniqueTold)
      .values(row)
      .onDuplicateKeyUpdate({ set: { atMs: here.atMs } }),
  )
  return { ok: true }
}
