import { type AreaId, type StationId } from '@core/ids/id.ts'
/** Walking from a gun to the next of its area, and over to another area, minutes. Guesses. */
const TO_NEXT_MIN = 0.25
const TO_AREA_MIN = 1.5

/** Where each gun stands along the walk, in minutes from its first, in the order the shop drew. */
export function alongWalk(guns: readonly { stationId: StationId; areaId: AreaId }[]): Map<string, number> {
  const along = new Map<string, number>()
  let at = 0
  guns.forEach((gun, i) => {
    const before = guns[i - 1]
    if (before) at += before.areaId === gun.areaId ? TO_NEXT_MIN : TO_AREA_MIN
    along.set(gun.stationId, at)
  })
  return along
}
