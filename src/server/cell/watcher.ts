import { and, asc, eq, gt, gte, inArray, isNotNull, lt } from 'drizzle-orm'
import { NO_WATCH, watchOn, type Changed, type Creeping, type GunWatch, type WatchRow } from '@core/cell/watch.ts'
import { NO_STARTS, startsOn, type StartRow, type StartsTold } from '@core/cell/starts.ts'
import { stopSeen, type StopSeen } from '@core/cell/stopseen.ts'
import { type CarrierId, type StationId } from '@core/ids/id.ts'
import { type Fact, type ReadingFact } from '@core/ledger/event.ts'
import { kindOfPosition, type KindKey } from '@core/path/columns.ts'
import { WATCHED } from '@core/reading/alarms.ts'
import { carrier, feeder, gunWatch, headNow, ledgerEvent, stationNow, telemetryRow } from '@server/db/schema.ts'
import { type Tx, transact } from '@server/db/db.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { actByKey } from '@server/ledger/lines.ts'
import { Rounds } from '@server/time/rounds.ts'
import { keyOf, writeAct } from '@server/write/act.ts'

/**
 * Watches what feeders send while nobody looks: motor current at equal wire speed, per gun, on from what was kept. What creeps is written down as a
 * reading, so that Floor, gun, Walk and Down say it as they say any other; every few arc hours one is written down that tells how it goes.
 *
 * 1. A feeder that another server is watching is left to that one.
 * 2. Rows are taken in order, some thousand at a time; what was taken is kept with what was made of it, in one transaction, after what it says was
 *    written down under a key of its own.
 * 3. Starts that come to nothing are counted beside it, by `startsOn`.
 */
const ROWS = 4000
/** Of what goes as it should, one reading in so many arc hours. */
const KEPT_EVERY_H = 10
const NOBODY: Who = { person: null, device: null }
const NEWS = ['fitted', 'wireLoaded', 'wireFound', 'mounted', 'setting'] as const
/** Another one of these is another gun for the motor. */
const ANEW: ReadonlySet<KindKey> = new Set(['liner', 'rolls', 'conduit'])
/** No wire goes through these while it is fed. */
const BESIDE: ReadonlySet<KindKey> = new Set(['cutter', 'reamer', 'nozzle', 'insulator', 'gas'])

interface Watched {
  headId: CarrierId
  gunId: CarrierId
  stationId: StationId
  neckId: CarrierId | null
}
interface Step {
  at: Watched
  rows: (typeof telemetryRow.$inferSelect)[]
  made: ReturnType<typeof watchOn>
  starts: StartsTold[]
  stop: StopSeen | null
  kept: WatchPointKept | null
}
interface WatchPointKept {
  atMs: number
  amps: number
  speed: number
}

/** Every feeder that sent something since it was last watched, a step each. Answers whether there is more. */
export async function watchFeeders(deps: Deps): Promise<boolean> {
  const active = await deps.db
    .select({ equipmentId: feeder.equipmentId, headId: feeder.headId, receivedMs: feeder.receivedMs })
    .from(feeder)
    .where(and(eq(feeder.isActive, true), isNotNull(feeder.receivedMs)))
  let isMore = false
  for (const one of active) {
    // Written down before what was taken counts as taken: after a crash in between the step is taken again, and says nothing twice.
    const step = await transact(deps.db, async (tx) => {
      const made = await watchOne(tx, one)
      if (made) await writeDown(deps, made)
      return made
    })
    isMore ||= step?.rows.length === ROWS
  }
  return isMore
}

async function watchOne(tx: Tx, of: { equipmentId: string; headId: CarrierId }): Promise<Step | null> {
  const [at] = await tx
    .select({ stationId: stationNow.stationId, gunId: stationNow.gunId, neckId: stationNow.neckId })
    .from(stationNow)
    .where(eq(stationNow.headId, of.headId))
  if (!at?.gunId) return null
  const known = await tx
    .select()
    .from(gunWatch)
    .where(eq(gunWatch.headId, of.headId))
    .for('update', { skipLocked: true })
  const own = known[0]
  // Its line is there and somebody else has it.
  if (!own && (await isThere(tx, of.headId))) return null
  const rows = await rowsAfter(tx, of.equipmentId, own?.atMs ?? 0)
  const last = rows.at(-1)
  if (!last) return null
  const watched = { headId: of.headId, gunId: at.gunId, stationId: at.stationId, neckId: at.neckId }
  const isSameGun = own?.gunId === at.gunId
  const before = isSameGun ? own.watch : NO_WATCH
  const hands = isSameGun ? await handsOn(tx, watched, own.atMs) : NO_HANDS
  const made = watchOn(before, rows.map(plain), hands.motor)
  const startsBefore = (isSameGun ? own.watch.starts : null) ?? NO_STARTS
  const starts = startsOn(startsBefore, rows.map(startsPlain), hands.startsMs)
  const kept = dueReading(before, made)
  const watch = { ...made.watch, starts: starts.watch }
  const values = { gunId: at.gunId, atMs: last.atMs, watch, keptMs: kept?.atMs ?? own?.keptMs ?? null }
  await tx
    .insert(gunWatch)
    .values({ headId: of.headId, ...values })
    .onDuplicateKeyUpdate({ set: values })
  return { at: watched, rows, made, starts: starts.said, stop: await stopIn(tx, of.equipmentId, rows), kept }
}
async function isThere(tx: Tx, headId: CarrierId): Promise<boolean> {
  const [line] = await tx.select({ headId: gunWatch.headId }).from(gunWatch).where(eq(gunWatch.headId, headId))
  return line !== undefined
}

