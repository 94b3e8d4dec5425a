import { technique } from '@core/classes/technique.ts'
import { describe, expect, it } from 'vitest'
import { cleaningWay, cleanLimit, LOOKED_AT_DAYS } from '@core/cleaning/interval.ts'
import { polarityFor } from '@core/rightparts/facts.ts'
import { tipOutFor, type FamilyFit, type Setup } from '@core/rightparts/facts.ts'
import { cleanOrChange } from '@core/diagnose/cleanorchange.ts'
import { indexOf } from '@core/diagnose/belief.ts'
import { reckon } from '@core/diagnose/session.ts'
import { SHIPPED } from '@core/diagnose/shipped/knowledge.ts'
import { isSwapOffered } from '@core/diagnose/swap.ts'
import { isMinuteAsked } from '@core/diagnose/tune.ts'
import { linerAskedBy } from '@core/liner/clauses.ts'
import { TRIGGERS, isHeld } from '@core/followup/followup.ts'
import { GUIDE_KEYS } from '@core/guide/keys.ts'
import { guideSteps, hasGuide } from '@core/guide/guides.ts'
import { RULE_OF, type GuideRules } from '@core/guide/rules.ts'
import { type Step } from '@core/guide/step.ts'
import { RAISED_WAYS } from '@core/reading/raised.ts'
import { TENSION_WAY } from '@core/reading/tensionway.ts'
import { FEEDER, wireOf } from '@core/testing/sampleparts.ts'
import { gunOf } from '@core/testing/sampleguide.ts'
import { BY_SIGN, walkStop } from '@core/testing/searchwalk.ts'
import { isLookedAt } from '@core/walk/looks.ts'
import { QUESTIONS, type Asked, type QuestionCode, type SchoolOf } from './schools.ts'

/** Guns on which one question or another makes a difference. */
const GUNS: { fit: Partial<FamilyFit>; setup?: Partial<Setup>; liner?: string }[] = [
  { fit: { linerRule: 'A', seatDepthMm: 18 } },
  { fit: { linerRule: 'B', pushBackMm: 3, doesTipSeatLiner: true, linerHeldBy: 'set screw' } },
  { fit: { linerRule: 'A', linerHeldBy: 'collet' }, setup: { wire: wireOf('aluminium', 1.2) }, liner: 'LP12' },
  { fit: {}, setup: { feeder: { ...FEEDER, hasJog: false } } },
  { fit: {}, setup: { settings: { antiSpatter: 'gel' } } },
]
const RULE_NAME = new Map(Object.entries(RULE_OF).map(([name, code]) => [code as QuestionCode, name]))
/** Every step of every guide, under one answer to one question, all else as usual. */
function stepsUnder(code: QuestionCode, option: string): Step[] {
  const rules = { [RULE_NAME.get(code) ?? '']: option } as Partial<GuideRules>
  return GUNS.flatMap(({ fit, ...more }) => {
    const at = gunOf(fit, { ...more, rules })
    return GUIDE_KEYS.filter((key) => hasGuide(at, key)).flatMap((key) => guideSteps(at, key))
  })
}
const said = (steps: readonly Step[]) =>
  steps.map(({ key, do: todo, look, joint }) => [key, todo, look, joint?.words ?? null])

const k = indexOf(SHIPPED)
const walks = (schools: Partial<typeof BY_SIGN>) =>
  ['jerk', 'stumbles', 'pinholes', 'burnback'].map((symptom) => {
    const causes = k.symptoms.find((s) => s.key === symptom)?.causes.slice(0, 3) ?? []
    return causes.map((cause) =>
      walkStop(k, { symptom, causes: [cause], schools: { ...BY_SIGN, ...schools } }).map((s) => s.key),
    )
  })

const worn = k.causes.find((c) => c.key === 'tipWorn')
const learnt = { hours: 3, n: 5, isHeld: null } as unknown as Parameters<typeof cleanLimit>[0]['learnt']
const triggers = (code: QuestionCode, option: string) =>
  Object.entries(TRIGGERS).map(([key, t]) => [key, t.onlyBy?.code !== code || isHeld(t.onlyBy, () => option)])
const cored = wireOf('metal-cored', 1.2, { polarity: 'DCEN' } as never)

