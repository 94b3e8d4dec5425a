import { UNTOLD_FEEDER } from '@core/rightparts/untold.ts'
import { type FeederFit } from '@core/rightparts/facts.ts'

/** How wire is driven, told by what anybody sees with the door open. */
export interface FeederKind {
  name: string
  told: string
  rollCount: 2 | 4
}
export const FEEDER_KINDS = {
  two: { name: 'feeder, two rolls', told: 'one pair of rolls', rollCount: 2 },
  four: { name: 'feeder, four rolls', told: 'two pairs, one behind the other', rollCount: 4 },
  pushPull: { name: 'push–pull, rolls in the gun too', told: 'a motor in the gun pulls as well', rollCount: 2 },
  spoolGun: { name: 'spool gun', told: 'a small spool on the gun itself', rollCount: 2 },
} as const satisfies Record<string, FeederKind>
export type FeederKindKey = keyof typeof FEEDER_KINDS
export const FEEDER_KIND_KEYS = Object.keys(FEEDER_KINDS) as [FeederKindKey, ...FeederKindKey[]]

/** The feeder as the shop keeps it. Whether the number that is read is the groove that runs is not asked: read is what most mean. */
export const feederFitOf = (key: FeederKindKey): FeederFit => ({
  ...UNTOLD_FEEDER,
  rollCount: FEEDER_KINDS[key].rollCount,
})
