import { type Index } from './belief.ts'
import { isAbout, type Check } from './knowledge.ts'
import { planned } from './plan.ts'
import { reckon, type Said } from './session.ts'

/**
 * The looks that come first at a symptom where each finds that all is well there, as a card shows them; fixes between them are passed over.
 * Free looks at no gun in particular: what one gun's own state says is not on a card.
 */
export function firstLooks(
  knowledge: Index,
  of: { symptom: string; shares?: ReadonlyMap<string, number>; most: number },
): Check[] {
  const said: Said[] = []
  const looks: Check[] = []
  const listed = new Set(knowledge.symptoms.find((s) => s.key === of.symptom)?.causes)
  const at = of.shares ? { shares: of.shares } : {}
  for (let n = 0; n < 4 * of.most && looks.length < of.most; n++) {
    const next = planned(reckon(knowledge, { symptom: of.symptom, said }, at))[0]?.step
    if (!next) break
    if (next.kind === 'fix') {
      said.push({ type: 'fix', key: next.group.key })
      continue
    }
    // All of its own causes are looked at: what comes now is of others.
    if (!isAbout(next.check, listed)) break
    looks.push(next.check)
    said.push({ type: 'check', key: next.check.key, outcome: next.check.outcomes.at(-1)?.key ?? '' })
  }
  return looks
}
