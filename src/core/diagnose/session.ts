import { type Tag } from '@core/changeover/tags.ts'
import { type KindKey } from '@core/path/columns.ts'
import { type ReadingKey } from '@core/reading/keys.ts'
import { type Touched } from './touched.ts'
import { believe, firstBelief, type Belief, type Evidence, type Index } from './belief.ts'
import { fixGroups } from './moves.ts'
import { type Sign } from './knowledge.ts'

/**
 * A stop being worked on, as what was said so far. Everything else follows from it, so that taking back is leaving out the last.
 *
 *   symptom ──(touched last, tried already)──> step ──answer · can't tell · done, no help──> step … ──running──> closing test ──> explained
 *                                               ^──take back──┘                                  └──still there──> step
 */
export type Said =
  | { type: 'check'; key: string; outcome: string }
  | { type: 'cantTell'; key: string }
  /** A fix was done and the trouble stayed. */
  | { type: 'fix'; key: string }
  | { type: 'symptom'; key: string; isThere: boolean }
export interface Stop {
  symptom: string
  said: readonly Said[]
}
/** What of the gun speaks: a reading, a reminder that is tied, a part that does not fit or is far into its life, what was touched, other guns. */
export type Because =
  | { how: 'read'; what: ReadingKey | 'cleaning' }
  | { how: 'tied'; tag: Tag }
  | { how: 'unfit'; at: KindKey | 'off' }
  | { how: 'worn' | 'fresh'; at: KindKey }
  | { how: 'touched'; what: Touched }
  | { how: 'others'; what: 'gas' | 'power' | 'sameWire' }
  | { how: 'notHere' }
/** What the gun's own state says of a cause: how much likelier, by which kind of sign, and why. */
export interface Hint {
  cause: string
  factor: number
  sign: Sign | null
  because: Because
}

export interface Reckoned {
  belief: Belief
  done: ReadonlySet<string>
  signs: ReadonlyMap<number, ReadonlySet<Sign>>
  fixedTimes: ReadonlyMap<string, number>
}
/** The belief, what is done and which kinds of sign spoke, from all that was said. */
export function reckon(
  knowledge: Index,
  stop: Stop,
  at: { hints?: readonly Hint[]; shares?: ReadonlyMap<string, number> } = {},
): Reckoned {
  const factors = new Map<string, number>()
  const signs = new Map<number, Set<Sign>>()
  const speaks = (cause: string, sign: Sign) => {
    const i = knowledge.causeAt.get(cause)
    if (i !== undefined) signs.set(i, (signs.get(i) ?? new Set()).add(sign))
  }
  for (const { cause, factor, sign } of at.hints ?? []) {
    factors.set(cause, (factors.get(cause) ?? 1) * factor)
    if (sign && factor > 1) speaks(cause, sign)
  }
  let belief = firstBelief(knowledge, { symptom: stop.symptom, factors, ...(at.shares ? { shares: at.shares } : {}) })
  const done = new Set<string>()
  const fixedTimes = new Map<string, number>()
  for (const said of stop.said) {
    if (said.type === 'check' || said.type === 'cantTell') done.add(said.key)
    const evidence = evidenceOf(knowledge, said)
    if (evidence) belief = believe(belief, evidence)
    if (said.type === 'fix') fixedTimes.set(said.key, (fixedTimes.get(said.key) ?? 0) + 1)
    if (said.type !== 'check') continue
    const check = knowledge.checkOf.get(said.key)
    for (const cause of check?.outcomes.find((o) => o.key === said.outcome)?.points ?? [])
      speaks(cause, check?.sign ?? 'look')
    // A fresh tip that did not help speaks for what feels the same: what lies upstream.
    if (check?.mends && check.outcomes.at(-1)?.key === said.outcome)
      for (const c of knowledge.causes) if (c.at === 'liner') speaks(c.key, 'swap')
  }
  return { belief, done, signs, fixedTimes }
}

export function evidenceOf(knowledge: Index, said: Said): Evidence | null {
  if (said.type === 'check' || said.type === 'symptom') return said
  if (said.type === 'cantTell') return null
  const group = fixGroups(knowledge).find((g) => g.key === said.key)
  return group ? { type: 'fixed', causes: group.causes.map((i) => knowledge.causes[i]?.key ?? '') } : null
}
