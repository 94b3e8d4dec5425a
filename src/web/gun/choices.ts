import { type GunAnswer } from '@contract/gun.ts'
import { type OutReason, type Position } from '@core/path/columns.ts'
import { type Choice } from '@web/log/logkeys.ts'

const USUAL: readonly Choice[] = [
  { act: 'changed', position: 'tip' },
  { act: 'cleaned', position: 'nozzle' },
  { act: 'newSpool', position: null },
  { act: 'changed', position: 'nozzle' },
]
const same = (a: Choice, b: Choice) => a.act === b.act && a.position === b.position

/** The four big keys: what this gun wants, then what is done on it most, then what is usual anywhere. Cold: "as the bay" first. */
export function fourKeys(gun: GunAnswer): Choice[] {
  const wanted = gun.wants.map((w): Choice => ({
    act: w.act === 'clean' ? 'cleaned' : 'changed',
    position: w.position,
  }))
  const often: readonly Choice[] = gun.usualActs
  const isCold = gun.positions.every((p) => p.seenMs === null)
  const first: Choice[] = isCold ? [{ act: 'seen', position: null }] : []
  const all = [...first, ...wanted, ...often, ...USUAL]
  return all.filter((c, i) => all.findIndex((d) => same(c, d)) === i).slice(0, 4)
}

export const reasonsOn =
  (gun: GunAnswer) =>
  (position: Position): readonly OutReason[] =>
    gun.positions.find((p) => p.position === position)?.reasons ?? ['worn', 'due', 'knocked', 'toTry']
