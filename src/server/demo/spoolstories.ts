import { type StationId } from '@core/ids/id.ts'
import { HOUR_MS } from '@core/units/time.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { type SpoolAct, spoolRequest } from '@contract/spools.ts'
import { type JobGiven, jobsRequest } from '@contract/jobs.ts'
import { addJobs } from '@server/spools/jobs.ts'
import { actOnSpool } from '@server/spools/act.ts'
import { readSpools } from '@server/spools/read.ts'

/** The yard numbers its spools since last week: full ones, a short end, one weighed on a gun, a nest. */
export async function plantSpools(deps: Deps, who: Who, idOf: (name: string) => StationId): Promise<void> {
  let n = 0
  const say = (hoursAgo: number, what: SpoolAct) => {
    const then: Deps = { ...deps, now: () => deps.now() - hoursAgo * HOUR_MS }
    return actOnSpool(then, who, spoolRequest.parse({ key: `story-spool-${n++}`, what }))
  }
  const { wires, guns } = await readSpools(deps, who)
  const wireOf = (place: string) => guns.find((g) => g.stationId === idOf(place))?.wireId ?? wires[0]?.id ?? ''
  await say(170, { act: 'in', wireId: wireOf('A1'), count: 4, lot: 'SC-0418' })
  await say(168, { act: 'in', wireId: wireOf('B1'), count: 2, lot: 'SC-0422' })
  await say(120, { act: 'in', wireId: wireOf('R1'), labelKg: 7 })
  const { shelf } = await readSpools(deps, who)
  const spoolId = (number: number) => shelf.find((s) => s.number === number)?.spoolId ?? ''
  await say(96, { act: 'read', spoolId: spoolId(7), grossKg: 1.6 })
  await say(72, { act: 'read', spoolId: spoolId(3), diameterMm: 232 })
  await say(30, { act: 'load', stationId: idOf('A2'), spoolId: spoolId(1), oldLeftKg: 0 })
  await say(4, { act: 'read', stationId: idOf('A2'), grossKg: 9.1 })
  await say(26, { act: 'lost', stationId: idOf('B6'), why: 'nest', metres: 35 })
  await say(20, { act: 'in', wireId: wireOf('T1'), count: 3, lot: 'SC-0431' })
  await say(50, { act: 'lost', stationId: idOf('A4'), why: 'cable emptied' })
  const job = (place: string, name: string, what: Omit<JobGiven, 'name' | 'wireId' | 'starts' | 'mode'>) => ({
    ...{ name, wireId: wireOf(place), starts: 2, mode: null, ...what },
  })
  const leg = (legMm: number) => ({ kind: 'fillet' as const, legMm })
  const jobs = [
    job('A1', 'pontoon frames', { joint: leg(5), lengthM: 1.2, pieces: 60 }),
    job('A1', 'ladder rungs', { joint: leg(4), lengthM: 0.4, pieces: 120 }),
    job('A1', 'mooring lugs', { joint: leg(8), lengthM: 0.6, pieces: 24 }),
    job('B1', 'ramp toe plates', {
      ...{ joint: { kind: 'vee', thicknessMm: 12, angleDeg: 60, gapMm: 2 }, lengthM: 2.4, pieces: 4 },
    }),
    job('R1', 'patch on dock 7', { joint: leg(5), lengthM: 0.9, pieces: 2 }),
  ]
  await addJobs(deps, who, jobsRequest.parse({ key: 'story-jobs', jobs }))
}
