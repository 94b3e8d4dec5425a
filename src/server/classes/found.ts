import { type z } from 'zod'
import { readingsOf, tipFault } from '@core/classes/asreading.ts'
import { handOverAt, type Occurrence } from '@core/classes/calendar.ts'
import { HAND_ITEM_KEYS, handItem, isAnswer, wrongOf } from '@core/classes/items.ts'
import { type GroupId, type StationId } from '@core/ids/id.ts'
import { type Fact } from '@core/ledger/event.ts'
import { DAY_MS } from '@core/units/time.ts'
import { lookMethod, type LookKey } from '@core/walk/looks.ts'
import { type foundAnswer, type foundRequest } from '@contract/classes.ts'
import { readingRequest } from '@contract/reading.ts'
import { happenedAt, mustLogAt, type Deps, type Who } from '@server/call/context.ts'
import { hungOne } from '@server/gunnow/hung.ts'
import { DomainError } from '@server/problem/problem.ts'
import { readingFacts } from '@server/reading/act.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'
import { dayOf } from '@server/time/wall.ts'
import { keyOf, type SaidLine } from '@server/write/act.ts'
import { actOnce } from '@server/write/actonce.ts'
import { checkTime, placeOf, type Place } from '@server/write/place.ts'
import { activeBooths, timesOf } from '@server/shopmodel/school.ts'

/** Which class a booth is looked at for, and which had it before: by the calendar, so that nobody has to say. */
export function classAt(
  { school, site }: Pick<ShopModel, 'school' | 'site'>,
  at: { stationId: StationId; atMs: number },
): { of: Occurrence | null; leftBy: Occurrence | null } {
  const times = timesOf(school, site.zone, { fromMs: at.atMs - 6 * DAY_MS, toMs: at.atMs + DAY_MS })
  return handOverAt(times, (id) => activeBooths(school, id).includes(at.stationId), at.atMs)
}

/** What was told at a booth, now or while there was no link: of which group, on which day here. */
export function ofClassHere(
  deps: Deps,
  shop: Pick<ShopModel, 'school' | 'site'>,
  stationId: StationId | null,
): { groupId: GroupId | null; day: string; atMs: number } {
  const atMs = happenedAt(deps)
  const { of } = stationId ? classAt(shop, { stationId, atMs }) : { of: null }
  return { groupId: of?.groupId ?? null, day: dayOf(shop.site.zone, atMs), atMs }
}

/**
 * A booth as the next class found it: one line, with the readings it makes. What was put right at once is kept as found and as it is now; what is
 * still wrong stands on the gun for whoever comes next. Who stands there is not asked.
 */
export async function logFound(
  deps: Deps,
  who: Who,
  r: z.output<typeof foundRequest>,
): Promise<z.input<typeof foundAnswer>> {
  checkFound(r)
  const atMs = Math.min(r.happenedMs ?? happenedAt(deps), deps.now())
  checkTime(r.happenedMs ?? atMs, deps.now())
  let ofClass: string | null = null
  await actOnce(deps, who, {
    kind: 'handedOver',
    key: r.key,
    say: async (w) => {
      const shop = await w.shop()
      const station = shop.stationById.get(r.stationId)
      if (station) mustLogAt(who, station)
      const place = await placeOf(w.tx, r.stationId, shop)
      const { of, leftBy } = classAt(shop, { stationId: r.stationId, atMs })
      ofClass = of?.name ?? null
      const fact: Fact = {
        ...{ kind: 'handedOver', carrierId: place.stationCarrierId, day: dayOf(shop.site.zone, atMs) },
        ...{ classId: of?.entryId ?? null, groupId: of?.groupId ?? null, leftBy: leftBy?.groupId ?? null },
        ...{ found: r.found, still: r.still },
      }
      const head = await hungOne(w.tx, shop, r.stationId)
      w.say({
        kind: 'handedOver',
        key: keyOf(r.key),
        lines: [
          { fact, stationId: r.stationId, happenedMs: atMs },
          ...readAs(r, { place, shop, wireId: head.spoolWireId, atMs }),
        ],
      })
    },
  })
  return { ok: true, ofClass }
}

function checkFound({ found, still }: z.output<typeof foundRequest>): void {
  const keys = HAND_ITEM_KEYS.filter((k) => found[k] !== undefined)
  if (keys.length === 0)
    throw new DomainError('bad-request', 'Nothing was looked at.', [
      'Look at one thing at least, or go to the next booth.',
    ])
  for (const key of keys)
    if (!isAnswer(key, found[key] ?? ''))
      throw new DomainError('bad-request', `${handItem(key).name}: "${found[key]}" is no answer to that.`, [
        'Load the page again.',
      ])
  const wrong = wrongOf(found)
  const stray = still.find((k) => !wrong.includes(k))
  if (stray)
    throw new DomainError('bad-request', `${handItem(stray).name} was not found wrong, so it cannot be so still.`, [
      'Say how it was found.',
    ])
}

function readAs(
  { found, still, stationId, key }: z.output<typeof foundRequest>,
  at: { place: Place; shop: ShopModel; wireId: Parameters<typeof readingFacts>[2]['wireId']; atMs: number },
): SaidLine[] {
  const { place, shop, wireId, atMs } = at
  // A place with nothing on it has been looked at, and reads nothing.
  if (!place.now.gunId || !place.now.headId) return []
  const read = readingsOf(found, still).flatMap(({ what, grade, is }): SaidLine[] => {
    const method = lookMethod(what as LookKey)
    const r = readingRequest.parse({ key, stationId, what, method: method.key, how: method.how, grade })
    const from: Record<string, number> = is === 'putRight' ? { weight: 0 } : {}
    const made = { value: null, left: null, from }
    return readingFacts(r, made, { place, shop, target: null, wireId, nowMs: atMs }).map((fact) => ({
      ...{ fact, stationId, happenedMs: atMs + (is === 'putRight' ? 1 : 0) },
    }))
  })
  const fault = tipFault(found)
  const joint: Fact[] = fault
    ? [{ kind: 'jointFault', carrierId: place.now.gunId, joint: 'tip', fault, thread: null }]
    : []
  return [...read, ...joint.map((fact) => ({ fact, stationId, happenedMs: atMs }))]
}