const rowsAfter = (tx: Tx, equipmentId: string, atMs: number) =>
  tx
    .select()
    .from(telemetryRow)
    .where(and(eq(telemetryRow.equipmentId, equipmentId), gt(telemetryRow.atMs, atMs)))
    .orderBy(asc(telemetryRow.atMs), asc(telemetryRow.bootId), asc(telemetryRow.seq))
    .limit(ROWS)
const plain = ({ atMs, wireFedM, arcOnS, motorAmps }: typeof telemetryRow.$inferSelect): WatchRow => ({
  atMs,
  wireFedM,
  arcOnS,
  motorAmps,
})

const startsPlain = ({ atMs, arcStarts, startsFailed }: typeof telemetryRow.$inferSelect): StartRow => ({
  atMs,
  arcStarts,
  startsFailed,
})

/** What hands did to it meanwhile: as far as the motor feels it, and whatever a start can depend on. */
interface Hands {
  motor: Changed[]
  startsMs: number[]
}
const NO_HANDS: Hands = { motor: [], startsMs: [] }
async function handsOn(tx: Tx, { headId, gunId, neckId, stationId }: Watched, sinceMs: number): Promise<Hands> {
  const stands = await tx.select({ id: carrier.id }).from(carrier).where(eq(carrier.stationId, stationId))
  const carriers = [headId, gunId, ...(neckId ? [neckId] : []), ...stands.map((c) => c.id)]
  const lines = await tx
    .select({ body: ledgerEvent.body, happenedMs: ledgerEvent.happenedMs })
    .from(ledgerEvent)
    .where(
      and(
        inArray(ledgerEvent.carrierId, carriers),
        inArray(ledgerEvent.kind, [...NEWS]),
        gte(ledgerEvent.happenedMs, sinceMs),
      ),
    )
  const facts = lines.flatMap(({ body, happenedMs }) =>
    body.type === 'fact' ? [{ fact: body.fact, atMs: happenedMs }] : [],
  )
  return {
    motor: facts.flatMap(({ fact, atMs }): Changed[] => {
      const is = feltAs(fact)
      return is ? [{ atMs, is }] : []
    }),
    startsMs: facts.filter(({ fact }) => doesStartAnew(fact)).map(({ atMs }) => atMs),
  }
}
function feltAs(fact: Fact): Changed['is'] | null {
  if (fact.kind === 'fitted' && BESIDE.has(kindOfPosition(fact.position))) return null
  if (fact.kind === 'fitted') return ANEW.has(kindOfPosition(fact.position)) ? 'anew' : 'step'
  if (fact.kind === 'mounted') return fact.as ? 'step' : 'anew'
  return fact.kind === 'wireLoaded' || fact.kind === 'wireFound' ? 'step' : null
}
const doesStartAnew = (fact: Fact): boolean =>
  fact.kind === 'fitted' || fact.kind === 'mounted' || fact.kind === 'wireLoaded'

/** The newest point of the band that is welded with most, where so many arc hours passed since one was written down. */
function dueReading(before: GunWatch, { watch }: { watch: GunWatch }): WatchPointKept | null {
  const band = [...watch.bands].sort((a, b) => b.arcH - a.arcH)[0]
  const last = band?.points.at(-1)
  if (!band || !last) return null
  const was = before.bands.find((b) => b.speed === band.speed)?.arcH ?? 0
  const isDue = Math.floor(band.arcH / KEPT_EVERY_H) > Math.floor(was / KEPT_EVERY_H)
  return isDue ? { atMs: last.atMs, amps: last.amps, speed: band.speed } : null
}

