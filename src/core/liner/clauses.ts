import { FRICTION_LOOK } from '../reading/specs.ts'

/** When a liner is changed: any one clause that is switched on and holds is enough. Its length of wire alone only asks for a look. */
export const LINER_CLAUSES = ['kink', 'pull', 'tips', 'straighten', 'tension', 'length'] as const
export type LinerClause = (typeof LINER_CLAUSES)[number]
export const CLAUSE_TEXT: Record<LinerClause, { says: string; reason: string }> = {
  kink: { says: 'a kink', reason: 'It cannot be straightened again; what looks straight outside is bunched inside.' },
  pull: {
    says: 'a pull above its own beginning',
    reason: 'Measured straight, by one method, against what this gun pulled with the liner new.',
  },
  tips: {
    says: 'fresh tips without effect',
    reason: 'Tip and liner feel the same; with tension and hub passed it is no longer the tip.',
  },
  straighten: {
    says: 'runs smooth only when straight',
    reason: 'Drag that goes with the bend sits in the liner, where the cable itself was not what was wrong.',
  },
  tension: {
    says: 'tension that creeps up',
    reason: 'More tension on the same wire hides a dying liner for days.',
  },
  length: {
    says: 'its length of wire, with a weak sign',
    reason: 'Wire through it wears a groove; with anything else beside it is time.',
  },
}

/** Too little by itself: a tip that changed nothing; dirt where the wire goes in; a stop laid to the liner; half of the way to the pull's ratio; a reading that asks. */
export const WEAK_SIGNS = ['oneTip', 'dust', 'suspected', 'pull', 'reading'] as const
export type WeakSign = (typeof WEAK_SIGNS)[number]

/** The shop's own terms of the rule. */
export interface LinerTerms {
  on: LinerClause[]
  /** Friction over that of the new liner from which it is changed. */
  pullRatio: number
  /** Fresh tips that changed nothing, from which it is the liner. */
  tips: number
}
export const USUAL_TERMS: LinerTerms = { on: [...LINER_CLAUSES], pullRatio: FRICTION_LOOK, tips: 2 }

/** What asks for a new liner before it stops a gun, by the shop's school (D06): its use alone, its signs, or nothing. */
export const linerAskedBy = (school: string): 'use' | 'signs' | 'nothing' =>
  school === 'byUse' ? 'use' : school === 'signs' ? 'signs' : 'nothing'
