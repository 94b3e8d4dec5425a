import { DAY_MS } from '@core/units/time.ts'
import { readFileSync, renameSync, writeFileSync } from 'node:fs'
import { z } from 'zod'
import { type FeederRowSent } from '@contract/telemetry.ts'
import { type HandsState } from '@core/simulator/hands.ts'
import { makeRandom } from '@core/random/random.ts'
import { AREAS, BENDS, CELL_FEED, CREEPS, HANDS_TABLET, SNAGS, STAND_IN, START_FAILS } from '@server/demo/yard.ts'
import { standInToken } from '@server/shop/feeders.ts'
import { clockMovedBy } from '@server/time/clock.ts'
import { playRound, type HandsPlay } from './hands.ts'
import { shiftsOfYard } from './work.ts'
import { answered, bootUp, catchUp, type FeederSetUp, type FeederState } from './feederplayer.ts'

/** The demo's feeders and robot controllers as a process of its own, which talks to the shop only as real equipment would. */
const KEPT_MS = 13 * DAY_MS
const MOST_ROWS = 2000

const env = z
  .object({
    SHOP_URL: z.url(),
    STANDIN_SECRET: z.string().min(16),
    STANDIN_FILE: z.string(),
    /** 1: the yard's people play too. */
    STANDIN_PEOPLE: z.enum(['0', '1']).default('0'),
    /** Between two of its rounds. */
    STANDIN_EVERY_MS: z.coerce.number().int().min(100).default(10_000),
    CLOCK_SHIFT_MS: z.coerce.number().int().default(0),
  })
  .parse(process.env)
const now = clockMovedBy(env.CLOCK_SHIFT_MS)
type Memory = Record<string, FeederState>

const HANDS_FILE = `${env.STANDIN_FILE}.hands`
function remember<T>(file: string, otherwise: T): T {
  try {
    return JSON.parse(readFileSync(file, 'utf8')) as T
  } catch {
    return otherwise
  }
}
function keep(file: string, kept: unknown): void {
  writeFileSync(`${file}.new`, JSON.stringify(kept))
  renameSync(`${file}.new`, file)
}

const setUps = STAND_IN.map((feeder, i): FeederSetUp & { arcHours: number } => {
  const area = AREAS.find((a) => a.names.startsWith(feeder.place.replace(/\d+$/, '')))
  const plan = { seed: i + 1, duty: feeder.arcHoursPerShift / 7.5, wireMPerMin: feeder.wireMPerMin }
  return {
    equipmentId: feeder.equipmentId,
    arcHours: feeder.arcHoursPerShift,
    // Its liner has crept as far as the yard tells, and stays there.
    motor: {
      ...{ seed: i + 1, creep: null },
      baseA: feeder.motorA * (feeder.place === CREEPS.place ? 1 + CREEPS.days * CREEPS.perDay : 1),
    },
    starts: { seed: i + 1, share: feeder.place === BENDS.place ? BENDS.share : START_FAILS, worse: null },
    plan,
    feeding: feeder.place.startsWith('Cell')
      ? { seed: i + 1, arcs: plan, ...CELL_FEED, snagEveryH: feeder.place === SNAGS.place ? SNAGS.everyH : null }
      : null,
    schedule: shiftsOfYard(area, now()),
  }
})

async function send(rows: FeederRowSent[], equipmentId: string): Promise<boolean> {
  const response = await fetch(`${env.SHOP_URL}/api/ingest`, {
    method: 'POST',
    headers: {
      'content-type': 'application/json',
      authorization: `Bearer ${standInToken(env.STANDIN_SECRET, equipmentId)}`,
    },
    body: JSON.stringify({ sentMs: now(), rows }),
  }).catch(() => null)
  return response?.ok ?? false
}

async function round(memory: Memory): Promise<void> {
  for (const setUp of setUps) {
    const { equipmentId } = setUp
    const nowMs = now()
    const known = memory[equipmentId]
    // What lies further back than the server keeps rows for is given up, as real equipment with a full memory would.
    const isUsable = known && nowMs - known.countedMs < KEPT_MS
    let state = isUsable ? known : bootUp(`boot-${nowMs.toString(36)}`, nowMs)
    state = catchUp(state, setUp, { nowMs, everyMs: env.STANDIN_EVERY_MS })
    memory[equipmentId] = state
    while (state.buffer.length > 0) {
      const rows = state.buffer.slice(0, MOST_ROWS)
      if (!(await send(rows, equipmentId))) break
      state = answered(state, rows.at(-1)?.seq ?? -1)
      memory[equipmentId] = state
    }
  }
  keep(env.STANDIN_FILE, memory)
}

const memory = remember<Memory>(env.STANDIN_FILE, {})
let hands = remember<HandsState | null>(HANDS_FILE, null)
const play: HandsPlay = {
  url: env.SHOP_URL,
  token: standInToken(env.STANDIN_SECRET, HANDS_TABLET),
  random: makeRandom(now() % 2 ** 31),
}
async function handsRound(): Promise<void> {
  if (env.STANDIN_PEOPLE !== '1') return
  hands = await playRound(hands, play, now())
  keep(HANDS_FILE, hands)
}
let isBusy = false
const timer = setInterval(() => {
  if (isBusy) return
  isBusy = true
  void round(memory)
    .then(handsRound)
    .finally(() => (isBusy = false))
}, env.STANDIN_EVERY_MS)
void round(memory)
const stop = () => {
  clearInterval(timer)
  keep(env.STANDIN_FILE, memory)
  process.exit(0)
}
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
