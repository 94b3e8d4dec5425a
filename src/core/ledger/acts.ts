/**
 * An act is what somebody did, and one thing to people; the ledger keeps it in one line or many. Each line names its act: by the act's first line
 * (an act of one line is its own), its kind, and its number within it.
 *
 * `reads`: which of its lines people read: all of them; the first, which speaks for the others; those that tell something by themselves (of a change
 * of wire the parts that went on, not each setting); or none.
 * `isWhole`: its lines stand and fall together when the first is taken back.
 */
export interface ActSpec {
  reads: 'all' | 'first' | 'telling' | 'none'
  isWhole: boolean
}
export const ACTS = {
  /** One thing said at one place. */
  log: { reads: 'all', isWhole: false },
  /** "All looked at": a line for each carrier. */
  seen: { reads: 'first', isWhole: true },
  /** A change of wire. */
  change: { reads: 'telling', isWhole: true },
  /** Work done by a list; its first line is read whatever it says. */
  job: { reads: 'telling', isWhole: true },
  /** A look at how a gun is built. */
  look: { reads: 'first', isWhole: true },
  /** A follow-up said of two carriers. */
  followed: { reads: 'first', isWhole: true },
  /** A reading with what it ties and settles. */
  read: { reads: 'telling', isWhole: true },
  /** Looks at one gun of a walk: the worst speaks for all. */
  walked: { reads: 'first', isWhole: true },
  /** What a stop turned out to be. */
  explained: { reads: 'all', isWhole: false },
  /** One value of a machine set by itself, and the settings kept at the end. */
  tuned: { reads: 'all', isWhole: false },
  /** What happened to a spool. */
  spool: { reads: 'all', isWhole: false },
  /** A gun hung instead of another; found at another place; put right. */
  swap: { reads: 'all', isWhole: false },
  move: { reads: 'all', isWhole: false },
  gun: { reads: 'all', isWhole: false },
  /** Another neck on a robot's gun; a torch that hit something; work on the bench. */
  neck: { reads: 'all', isWhole: true },
  crash: { reads: 'all', isWhole: false },
  bench: { reads: 'all', isWhole: false },
  /** A booth between two classes, with the readings of what is still wrong. */
  handedOver: { reads: 'first', isWhole: true },
  /** Hung when its place was made: nobody did it. */
  hang: { reads: 'none', isWhole: false },
  /** Parts counted, received, handed out. */
  supply: { reads: 'all', isWhole: false },
  usage: { reads: 'all', isWhole: false },
  /** The shop set up otherwise. */
  shop: { reads: 'all', isWhole: false },
  /** A line that a sheet brought. */
  sheet: { reads: 'all', isWhole: false },
  /** Lines put right or taken back. */
  correct: { reads: 'all', isWhole: false },
} as const satisfies Record<string, ActSpec>
export type ActKind = keyof typeof ACTS

export const ACT_KINDS = Object.keys(ACTS) as ActKind[]
const specOf = (kind: ActKind): ActSpec => ACTS[kind]

/** Kinds of acts of which such lines are read. */
export const actsThatRead = (reads: ActSpec['reads']): ActKind[] => ACT_KINDS.filter((k) => specOf(k).reads === reads)
/** Whether taking this line back takes its act back. */
export const bringsWholeAct = (line: { actKind: ActKind; lineNo: number }): boolean =>
  specOf(line.actKind).isWhole && line.lineNo === 0
