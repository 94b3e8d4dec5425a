import { type StationId } from '@core/ids/id.ts'
import { NOTHING_OF_CELL, type CellFit } from '@core/rightparts/facts.ts'
import { DAY_MS, HOUR_MS } from '@core/units/time.ts'
import { eq } from 'drizzle-orm'
import { act } from '@contract/logbook.ts'
import { readingRequest } from '@contract/reading.ts'
import { carrier, part } from '@server/db/schema.ts'
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
  reamEvery: 12,
  sprayMl: 0.6,
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
  await crashAt(deps, who, idOf('Cell 3'))
  await readySpare(deps, who)
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
