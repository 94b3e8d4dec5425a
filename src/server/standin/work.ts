import { NO_ID } from '@core/ids/id.ts'
import { MIN_MS } from '@core/units/time.ts'
import { workedMs, type Schedule } from '@core/clock/schedule.ts'
import { AREAS, YARD } from '@server/demo/yard.ts'
import { Calendar } from '@server/time/calendar.ts'

const calendar = new Calendar()
/** The shifts of an area of the yard; null where it has none of its own. */
export function shiftsOfYard(area: (typeof AREAS)[number] | undefined, nowMs: number): Schedule | null {
  const shifts = (area?.shifts ?? []).map((s) => ({ areaId: null, ...s }))
  return calendar.scheduleFor({ zone: YARD.zone, shifts, holidays: [] }, NO_ID, nowMs)
}
/** Whether an area of the yard works at a moment. */
export function isWorking(areaName: string, nowMs: number): boolean {
  const area = AREAS.find((a) => a.name === areaName)
  const schedule = area ? shiftsOfYard(area, nowMs) : null
  return schedule !== null && workedMs(schedule, nowMs - MIN_MS, nowMs) > MIN_MS / 2
}
