import { believe, showsChance, type Belief } from './belief.ts'
import { type Cause, type Symptom } from './knowledge.ts'
import { fixKey } from './moves.ts'

const MOST = 3
/** Below so many bits an answer tells too little to be asked for. */
const LEAST_BITS = 0.08
/** Bits of what is to be done: causes with one fix are not told apart. */
function entropy({ knowledge, sets, weights }: Belief): number {
  const byFix = new Map<string, number>()
  sets.forEach((set, h) => {
    const fixes = new Set(set.map((i) => fixKey(knowledge.causes[i] as Cause)))
    const key = [...fixes].sort().join()
    byFix.set(key, (byFix.get(key) ?? 0) + (weights[h] ?? 0))
  })
  let bits = 0
  for (const w of byFix.values()) if (w > 0) bits -= w * Math.log2(w)
  return bits
}

/**
 * What else could be seen that would tell most of what to do: other symptoms by the bits their answer takes off on average,
 * I = H(now) − P(there)·H(there) − P(not)·H(not). At most three; of signs with the same causes one.
 */
export function tellingSigns(
  belief: Belief,
  { asked = new Set(), isCell }: { asked?: ReadonlySet<string>; isCell: boolean },
): Symptom[] {
  const now = entropy(belief)
  const told = belief.knowledge.symptoms
    .filter((s) => s.key !== belief.symptom && !asked.has(s.key) && (isCell || s.only !== 'cell'))
    .map((symptom) => ({ symptom, bits: now - left(belief, symptom) }))
    .filter((t) => t.bits > LEAST_BITS)
    .sort((a, b) => b.bits - a.bits)
  const best: Symptom[] = []
  for (const { symptom } of told)
    if (best.length < MOST && !best.some((b) => b.causes.join() === symptom.causes.join())) best.push(symptom)
  return best
}

function left(belief: Belief, symptom: Symptom): number {
  const there = believe(belief, { type: 'symptom', key: symptom.key, isThere: true })
  const not = believe(belief, { type: 'symptom', key: symptom.key, isThere: false })
  const chance = chanceOf(belief, symptom)
  return chance * entropy(there) + (1 - chance) * entropy(not)
}

/** P(seen) under the belief, by what `believe` takes for each set of causes. */
function chanceOf({ knowledge, sets, weights }: Belief, symptom: Symptom): number {
  const listed = new Set(symptom.causes.map((key) => knowledge.causeAt.get(key)))
  return sets.reduce((sum, set, h) => sum + (weights[h] ?? 0) * showsChance(set, listed), 0)
}
