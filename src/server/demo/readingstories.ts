import { type StationId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { type z } from 'zod'
import { withValues, type DragSetup } from '@core/drag/setup.ts'
import { pathOf } from '@core/drag/path.ts'
import { tensionWindow } from '@core/drag/window.ts'
import { drawNormal, makeRandom } from '@core/random/random.ts'
import { calibrateRequest } from '@contract/drag.ts'
import { readingRequest } from '@contract/reading.ts'
import { calibrate, readDrag } from '@server/drag/endpoints.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { type Fact } from '@core/ledger/event.ts'
import { methodOf } from '@core/reading/specs.ts'
import { keyOf, writeAct, type SaidAct } from '@server/write/act.ts'
import { carrierAt, type Place, placeOf } from '@server/write/place.ts'
import { numbersOf, readingFacts } from '@server/reading/act.ts'
import { readingsHere } from '@server/gunnow/readingkept.ts'
import { targetHere } from '@server/reading/read.ts'
import { hungOne } from '@server/gunnow/hung.ts'
import { loadShop, type ShopModel } from '@server/shopmodel/model.ts'

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
  idOf: (name: string) => StationId
}
type Input = Omit<z.input<typeof readingRequest>, 'key' | 'stationId'>
type Read = (daysAgo: number, place: string, said: Input) => void
interface Said {
  atMs: number
  place: string
  said: Input | 'nozzle cleaned'
}

/** Everything said at one place, in the order it happened, each by the windows that held then; written at once with the rest. */
async function actsOf(planting: Planting, shop: ShopModel, said: readonly Said[]): Promise<SaidAct[]> {
  const { deps, idOf } = planting
  const stationId = idOf(said[0]?.place ?? '')
  const hung = await hungOne(deps.db, shop, stationId)
  const place = await placeOf(deps.db, stationId, shop)
  const here = await readingsHere(deps.db, hung, shop)
  const acts: SaidAct[] = []
  for (const s of [...said].sort((a, b) => a.atMs - b.atMs)) {
    const facts = s.said === 'nozzle cleaned' ? cleanedFacts(place, shop) : factsAt(s.said, s.atMs)
    acts.push({
      kind: s.said === 'nozzle cleaned' ? 'log' : 'read',
      key: keyOf(`story-read.${stationId}.${acts.length}`),
      lines: facts.map((fact) => ({ fact, happenedMs: s.atMs, loggedMs: s.atMs, stationId })),
    })
    for (const f of facts)
      if (f.kind === 'reading') here.kept.push({ ...f, atMs: s.atMs, kg: null, headId: f.headId, wireId: f.wireId })
  }
  return acts

  function factsAt(input: Input, atMs: number): Fact[] {
    const r = readingRequest.parse({ key: 'story-read', stationId, ...input })
    const method = methodOf(r.what, r.method)
    if (!method) throw new Error(`plantReadings: no way to read ${r.what} called ${r.method}`)
    const target = targetHere(r.what, { hung, shop, here, normBy: () => null, method: r.method })
    return readingFacts(r, numbersOf(r, method), { place, shop, target, wireId: hung.spoolWireId, nowMs: atMs })
  }
}

const cleanedFacts = (place: Place, shop: ShopModel): Fact[] => [
  { kind: 'cleaned', carrierId: carrierAt(place, 'nozzle', shop), position: 'nozzle' },
]

/** A knob that creeps under a liner that dies, one raised to keep going, friction by pulls, a coiled booth, gas that somebody turned. */
export async function plantReadings(planting: Planting): Promise<void> {
  const { deps, who, idOf } = planting
  const said: Said[] = []
  const read: Read = (daysAgo, place, input) =>
    said.push({ atMs: deps.now() - Math.round(daysAgo * DAY_MS), place, said: input })
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
      read(day, place, { ...tension, value })
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
  read(3, 'A3', { ...tension, value: 2.1, left: 3.2, keepGoing: { days: 5 } })
  pulls(read)
  looks(read)
  cleanings(read, said, deps.now())
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const places = [...new Set(said.map((s) => s.place))]
  await writeAct(deps, who, async (w) => {
    for (const place of places) {
      const here = said.filter((s) => s.place === place)
      for (const act of await actsOf(planting, shop, here)) w.say(act)
    }
  })
}

function pulls(read: Read): void {
  const pull = (days: number, place: string, loopedN: number[]) =>
    read(days, place, {
      what: 'pull',
      method: 'pulls',
      how: 'measured',
      from: { straightN: [8.2, 8.6, 8.4], loopedN, loops: 1 },
    })
  pull(53.5, 'A2', [21.1, 22.0, 21.4])
  pull(25, 'A2', [22.4, 23.1, 22.2])
  pull(6, 'A2', [24.0, 24.9, 24.1])
  pull(3.5, 'A8', [30.2, 31.6, 30.8])
}

function looks(read: Read): void {
  read(2, 'T2', { what: 'layout', method: 'look', how: 'looked', grade: 'coiled', value: 2 })
  read(9, 'A1', { what: 'gasFlow', method: 'meter', how: 'measured', value: 14, left: 14 })
  read(0.4, 'A1', { what: 'gasFlow', method: 'meter', how: 'measured', value: 22 })
  read(5, 'A1', { what: 'gap', method: 'feeler', how: 'measured', value: 8 })
  read(5, 'A1', { what: 'hubDrag', method: 'scale', how: 'measured', value: 3.4 })
  read(1.2, 'B6', { what: 'bore', method: 'look', how: 'looked', grade: 'round' })
  read(1.1, 'B6', {
    what: 'bore',
    method: 'twoDiameters',
    how: 'measured',
    from: { maxMm: 1.29, minMm: 1.12 },
  })
}

/** Ten cleanings of one nozzle, each with how closed it was found, and after how many hours of arc. */
function cleanings(read: Read, said: Said[], nowMs: number): void {
  const open = [0.84, 0.8, 0.78, 0.83, 0.75, 0.81, 0.79, 0.85, 0.77, 0.8]
  for (const [i, value] of open.entries()) {
    const day = 20 - 2 * i
    const from = { sinceCleanedH: 1.4 + 0.2 * (i % 4) }
    read(day, 'A1', { what: 'nozzleOpen', method: 'look', how: 'looked', grade: 'ring', value, from })
    said.push({ atMs: nowMs - Math.round((day - 0.002) * DAY_MS), place: 'A1', said: 'nozzle cleaned' })
  }
}
