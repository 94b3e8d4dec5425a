import { type StationId } from '@core/ids/id.ts'
import { type Position } from '@core/path/columns.ts'
import { HOUR_MS } from '@core/units/time.ts'
import { type Due } from '@core/houserule/due.ts'
import { workedMs, workingDays, type Schedule } from '@core/clock/schedule.ts'
import { type PositionState } from './state.ts'

/** What Floor needs of a gun to decide whether it opens into a row. */
export interface RankedInput {
  stationId: StationId
  walkOrder: number
  isParked: boolean
  downSinceMs: number | null
  /** Minutes to put right what does not fit, on the path or off it; 0 where nothing stops. */
  wrongMinutes: number
  /** Minutes to put right what was read and is not as it should be; 0 where nothing is. */
  foundMinutes: number
  wants: readonly {
    position: Position
    state: PositionState
    act: 'change' | 'clean' | 'look' | null
    minutes: number
    due: Due | null
    /** What leaving it till tomorrow is expected to cost more than changing it now, minor units; null: not known. */
    leaveMinor?: number | null
  }[]
  /** Money an hour of standing costs here, minor units; ranks guns of equal lateness. */
  stopRateMinorPerHour: number
  /** Working time of its own area: lateness is counted in the shifts worked there. */
  schedule: Schedule | null
}
export interface OpenedRow {
  stationId: StationId
  minutes: number
  shiftsOver: number
  rank: number
}

const SHIFT_HOURS = 8

/** Working shifts since a limit was reached, 0 before; where nobody has told the shifts, one a working day. */
export function shiftsOver(due: Due | null, schedule: Schedule | null, nowMs: number): number {
  if (!due?.isReached || due.reachedMs === null) return 0
  if (!schedule) return workingDays(null, due.reachedMs, nowMs)
  return workedMs(schedule, due.reachedMs, nowMs) / (SHIFT_HOURS * HOUR_MS)
}

const OPENS: readonly PositionState[] = ['due']

/**
 * Opened rows: down first (longest first), then wrong part, then what was read and is to be put right, then due by what leaving it till tomorrow costs (where lives tell; else lateness × what standing costs); ties by the walk.
 * Parked guns, looks and "not seen" open nothing.
 */
export function openedRows(guns: readonly RankedInput[], nowMs: number): OpenedRow[] {
  const rows = guns.flatMap((gun) => {
    const wants = gun.wants.filter((want) => OPENS.includes(want.state))
    if (gun.downSinceMs === null && (gun.isParked || (wants.length === 0 && gun.wrongMinutes + gun.foundMinutes === 0)))
      return []
    const over = Math.max(0, ...wants.map((want) => shiftsOver(want.due, gun.schedule, nowMs)))
    const minutes = gun.wrongMinutes + gun.foundMinutes + wants.reduce((sum, want) => sum + want.minutes, 0)
    return [
      {
        stationId: gun.stationId,
        minutes,
        shiftsOver: over,
        rank: rankOf(gun, { over, nowMs, leaveMinor: leavingOf(wants) }),
        walkOrder: gun.walkOrder,
      },
    ]
  })
  return rows
    .sort((a, b) => b.rank - a.rank || a.walkOrder - b.walkOrder)
    .map(({ stationId, minutes, shiftsOver: over, rank }) => ({ stationId, minutes, shiftsOver: over, rank }))
}

/** Of what is due; null where nothing of it is known. */
function leavingOf(wants: RankedInput['wants']): number | null {
  const known = wants.flatMap((w) => w.leaveMinor ?? [])
  return known.length > 0 ? known.reduce((a, b) => a + b, 0) : null
}

function rankOf(gun: RankedInput, at: { over: number; nowMs: number; leaveMinor: number | null }): number {
  const { over, nowMs, leaveMinor } = at
  if (gun.downSinceMs !== null) return 2e9 + Math.min((nowMs - gun.downSinceMs) / 1000, 9e8)
  if (gun.wrongMinutes > 0) return 1e9
  if (gun.foundMinutes > 0) return 5e8
  // Where no life is known, lateness × what standing costs stands in, of about the same size.
  return leaveMinor ?? (1 + over) * (1 + gun.stopRateMinorPerHour / 100)
}
