import { type FactKind } from './event.ts'

/**
 * What the ledger has to know of each kind of fact besides its fields. A new kind that stands in no row does not compile.
 *
 * `of`: where it belongs, and with it where it goes when a line is moved to another gun: the place itself; its feeder; whatever the position it names
 * rides on; or something that is not moved (a thing of the whole shop, a part on the shelf, a spool, a gun that hangs nowhere).
 * `isCorrectable`: whether its fields may be put right one by one; others only stand or fall.
 * `isSilent`: it says nothing by itself within an act of many lines.
 * `rank`: order at the same instant, smaller first.
 */
export interface FactSpec {
  of: 'place' | 'feeder' | 'position' | 'fixed'
  isCorrectable: boolean
  isSilent: boolean
  rank: number
}
const USUAL: FactSpec = { of: 'fixed', isCorrectable: true, isSilent: false, rank: 4 }
/** Stands or falls. */
const WHOLE: FactSpec = { ...USUAL, isCorrectable: false }
const AT_POSITION: FactSpec = { ...USUAL, of: 'position' }
const OF_PLACE: FactSpec = { ...USUAL, of: 'place' }
const OF_FEEDER: FactSpec = { ...USUAL, of: 'feeder' }

export const FACTS: Record<FactKind, FactSpec> = {
  fitted: { ...AT_POSITION, rank: 3 },
  removed: { ...AT_POSITION, isSilent: true, rank: 1 },
  cleaned: AT_POSITION,
  confirmed: AT_POSITION,
  found: { ...WHOLE, of: 'position' },
  mounted: { ...WHOLE, rank: 0 },
  wireLoaded: { ...OF_FEEDER, isSilent: true },
  wireOff: { ...OF_FEEDER, rank: 1 },
  spoolRead: OF_FEEDER,
  wireLost: OF_FEEDER,
  spoolIn: { ...USUAL, rank: 0 },
  spoolGone: USUAL,
  wireFound: { ...WHOLE, of: 'feeder' },
  stopped: { ...OF_PLACE, rank: 5 },
  crashed: { ...OF_PLACE, isCorrectable: false },
  restarted: { ...OF_PLACE, rank: 2 },
  parked: OF_PLACE,
  unparked: { ...OF_PLACE, rank: 2 },
  counted: USUAL,
  received: USUAL,
  carried: USUAL,
  issued: WHOLE,
  setting: { ...WHOLE, isSilent: true },
  tied: { ...WHOLE, isSilent: true },
  untied: { ...WHOLE, isSilent: true },
  changedOver: WHOLE,
  jointFault: WHOLE,
  gunStatus: WHOLE,
  taskDone: { ...WHOLE, isSilent: true },
  linerCut: WHOLE,
  autopsy: { ...WHOLE, of: 'position' },
  stuck: { ...WHOLE, of: 'position' },
  spoiled: { ...WHOLE, of: 'position' },
  blown: WHOLE,
  reading: WHOLE,
  calibrated: WHOLE,
  // After what opened it, at the same instant.
  followedUp: { ...WHOLE, isSilent: true, rank: 6 },
  nearMiss: WHOLE,
  explained: { ...WHOLE, rank: 6 },
  tuned: WHOLE,
  tuneKept: WHOLE,
  usageEntered: WHOLE,
  handedOver: WHOLE,
  shopChanged: WHOLE,
}
export const FACT_KINDS = Object.keys(FACTS) as FactKind[]
export const SILENT_FACTS: FactKind[] = FACT_KINDS.filter((kind) => FACTS[kind].isSilent)
