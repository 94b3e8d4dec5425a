import { NO_ID } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { readFileSync, renameSync, writeFileSync } from 'node:fs'
import { z } from 'zod'
import { type FeederRowSent } from '@contract/telemetry.ts'
import { AREAS, STAND_IN, YARD } from '@server/demo/yard.ts'
import { standInToken } from '@server/shop/feeders.ts'
import { Calendar } from '@server/time/calendar.ts'
import { clockMovedBy } from '@server/time/clock.ts'
import { answered, bootUp, catchUp, type FeederSetUp, type FeederState } from './feederplayer.ts'

/** The demo's feeders and robot controllers as a process of its own, which talks to the shop only as real equipment would. */
const EVERY_MS = 10_000
const KEPT_MS = 13 * DAY_MS
const MOST_ROWS = 2000

const env = z
  .object({
    SHOP_URL: z.url(),
    STANDIN_SECRET: z.string().min(16),
    STANDIN_FILE: z.string(),
    CLOCK_SHIFT_MS: z.coerce.number().int().default(0),
  })
  .parse(process.env)
const now = clockMovedBy(env.CLOCK_SHIFT_MS)
type Memory = Record<string, FeederState>

function remember(): Memory {
  try {
    return JSON.parse(readFileSync(env.STANDIN_FILE, 'utf8')) as Memory
  } catch {
    return {}
  }
}
function keep(memory: Memory): void {
  writeFileSync(`${env.STANDIN_FILE}.new`, JSON.stringify(memory))
  renameSync(`${env.STANDIN_FILE}.new`, env.STANDIN_FILE)
}

const setUps = STAND_IN.map((feeder, i): FeederSetUp & { arcHours: number } => {
  const area = AREAS.find((a) => a.names.startsWith(feeder.place.replace(/\d+$/, '')))
  const shifts = (area?.shifts ?? []).map((s) => ({ areaId: null, ...s }))
  return {
    equipmentId: feeder.equipmentId,
    arcHours: feeder.arcHoursPerShift,
    plan: { seed: i + 1, duty: feeder.arcHoursPerShift / 7.5, wireMPerMin: feeder.wireMPerMin },
    schedule: new Calendar().scheduleFor({ zone: YARD.zone, shifts, holidays: [] }, NO_ID, now()),
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
    state = catchUp(state, setUp, { nowMs, everyMs: EVERY_MS })
    memory[equipmentId] = state
    while (state.buffer.length > 0) {
      const rows = state.buffer.slice(0, MOST_ROWS)
      if (!(await send(rows, equipmentId))) break
      state = answered(state, rows.at(-1)?.seq ?? -1)
      memory[equipmentId] = state
    }
  }
  keep(memory)
}

const memory = remember()
let isBusy = false
const timer = setInterval(() => {
  if (isBusy) return
  isBusy = true
  void round(memory).finally(() => (isBusy = false))
}, EVERY_MS)
void round(memory)
const stop = () => {
  clearInterval(timer)
  keep(memory)
  process.exit(0)
}
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