/** What creeps, else how it goes: once each, however often the step is taken. */
async function writeDown(deps: Deps, { at, made, starts, stop, kept }: Step): Promise<void> {
  if (stop && deps.now() - stop.atMs < FRESH_MS) await openStop(deps, at, stop)
  for (const creeping of made.said) await keepReading(deps, at, ofCreeping(creeping))
  for (const told of starts) await keepReading(deps, at, ofStarts(told))
  const isSaid = made.said.length > 0
  if (kept && !isSaid)
    await keepReading(deps, at, {
      ...{
        what: 'motorAmps',
        atMs: kept.atMs,
        value: kept.amps,
        is: isStillHigh(made.watch, kept.speed) ? 'look' : 'good',
        limit: null,
      },
      from: { speed: kept.speed },
    })
}
/** A minute before the new rows leads in. */
const LEAD_MS = 60_000
/** Seen later than this it is a stop of the past, and somebody has said what there was to say. */
const FRESH_MS = 10 * 60_000
async function stopIn(tx: Tx, equipmentId: string, rows: Step['rows']): Promise<StopSeen | null> {
  const first = rows[0]
  if (!first || rows.every((r) => r.rollFedM === null && r.startsFailed === null)) return null
  const lead = await tx
    .select()
    .from(telemetryRow)
    .where(
      and(
        eq(telemetryRow.equipmentId, equipmentId),
        gte(telemetryRow.atMs, first.atMs - LEAD_MS),
        lt(telemetryRow.atMs, first.atMs),
      ),
    )
    .orderBy(asc(telemetryRow.atMs))
  return stopSeen([...lead, ...rows])
}

/** It stands, and nobody had to say so: what was seen goes with it into the search. */
async function openStop(deps: Deps, at: Watched, stop: StopSeen): Promise<void> {
  const key = keyOf(`seen-${at.headId}-${stop.atMs}`)
  if (await actByKey(deps.db, 'log', key)) return
  await writeAct(deps, NOBODY, async (w) => {
    const [now] = await w.tx.select().from(stationNow).where(eq(stationNow.stationId, at.stationId)).for('update')
    const carrierId = (await w.shop()).carrierOfStation.get(at.stationId)
    if (!carrierId || !now || now.isParked || now.downSinceMs !== null) return
    const here = { stationId: at.stationId, happenedMs: Math.min(stop.atMs, deps.now()) }
    w.say({
      kind: 'log',
      key,
      lines: [{ ...here, fact: { kind: 'stopped', carrierId, position: null }, note: seenNote(stop) }],
    })
    if (stop.is !== 'notArriving') return
    const fact: ReadingFact = {
      ...{ kind: 'reading', carrierId: at.gunId, what: 'slip', method: WATCHED, how: 'measured', value: stop.slip },
      ...{ left: null, grade: null, is: 'act', headId: at.headId, wireId: null, limit: null, from: {} },
    }
    w.say({ kind: 'read', key: `${key}-slip`, lines: [{ ...here, fact }] })
  })
}
const seenNote = (stop: StopSeen): string =>
  stop.is === 'noStart'
    ? `as the feeder sent it: ${stop.failed} starts in a row came to nothing`
    : `as the feeder sent it: rolls turn, wire does not come${stop.doesArcClimb ? ', the arc climbs' : ''}`

/** What was said and has not come back is not said to be good. */
const isStillHigh = (watch: GunWatch, speed: number) => watch.bands.some((b) => b.speed === speed && b.saidA !== null)
const ofCreeping = ({ amps, baseA, speed, sinceMs, atMs }: Creeping): Said => ({
  ...{ what: 'motorAmps', atMs, value: amps, is: 'look', limit: baseA },
  from: { speed, baseA, sinceMs },
})

const ofStarts = ({ is, share, wellShare, tries, failed, sinceMs, atMs }: StartsTold): Said => ({
  ...{ what: 'failedStarts', atMs, value: share, is: is === 'more' ? 'look' : 'good', limit: null },
  from: { wellShare, tries, failed, sinceMs },
})

type Said = Pick<ReadingFact, 'what' | 'is' | 'limit' | 'from'> & { atMs: number; value: number }
async function keepReading(deps: Deps, at: Watched, said: Said): Promise<void> {
  const key = keyOf(`watch-${at.headId}-${said.what === 'motorAmps' ? '' : `${said.what}-`}${said.atMs}`)
  if (await actByKey(deps.db, 'read', key)) return
  await writeAct(deps, NOBODY, async (w) => {
    const [head] = await w.tx.select().from(headNow).where(eq(headNow.headId, at.headId))
    const { atMs, ...read } = said
    const fact: ReadingFact = {
      ...{ kind: 'reading', carrierId: at.gunId, method: WATCHED, how: 'measured' },
      ...{ left: null, grade: null, headId: at.headId, wireId: head?.spoolWireId ?? null },
      ...read,
    }
    w.say({ kind: 'read', key, lines: [{ fact, stationId: at.stationId, happenedMs: Math.min(atMs, deps.now()) }] })
  })
}

const EVERY_MS = 20_000
const BREATH_MS = 100
/** Watches every few seconds, and lets others in between. */
export const watcher = (deps: Deps, onProblem: (problem: unknown) => void): Rounds =>
  new Rounds({
    everyMs: EVERY_MS,
    onProblem,
    round: async (isOn) => {
      for (let isMore = true; isMore && isOn();) {
        isMore = await watchFeeders(deps)
        if (isMore) await new Promise((done) => setTimeout(done, BREATH_MS))
      }
    },
  })
