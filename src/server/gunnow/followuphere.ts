import { HOUR_MS } from '@core/units/time.ts'
import { workedMs, type Schedule } from '@core/clock/schedule.ts'
import { openFollowUps, type OpenFollowUp } from '@core/followup/followup.ts'
import { rulingFor } from '@core/houserule/schools.ts'
import { type Built } from '@core/shop/built.ts'
import { carrierIdsOf, ruledBy, type Hung } from './setup.ts'
import { type ShopPlaces, type ShopRules } from '@server/shopmodel/model.ts'

/** What is still to be done at one place because of what was done there; a parked gun asks for nothing. */
export function followUpsHere(
  hung: Hung,
  at: { shop: ShopPlaces & ShopRules; built: Built; schedule: Schedule | null; nowMs: number },
): OpenFollowUp[] {
  if (hung.now.isParked) return []
  const pending = carrierIdsOf(hung.now, at.shop).flatMap((id) => hung.stateOf(id)?.now?.followUps ?? [])
  if (pending.length === 0) return []
  const by = ruledBy(hung.station, at.built)
  return openFollowUps(pending, {
    nowMs: at.nowMs,
    isCell: hung.station.classKey === 'cell',
    schoolOf: (code) => rulingFor(code, by, at.shop.choices).school.key,
    workedHSince: (ms) => workedMs(at.schedule, ms, at.nowMs) / HOUR_MS,
  })
}