/** What each question changes in what somebody reads, does, is offered or is judged by: told for one of its schools. */
const ACTS: Partial<{ [C in QuestionCode]: (option: SchoolOf<C>) => unknown }> = {
  D02: (option) => [said(stepsUnder('D02', option)), TENSION_WAY[option]],
  D05: (option) => walks({ first: option }),
  D06: (option) => [
    walks({ liner: { ...BY_SIGN.liner, school: option, isSigned: option === 'signs' } }),
    linerAskedBy(option),
  ],
  D09: (option) =>
    tipOutFor({
      ...gunOf({}).setup,
      mode: 'spray',
      tipStands: option === 'level' || option === 'proud' ? option : 'byMode',
    }),
  D16: (option) => [
    cleanLimit({ school: option, ruleH: 2, learnt }),
    cleaningWay(option) === 'hours' ? null : LOOKED_AT_DAYS[cleaningWay(option) as keyof typeof LOOKED_AT_DAYS],
  ],
  D18: (option) => [
    said(stepsUnder('D18', option)),
    worn &&
      cleanOrChange(reckon(k, { symptom: 'jerk', said: [] }).belief, {
        ...{ cause: worn, isSeen: false, onHand: 3, priceMin: 0.1, school: option },
      })?.first,
  ],
  D20: (option) => isSwapOffered({ school: option, leftMin: 40, worthOverMin: 30, stoodMin: 5, firstMin: 20 }),
  D25: (option) => [RAISED_WAYS[option], triggers('D25', option)],
  D26: (option) => [
    ['burnThrough', 'burnback', 'longArc'].map((symptom) =>
      isMinuteAsked(reckon(k, { symptom, said: [] }), { hints: [], blame: option, isDown: false }),
    ),
    walks({ blame: option }),
  ],
  D27: (option) =>
    technique({
      ...{ mode: 'spray', wire: null, joint: 'fillet', position: 'flat', stickOutMm: null },
      pushPull: option,
    }),
  D29: (option) => polarityFor(cored, option === 'gasless' ? 'gasless' : 'wire'),
  D30: (option) => [triggers('D30', option), said(stepsUnder('D30', option))],
  D31: (option) => [isLookedAt('wiper', { gas: null, dirt: option }), option === 'sheath'],
}
const acts = (code: QuestionCode): ((option: string) => unknown) =>
  (ACTS[code] as ((option: string) => unknown) | undefined) ?? ((option) => said(stepsUnder(code, option)))

const RULES = QUESTIONS.filter((q) => q.standing === undefined)
const pairs = (q: Asked) =>
  q.schools.flatMap((a, i) => q.schools.slice(i + 1).map((b) => [q.code, a.key, b.key] as const))

/** What no step may say while a school holds that says otherwise; each is said under some other school. */
const AGAINST: [QuestionCode, string, RegExp][] = [
  ['D01', 'fittedToo', /never with a liner in it/],
  ['D01', 'never', /\bblow the empty cable/i],
  ['D02', 'pinch', /wooden block|bare fingers/],
  ['D02', 'pinchBare', /wooden block|in a dry glove/],
  ['D02', 'mark', /wooden block/],
  ['D08', 'cutters', /hose cutter/],
  ['D11', 'always', /Power on\.$/],
  ['D18', 'clean', /widened: it goes/],
  ['D18', 'change', /it may stay/],
  ['D19', 'scrap', /try (once )?by hand|by hand once/],
  ['D19', 'file', /both go/],
  ['D23', 'cause', /tapped straight/],
  ['D24', 'unscrew', /Look for a set screw/],
]

describe('a house rule', () => {
  it.each(RULES.flatMap(pairs))('%s: “%s” is another thing than “%s”', (code, a, b) => {
    expect(JSON.stringify(acts(code)(a))).not.toBe(JSON.stringify(acts(code)(b)))
  })
  it.each(AGAINST)('%s “%s”: no step says %s', (code, option, says) => {
    const all = (o: string) => stepsUnder(code, o).flatMap((s) => [s.do, s.look ?? ''])
    expect(all(option).filter((line) => says.test(line))).toEqual([])
    const others = QUESTIONS.find((q) => q.code === code)?.schools.filter((x) => x.key !== option) ?? []
    expect(others.some((o) => all(o.key).some((line) => says.test(line)))).toBe(true)
  })
  it('shows its caption only where it decided: no school stands beside what the family settles', () => {
    for (const option of ['family', 'screwFirst', 'unscrew'])
      for (const s of stepsUnder('D24', option).filter((x) => x.byRule === 'D24'))
        expect(`${s.do} ${s.look ?? ''}`, option).not.toMatch(/^Set screw out/)
  })
  it('that waits is offered to nobody, and one that is told is no rule', () => {
    const by = (standing: Asked['standing']) => QUESTIONS.filter((q) => q.standing === standing).map((q) => q.code)
    expect(by('knowledge')).toEqual(['D04'])
    expect(by('later')).toEqual(['D21', 'D22', 'D28', 'D32'])
  })
})
