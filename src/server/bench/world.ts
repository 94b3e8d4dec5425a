import { type KindKey } from '@core/path/columns.ts'
import { DAY_MS, HOUR_MS } from '@core/units/time.ts'
import { makeId } from '@core/ids/id.ts'
import { drawLogNormal, drawWeibull, makeRandom } from '@core/random/random.ts'
import { KIND_DEFAULTS } from '@core/path/kinds.ts'
import { type Fact } from '@core/ledger/event.ts'
import { type Built } from '@core/shop/built.ts'
import { houseRule, shiftPattern, usageSpan } from '@server/db/schema.ts'
import { transact } from '@server/db/db.ts'
import { type Deps } from '@server/call/context.ts'
import { rebuild } from '@server/projection/rebuild.ts'
import { drawFit, type FitWorld } from './fit.ts'
import { writeUnprojected, type SaidAct, type Writing } from '@server/write/act.ts'
import { ensureArea, insertStations, type MadeStation } from '@server/shop/places.ts'

export interface WorldSize {
  stations: number
  years: number
  seed: number
}

/** A large shop whose parameters are drawn, not chosen: lives, hours and habits differ from place to place. */
export async function buildWorld(
  deps: Deps,
  size: WorldSize,
  say: (text: string) => void,
): Promise<{ lives: number; usage: number }> {
  const random = makeRandom(size.seed)
  const own: Deps = { ...deps, random }
  const made: MadeStation[] = []
  const builtOf = new Map<string, Partial<Built>>()
  let fit: FitWorld | null = null
  const build = (work: (w: Writing) => Promise<void>) => transact(deps.db, (tx) => writeUnprojected(tx, own, work))
  await build(async (w) => {
    const { tx } = w
    fit = await drawFit(tx, { nowMs: deps.now(), random })
    const every = [1, 2, 3, 4, 5, 6, 7]
    const shifts = [
      ['a', '06:00', '14:00'],
      ['b', '14:00', '22:00'],
    ] as const
    await tx.insert(shiftPattern).values(
      shifts.map(([name, start, end]) => ({
        id: makeId('pattern', deps.now(), random),
        areaId: null,
        name,
        weekdays: every,
        start,
        end,
        breaks: [],
      })),
    )
    await tx.insert(houseRule).values(
      KIND_DEFAULTS.map((k) => ({
        id: makeId('rule', deps.now(), random),
        kindKey: k.key,
        classKey: '*',
        changeLimit: k.lifeUnit === 'arcHours' ? 8 : 400,
        cleanLimit: k.canClean ? 6 : null,
        lookDays: 30,
        chosenById: null,
        chosenMs: deps.now(),
      })),
    )
    const { kinds } = await w.shop()
    for (let a = 0; a * 50 < size.stations; a++) {
      const built = fit.builtOf()
      const areaId = await ensureArea(w, { name: `Area ${a + 1}`, built })
      const rows = Array.from({ length: Math.min(50, size.stations - a * 50) }, (_, i) => ({
        name: `${a + 1}-${i + 1}`,
        areaId,
        placeWord: 'booth',
        classKey: 'booth',
        walkMinutes: 1,
        walkOrder: a * 50 + i,
        except: {},
      }))
      made.push(
        ...(await insertStations(w, {
          rows,
          kinds,
          mountedMs: deps.now() - size.years * 365 * DAY_MS - DAY_MS,
        })),
      )
      made.slice(-rows.length).forEach((m) => builtOf.set(m.stationId, built))
    }
  })
  let lives = 0
  let usage = 0
  for (const [i, station] of made.entries()) {
    const history = historyOf(station, { deps: own, size, fit, built: builtOf.get(station.stationId) ?? {} })
    await build((w) => Promise.resolve(history.events.forEach(w.say)))
    for (let j = 0; j < history.usage.length; j += 4000)
      await deps.db.insert(usageSpan).values(history.usage.slice(j, j + 4000))
    lives += history.events.length
    usage += history.usage.length
    if (i % 50 === 49) say(`${i + 1} stations written`)
  }
  await rebuild(own, true, (done, of) => say(`projected ${done} of ${of}`))
  return { lives, usage }
}

function historyOf(
  station: MadeStation,
  at: { deps: Deps; size: WorldSize; fit: FitWorld | null; built: Partial<Built> },
): { events: SaidAct[]; usage: (typeof usageSpan.$inferInsert)[] } {
  const { deps, size } = at
  const { random } = deps
  const meanHours = drawLogNormal(random, 2, 0.4)
  const parts = [
    { position: 'tip' as const, scale: drawLogNormal(random, 25, 0.4), shape: 1.5 + 2 * random() },
    { position: 'nozzle' as const, scale: drawLogNormal(random, 90, 0.3), shape: 2 },
    { position: 'liner' as const, scale: drawLogNormal(random, 160, 0.3), shape: 2 },
  ]
  const left = parts.map((p) => drawWeibull(random, p.shape, p.scale))
  const events: SaidAct[] = []
  const usage: (typeof usageSpan.$inferInsert)[] = []
  const startMs = Math.floor(deps.now() / DAY_MS) * DAY_MS - size.years * 365 * DAY_MS
  const say = (fact: Fact, happenedMs: number) => {
    const { stationId } = station
    events.push({ kind: 'log', lines: [{ fact, happenedMs, loggedMs: happenedMs, stationId }] })
  }
  const push = (position: KindKey, happenedMs: number) =>
    say(
      {
        kind: 'fitted',
        carrierId: position === 'rolls' ? station.headId : station.gunId,
        position,
        partId: at.fit?.partFor(position, at.built) ?? null,
        outReason: random() < 0.8 ? 'worn' : 'due',
        count: 1,
        entryAge: 'new',
      },
      happenedMs,
    )
  for (const position of ['diffuser', 'rolls'] as const) push(position, startMs)
  for (const fact of at.fit?.settingsOf(station, at.built) ?? []) say(fact, startMs)
  parts.forEach((p) => push(p.position, startMs))
  for (let day = 0; day < size.years * 365; day++) {
    for (const hour of [6, 14]) {
      const fromMs = startMs + day * DAY_MS + hour * HOUR_MS
      const hours = drawLogNormal(random, meanHours, 0.4)
      const id = makeId('usage', fromMs, random)
      usage.push({
        id,
        headId: station.headId,
        fromMs,
        toMs: fromMs + 8 * HOUR_MS,
        source: 'shiftLog',
        kg: null,
        arcHours: hours,
        starts: null,
        loggedMs: fromMs,
        idempotencyKey: id,
      })
      parts.forEach((p, i) => {
        left[i] = (left[i] ?? 0) - hours
        if ((left[i] ?? 0) > 0) return
        push(p.position, fromMs + Math.floor(random() * 8 * HOUR_MS))
        left[i] = drawWeibull(random, p.shape, p.scale)
      })
    }
  }
  return { events, usage }
}
