import { type Knowledge, type KnowledgeFault } from './knowledge.ts'

/**
 * What the program itself goes by in why a gun stops, though a shop may edit it: answers that speak for a worn liner (D06), symptoms that
 * several guns show at once when their supply fails, signs that say which way a setting goes. Words, minutes and order are the shop's;
 * without the key a rule would fall silent.
 */
export const RELIED_ON = {
  answers: {
    straighten: ['smooth'],
    tipSwap: ['well'],
    block: ['well'],
    spoolByHand: ['well'],
    inletDust: ['dust'],
    booths: [],
    tipRuns: [],
  },
  symptoms: ['porosity', 'soot', 'nothing', 'stubs', 'longArc', 'burnThrough', 'burnback', 'crash'],
  causes: ['linerKinked', 'linerWorn', 'linerDirty', 'wirePoor'],
} as const
type Answers = (typeof RELIED_ON)['answers']
export type ReliedCheck = keyof Answers
export type ReliedAnswer<C extends ReliedCheck> = Answers[C][number]
export type ReliedSymptom = (typeof RELIED_ON)['symptoms'][number]
export type ReliedCause = (typeof RELIED_ON)['causes'][number]

const KEEP = 'the house rules go by it; word it as you like, but it stays'

/** What a new version takes out that the program goes by, in words with the place; what was missing before is not asked for again. */
export function reliedFaults(before: Knowledge, after: Knowledge): KnowledgeFault[] {
  const gone = (list: (k: Knowledge) => readonly { key: string }[], key: string) =>
    list(before).some((x) => x.key === key) && !list(after).some((x) => x.key === key)
  const outcomesOf = (check: string) => (k: Knowledge) => k.checks.find((c) => c.key === check)?.outcomes ?? []
  const says = (where: string): KnowledgeFault => ({ where, says: KEEP })
  const named = (list: readonly { key: string; says: string }[], key: string) =>
    list.find((x) => x.key === key)?.says ?? key
  return [
    ...Object.entries(RELIED_ON.answers).flatMap(([check, answers]) => {
      const asked = before.checks.find((c) => c.key === check)
      if (!asked) return []
      if (gone((k) => k.checks, check)) return [says(`look "${asked.do}"`)]
      const lost = answers.filter((a) => gone(outcomesOf(check), a))
      return lost.map((a) => says(`answer "${named(asked.outcomes, a)}" of "${asked.do}"`))
    }),
    ...RELIED_ON.symptoms.filter((s) => gone((k) => k.symptoms, s)).map((s) => says(`"${named(before.symptoms, s)}"`)),
    ...RELIED_ON.causes.filter((c) => gone((k) => k.causes, c)).map((c) => says(`cause "${named(before.causes, c)}"`)),
  ]
}
