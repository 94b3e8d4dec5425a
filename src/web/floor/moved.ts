import { type FloorAnswer, type FloorMoved } from '@contract/floor.ts'

/** A floor after what was told of it: a gun that is told is another, every other is as it was. */
export function afterMove(before: FloorAnswer, { isWhole, ...moved }: FloorMoved): FloorAnswer {
  if (isWhole) return moved
  const told = new Map(moved.guns.map((g) => [g.stationId, g]))
  return { ...moved, guns: before.guns.map((g) => told.get(g.stationId) ?? g) }
}
