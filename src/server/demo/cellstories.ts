import { type StationId } from '@core/ids/id.ts'
import { NOTHING_OF_CELL, type CellFit } from '@core/rightparts/facts.ts'
import { DAY_MS, HOUR_MS } from '@core/units/time.ts'
import { eq } from 'drizzle-orm'
import { act } from '@contract/logbook.ts'
import { readingRequest } from '@contract/reading.ts'
import { workedMs } from '@core/clock/schedule.ts'
import { failedBefore } from '@core/simulator/starts.ts'
import { motorAmpsAt } from '@core/simulator/motor.ts'
import { carrier, feeder, part, stationNow, telemetryRow } from '@server/db/schema.ts'
import { insertMany } from '@server/db/db.ts'
import { watchFeeders } from '@server/cell/watcher.ts'
import { loadShop } from '@server/shopmodel/model.ts'
import { BENDS, CREEPS, STAND_IN, START_FAILS } from './yard.ts'
import { crashed, logOnBench } from '@server/cell/write.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { followedUp } from '@server/followup/act.ts'
import { logActs } from '@server/logbook/log.ts'
import { logReading } from '@server/reading/act.ts'
import { setSettings } from '@server/rightparts/act.ts'
import { saveStation } from '@server/shop/change.ts'

/** The yard's cells as they are built: wire from spools on the back wall, through conduit along post and arm. */
const CELL: CellFit = {
  ...NOTHING_OF_CELL,
  payoff: 'spool',
  booster: 'none',
  conduit: [
    { name: 'wall to post', lengthM: 3.5, bends: 1, lining: 'polymer' },
    { name: 'post to arm', lengthM: 2.5, bends: 2, lining: 'polymer' },
    { name: 'along the arm', lengthM: 1.6, bends: 1, lining: 'rollers' },
  ],
  cutter: 'clamps and shears',
  reach: 'by ladder',
  centreMm: 0.5,
  cycleArcS: 75,
  reamEvery: 8,
  sprayMl: 1.5,
  tankL: 1,
  shotsPerReam: 1,
  lockOut:
    'Yard rule 7: key out of the gate lock and in your pocket, main switch of robot and power source down with your own padlock, air dumped at the red valve. Then try the pendant: dead.',
}
/** Pulls through the lengths of each cell, N: sixty days ago, and last week; one got heavier. */
const PULLS: Readonly<Record<string, readonly (readonly [before: number, now: number])[]>> = {
  'Cell 1': [
    [5.4, 5.6],
    [7.8, 8.1],
    [3.2, 3.1],
  ],
  'Cell 2': [
    [5.2, 5.5],
    [7.6, 13.4],
    [3.4, 3.5],
  ],
  'Cell 3': [
    [5.8, 5.7],
    [8.2, 8.6],
    [3.1, 3.3],
  ],
}
/** Tool centre as it was found each fortnight, mm: it is touched up where it was over the limit. */
const CENTRES: Readonly<Record<string, readonly number[]>> = {
  'Cell 1': [0.2, 0.15, 0.25, 0.2],
  'Cell 2': [0.1, 0.2, 0.15, 0.2],
  'Cell 3': [0.2, 0.25, 0.2],
}

type TankRead = readonly [daysAgo: number, found: number, left: number | null]
/** What was seen of the reamers as their turn came and straight after, newest last, and of the tanks: one blade leaves ever more. */
const REAMED: Readonly<Record<string, { due: readonly string[]; left: readonly string[]; tank: readonly TankRead[] }>> =
  {
    'Cell 1': { due: ['free', 'free', 'free'], left: ['clean'], tank: [[3, 0.2, 1]] },
    'Cell 2': {
      due: ['third', 'ring', 'third'],
      left: ['clean'],
      tank: [
        [11, 0.15, 1],
        [2, 0.3, 1],
      ],
    },
    'Cell 3': {
      due: ['ring', 'ring', 'ring'],
      left: ['ring', 'ring'],
      tank: [
        [12, 0.3, 1],
        [1, 0.12, null],
      ],
    },
  }
