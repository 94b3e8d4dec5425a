import { type z } from 'zod'
import { withValues, type DragSetup } from '@core/drag/setup.ts'
import { pathOf } from '@core/drag/path.ts'
import { tensionWindow } from '@core/drag/window.ts'
import { drawNormal, makeRandom } from '@core/random/random.ts'
import { calibrateRequest } from '@contract/drag.ts'
import { readingRequest } from '@contract/reading.ts'
import { act } from '@contract/logbook.ts'
import { calibrate, readDrag } from '@server/drag/endpoints.ts'
import { type Deps, type Who } from '@server/http/context.ts'
import { logActs } from '@server/logbook/log.ts'
import { logReading } from '@server/reading/act.ts'

const DAY_MS = 86_400_000
const SEED = 77

/** Where a hand sets the knob: half a mark over what this gun's wire wants with so much friction, to a twentieth of a mark. */
function knobFor(drag: DragSetup, friction: number, jitter: number): number {
  const { lowMark } = tensionWindow(pathOf(withValues(drag, { friction, coils: 0 })))
  return Math.round(((lowMark ?? 3) + 0.5 + jitter) * 20) / 20
}
/** What a spring scale shows where the knob is tried: the model's own traction, a little off each time. */
function slipPulls(drag: DragSetup, random: () => number): { mark: number; forcesN: number[] }[] {
  const { traction } = tensionWindow(pathOf(drag))
  return [1, 4].map((mark) => ({
    mark,
    forcesN: [0, 1, 2].map(
      () => Math.round((traction.atZeroN + traction.perMarkN * mark) * (1 + 0.02 * drawNormal(random)) * 10) / 10,
    ),
  }))
}

interface Planting {
  deps: Deps
  who: Who
  idOf: (name: string) => string
}
type Input = Omit<z.input<typeof readingRequest>, 'key' | 'stationId'>

function reader({ deps, who, idOf }: Planting) {
  let n = 0
  return (daysAgo: number, place: string, said: Input) => {
    const at: Deps = { ...deps, now: () => deps.now() - Math.round(daysAgo * DAY_MS) }
    n += 1
    return logReading(at, who, readingRequest.parse({ key: `story-read-${n}`, stationId: idOf(place), ...said }))
  }
}

/** A knob that creeps under a liner that dies, one raised to keep going, friction by pulls, a coiled booth, gas that somebody turned. */
export async function plantReadings(planting: Planting): Promise<void> {
  const { deps, who, idOf } = planting
  const read = reader(planting)
  const random = makeRandom(SEED)
  const tension = { what: 'tension', method: 'block', how: 'looked', grade: 'curls' } as const
  const dragOf = async (place: string): Promise<DragSetup> => {
    const { drag } = await readDrag(deps, who, { stationId: idOf(place) })
    if (!drag) throw new Error(`plantReadings: no wire on ${place}`)
    return drag.setup
  }
  const creep = async (place: string, days: readonly number[], frictionAt: (share: number) => number) => {
    const drag = await dragOf(place)
    const first = days[0] ?? 1
    for (const day of days) {
      const value = knobFor(drag, frictionAt(1 - day / first), 0.04 * drawNormal(random))
      await read(day, place, { ...tension, value })
    }
  }
  for (const place of ['A8', 'A1']) {
    const pulls = slipPulls(await dragOf(place), random)
    const at: Deps = { ...deps, now: () => deps.now() - 31 * DAY_MS }
    await calibrate(at, who, calibrateRequest.parse({ key: `story-knob-${place}`, stationId: idOf(place), pulls }))
  }
  await creep('B3', [38, 34, 30, 26, 22, 18, 15, 12, 8, 4, 1], (share) => 0.17 + 0.11 * share)
  await creep('A8', [30, 26, 21, 17, 13, 9, 5, 2], (share) => 0.17 + 0.1 * share)
  await creep('A1', [29, 22, 15, 8, 2], () => 0.17)
  await read(3, 'A3', { ...tension, value: 2.1, left: 3.2, keepGoing: { days: 5 } })
  await pulls(read)
  await looks(read)
  await cleanings(planting, read)
}

type Read = ReturnType<typeof reader>
async function pulls(read: Read): Promise<void> {
  const pull = (days: number, place: string, loopedN: number[]) =>
    read(days, place, {
      what: 'pull',
      method: 'pulls',
      how: 'measured',
      from: { straightN: [8.2, 8.6, 8.4], loopedN, loops: 1 },
    })
  await pull(53.5, 'A2', [21.1, 22.0, 21.4])
  await pull(25, 'A2', [22.4, 23.1, 22.2])
  await pull(6, 'A2', [24.0, 24.9, 24.1])
  await pull(3.5, 'A8', [30.2, 31.6, 30.8])
}

async function looks(read: Read): Promise<void> {
  await read(2, 'T2', { what: 'layout', method: 'look', how: 'looked', grade: 'coiled', value: 2 })
  await read(9, 'A1', { what: 'gasFlow', method: 'meter', how: 'measured', value: 14, left: 14 })
  await read(0.4, 'A1', { what: 'gasFlow', method: 'meter', how: 'measured', value: 22 })
  await read(5, 'A1', { what: 'gap', method: 'feeler', how: 'measured', value: 8 })
  await read(5, 'A1', { what: 'hubDrag', method: 'scale', how: 'measured', value: 3.4 })
  await read(1.2, 'B6', { what: 'bore', method: 'look', how: 'looked', grade: 'round' })
  await read(1.1, 'B6', {
    what: 'bore',
    method: 'twoDiameters',
    how: 'measured',
    from: { maxMm: 1.29, minMm: 1.12 },
  })
}

/** Ten cleanings of one nozzle, each with how closed it was found. */
async function cleanings({ deps, who, idOf }: Planting, read: Read): Promise<void> {
  const open = [0.84, 0.8, 0.78, 0.83, 0.75, 0.81, 0.79, 0.85, 0.77, 0.8]
  for (const [i, value] of open.entries()) {
    const day = 20 - 2 * i
    await read(day, 'A1', { what: 'nozzleOpen', method: 'look', how: 'looked', grade: 'ring', value })
    const at: Deps = { ...deps, now: () => deps.now() - (day - 0.002) * DAY_MS }
    await logActs(at, who, {
      key: `story-clean-${i}`,
      acts: [act.parse({ stationId: idOf('A1'), act: 'cleaned', position: 'nozzle' })],
    })
  }
}