/** Reamer, cutter and sprayer of one cell: blades put on seven weeks ago, and what was seen of them since. */
async function plantReamer(
  ago: (days: number) => Deps,
  who: Who,
  { name, slug, stationId }: { name: string; slug: string; stationId: StationId },
): Promise<void> {
  const blades = ['reamer', 'cutter'] as const
  const acts = blades.map((position) => act.parse({ stationId, act: 'changed', position, outReason: 'due' }))
  await logActs(ago(49), who, { key: `story-blades-${slug}`, acts })
  const seen = REAMED[name]
  if (!seen) return
  const look = (days: number, what: 'beforeReam' | 'afterReam', grade: string) =>
    read(ago(days), who, {
      ...{ key: `story-${what}-${slug}-${days}`, stationId, what, method: 'look', how: 'looked', grade },
    })
  for (const [i, grade] of seen.due.entries()) await look(30 - 6 * i, 'beforeReam', grade)
  for (const [i, grade] of seen.left.entries()) await look(29 - 9 * i, 'afterReam', grade)
  for (const [days, value, left] of seen.tank)
    await read(ago(days), who, {
      ...{ key: `story-tank-${slug}-${days}`, stationId, what: 'agentTank', method: 'level', how: 'measured' },
      ...{ value, left },
    })
}

/** Cells as they are built, their necks and pulls, and a crash that was put right ten days ago. */
export async function plantCells(deps: Deps, who: Who, idOf: (name: string) => StationId): Promise<void> {
  const ago = (days: number): Deps => ({ ...deps, now: () => deps.now() - days * DAY_MS })
  for (const [name, pulls] of Object.entries(PULLS)) {
    const [stationId, slug] = [idOf(name), name.replace(' ', '')]
    const own = name === 'Cell 3' ? { ...CELL, reach: 'tilts down' as const } : CELL
    await saveStation(ago(90), who, { key: `story-cell-${slug}`, stationId, except: { cell: own } })
    const settings = [
      { name: 'reamerBlade' as const, value: '19' },
      { name: 'reamerClamp' as const, value: '20' },
    ]
    await setSettings(ago(60), who, { key: `story-reamer-${slug}`, stationId, how: 'read', settings })
    await plantReamer(ago, who, { name, slug, stationId })
    for (const [piece, [before, now]] of pulls.entries())
      for (const [days, value] of [
        [60, before],
        [6, now],
      ] as const)
        await read(ago(days - piece / 1440), who, {
          ...{ key: `story-pull-${slug}-${piece}-${days}`, stationId, what: 'segmentPull', method: 'scale' },
          ...{ how: 'measured', value, from: { piece } },
        })
    for (const [i, value] of (CENTRES[name] ?? []).entries())
      await read(ago(58 - 14 * i), who, {
        ...{
          key: `story-centre-${slug}-${i}`,
          stationId,
          what: 'toolCentre',
          method: 'pointer',
          how: 'measured',
          value,
        },
      })
  }
  await plantCurrents(deps, idOf)
  await crashAt(deps, who, idOf('Cell 3'))
  await readySpare(deps, who)
}

/** Days back to which rows of feeders are kept, nearly. */
const ROWS_DAYS = 12
const ROW_MS = 180_000
const LIVE = 'live-before-the-yard-opened'

/** What the cells' feeders sent of their motors in the last days; one liner creeps under it. */
async function plantCurrents(deps: Deps, idOf: (name: string) => StationId): Promise<void> {
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  for (const [i, one] of STAND_IN.entries()) {
    const stationId = idOf(one.place)
    const station = shop.stationById.get(stationId)
    const [now] = await deps.db.select().from(stationNow).where(eq(stationNow.stationId, stationId))
    if (!station || station.classKey !== 'cell' || !now?.headId) continue
    await deps.db.insert(feeder).values({
      ...{ equipmentId: one.equipmentId, headId: now.headId, tokenHash: `${LIVE} ${one.equipmentId}` },
      receivedMs: nowMs,
    })
    const schedule = shop.scheduleOfArea(station.areaId)
    const rows = rowsOf(one, { seed: i + 1, nowMs, isWorked: (ms) => workedMs(schedule, ms - ROW_MS, ms) > ROW_MS / 2 })
    await insertMany(deps.db, telemetryRow, { rows })
  }
  while (await watchFeeders(deps));
}

/** Rows three minutes apart while the cell works; the current of its motor as the stand-in goes on with it. */
function rowsOf(
  one: (typeof STAND_IN)[number],
  at: { seed: number; nowMs: number; isWorked: (ms: number) => boolean },
): (typeof telemetryRow.$inferInsert)[] {
  const arcS = (one.arcHoursPerShift / 7.5) * (ROW_MS / 1000)
  const creep = one.place === CREEPS.place ? { fromMs: at.nowMs - CREEPS.days * DAY_MS, perDay: CREEPS.perDay } : null
  const motor = { seed: at.seed, baseA: one.motorA, creep }
  const bends = one.place === BENDS.place ? { fromMs: at.nowMs - BENDS.days * DAY_MS, share: BENDS.share } : null
  const starts = { seed: at.seed, share: START_FAILS, worse: bends }
  const rows: (typeof telemetryRow.$inferInsert)[] = []
  let [worked, startsFailed] = [0, 0]
  for (let atMs = at.nowMs - ROWS_DAYS * DAY_MS; atMs < at.nowMs; atMs += ROW_MS) {
    if (!at.isWorked(atMs)) continue
    worked++
    startsFailed += failedBefore(starts, atMs) + failedBefore(starts, atMs - ROW_MS / 2)
    rows.push({
      ...{ equipmentId: one.equipmentId, bootId: LIVE, seq: rows.length, atMs, arcStarts: 2 * worked },
      ...{ arcOnS: worked * arcS, wireFedM: (worked * arcS * one.wireMPerMin) / 60 },
      ...{
        motorAmps: motorAmpsAt(motor, atMs),
        amps: null,
        volts: null,
        gasFlowLpm: null,
        rollFedM: null,
        startsFailed,
      },
    })
  }
  return rows
}

const read = (deps: Deps, who: Who, body: Record<string, unknown>) => logReading(deps, who, readingRequest.parse(body))

/** Ten days ago a clamp stood where it should not: off 0.8, touched up, and the rest looked at. */
async function crashAt(deps: Deps, who: Who, stationId: StationId): Promise<void> {
  const at = (hours: number): Deps => ({ ...deps, now: () => deps.now() - 10 * DAY_MS + hours * HOUR_MS })
  await crashed(at(0), who, { key: 'story-crash', stationId })
  await read(at(0.2), who, {
    ...{ key: 'story-crash-centre', stationId, what: 'toolCentre', method: 'pointer', how: 'measured' },
    ...{ value: 0.8, left: 0.1 },
  })
  for (const task of ['neckStraight', 'cableLook', 'reamer'] as const)
    await followedUp(at(0.3), who, { key: `story-crash-${task}`, stationId, task })
  await logActs(at(0.4), who, { key: 'story-crash-runs', acts: [act.parse({ stationId, act: 'running' })] })
}

/** What is in the ready spare of the booths was read at the bench: it is right for them, the others are not known to be. */
async function readySpare(deps: Deps, who: Who): Promise<void> {
  const [gun] = await deps.db.select().from(carrier).where(eq(carrier.name, 'spare K1'))
  const parts = await deps.db.select().from(part)
  const idOf = (code: string) => parts.find((p) => p.code === code)?.id ?? null
  if (!gun) return
  await logOnBench(deps, who, {
    ...{ key: 'story-spare-read', carrierId: gun.id },
    acts: [
      { act: 'found', position: 'liner', partId: idOf('KE-L10'), outReason: 'notSaid' },
      { act: 'found', position: 'tip', partId: idOf('KE-T10'), outReason: 'notSaid' },
    ],
  })
}
