import { describe, expect, it } from 'vitest'
import { BY_SIGN, walkStop, type WalkedStep } from '@core/testing/searchwalk.ts'
import { indexOf } from './belief.ts'
import { hintsOf, type GunState } from './hints.ts'
import { isAbout, minutesOf, SIGNS } from './knowledge.ts'
import { groupOf, type FixGroup } from './moves.ts'
import { leftStanding, planned } from './plan.ts'
import { type SearchSchools } from './ordered.ts'
import { isFor } from './ratio.ts'
import { reckon, SHOWS, type Hint, type Said } from './session.ts'
import { SHIPPED } from './shipped/knowledge.ts'

const k = indexOf(SHIPPED)
const BOOTH: GunState = {
  ...{ isCell: false, kinds: [], wear: [], found: [], undone: [], isCored: null, alarms: [], tags: [], touched: null },
  others: { gas: 0, sameWire: 0, power: 0 },
}
const CELL: GunState = { ...BOOTH, isCell: true }
const hintsAt = (isCell: boolean) => hintsOf(isCell ? CELL : BOOTH, k)
const cellOnly = new Set(hintsOf(BOOTH, k).map((h) => h.cause))
const isCellStop = (symptom: string, causes: readonly string[]) =>
  SHIPPED.symptoms.find((s) => s.key === symptom)?.only === 'cell' || causes.some((c) => cellOnly.has(c))

interface Stop {
  symptom: string
  causes: string[]
  steps: WalkedStep[]
}
const walked = (symptom: string, causes: string[]): Stop => ({
  ...{ symptom, causes },
  steps: walkStop(k, { symptom, causes, hints: hintsAt(isCellStop(symptom, causes)) }),
})
const alone = SHIPPED.symptoms.flatMap((s) => s.causes.map((c) => walked(s.key, [c])))
/** Two at once: each cause of a symptom with the one that stands after it. */
const pairs = SHIPPED.symptoms.flatMap((s) => s.causes.slice(1).map((c, i) => walked(s.key, [s.causes[i] ?? c, c])))
const all = [...alone, ...pairs]
const told = ({ symptom, causes, steps }: Stop) =>
  `${symptom}, ${causes.join(' and ')}: ${steps.map((s) => s.key).join(' ')}`
const keysOf = (group: FixGroup) => new Set(group.causes.map((i) => k.causes[i]?.key ?? ''))
const listOf = (symptom: string) => SHIPPED.symptoms.find((s) => s.key === symptom)
/** Whether anything said speaks for it. */
const isSpokenFor = (step: WalkedStep, keys: ReadonlySet<string>) =>
  step.said.some(
    (s) =>
      s.type === 'check' &&
      isAbout({ outcomes: k.checkOf.get(s.key)?.outcomes.filter((o) => o.key === s.outcome) ?? [] }, keys),
  )

describe('what an old hand would not do, over every symptom and every cause, one and two at once', () => {
  it('everything is found, within what a stop can bear', () => {
    for (const stop of alone) expect(stop.steps.length, told(stop)).toBeLessThanOrEqual(17)
    const isFound = ({ steps }: Stop, cause: string) =>
      steps
        .flatMap((s) => (s.group ? [...keysOf(s.group)] : s.check?.mends ? s.points : []))
        .some((m) => m === cause || isOneFix(m, cause))
    for (const stop of alone)
      expect(
        stop.causes.every((c) => isFound(stop, c)),
        told(stop),
      ).toBe(true)
    // Of two at once the first hides the second where one look would show both.
    const both = pairs.filter((stop) => stop.causes.every((c) => isFound(stop, c)))
    expect(both.length / pairs.length).toBeGreaterThan(0.95)
  })
  it('no look is had twice, but the one that shows whether a fix put it right', () => {
    for (const stop of all)
      for (const [n, step] of stop.steps.entries()) {
        if (!step.check || !stop.steps.slice(0, n).some((s) => s.key === step.key)) continue
        const proves = stop.steps[n - 1]?.group?.causes.some((i) => k.causes[i]?.fix.proof === step.key)
        expect(proves, told(stop)).toBe(true)
      }
  })
  it('no fix is done twice running, and none again unless a look in between spoke for it', () => {
    for (const stop of all)
      for (const [n, step] of stop.steps.entries()) {
        const before = stop.steps.slice(0, n).findLastIndex((s) => s.group && s.key === step.key)
        if (!step.group || before < 0) continue
        const between = stop.steps.slice(before + 1, n)
        const keys = keysOf(step.group)
        expect(
          between.some((s) => s.points.some((p) => keys.has(p))),
          told(stop),
        ).toBe(true)
      }
  })
  it('no fix of over three minutes before a look of a minute that shows just that', () => {
    for (const stop of all)
      for (const step of stop.steps) {
        if (!step.group || step.group.minutes <= 3) continue
        const named = new Set([...keysOf(step.group)].filter((c) => listOf(stop.symptom)?.causes.includes(c)))
        if (isSpokenFor(step, keysOf(step.group))) continue
        const had = new Set(step.said.map((s) => s.key))
        const missed = k.checks.filter(
          (c) =>
            minutesOf(c) <= 1 &&
            !c.mends &&
            !had.has(c.key) &&
            isFor(c, stop.symptom) &&
            !listOf(stop.symptom)?.told?.includes(c.key) &&
            (c.after === undefined || had.has(c.after)) &&
            isAbout(c, named),
        )
        expect(
          missed.map((c) => c.key),
          told(stop),
        ).toEqual([])
      }
  })
  it('no liner before it was felt or tried free, where it can be', () => {
    for (const stop of all)
      for (const step of stop.steps) {
        if (step.key !== 'changed liner' || !stop.causes.some((c) => WORN.has(c))) continue
        const had = new Set(step.said.map((s) => s.key))
        const keys = keysOf(step.group as FixGroup)
        const tries = k.checks.filter(
          (c) => ['test', 'feel'].includes(c.sign) && isFor(c, stop.symptom) && isAbout(c, keys) && !c.mends,
        )
        expect(tries.length === 0 || tries.some((c) => had.has(c.key)), told(stop)).toBe(true)
      }
  })
  it('no fresh tip before its face was looked at, no setting before a glance at the equipment', () => {
    for (const stop of all)
      for (const step of stop.steps) {
        const had = new Set(step.said.map((s) => s.key))
        if (step.key === 'tipSwap') expect(had.has('tipFace'), told(stop)).toBe(true)
        if (step.key !== 'settings') continue
        expect(had.has('compare'), told(stop)).toBe(true)
        expect(
          [...had].some((key) => key !== 'compare' && k.checkOf.get(key)),
          told(stop),
        ).toBe(true)
      }
  })
  it('nothing of a robot at a booth, nothing that has no sense with what is seen', () => {
    for (const stop of all)
      for (const step of stop.steps) {
        if (step.check) expect(isFor(step.check, stop.symptom), told(stop)).toBe(true)
        if (isCellStop(stop.symptom, stop.causes)) continue
        const about = step.check ? step.check.outcomes.flatMap((o) => o.points) : [...keysOf(step.group as FixGroup)]
        expect(
          about.every((c) => cellOnly.has(c)),
          told(stop),
        ).toBe(false)
      }
  })
  it('what a symptom wants first comes first: a nest is cut out, nothing is forced, a cell is stopped', () => {
    for (const stop of all) {
      const first = listOf(stop.symptom)?.first
      if (first) expect(stop.steps[0]?.key, told(stop)).toBe(first)
    }
    for (const stop of all.filter((s) => s.symptom === 'nest'))
      for (const step of stop.steps) expect(step.check?.hazards ?? [], told(stop)).not.toContain('arc')
  })
  it('what is seen and put right in a few minutes is done next', () => {
    for (const stop of alone)
      for (const [n, step] of stop.steps.entries()) {
        const [cause] = stop.causes
        const i = k.causeAt.get(cause ?? '') ?? -1
        if (!step.check || step.check.mends || !SHOWS.has(step.check.sign)) continue
        const fixes = new Set(step.points.map((p) => groupOf(k, k.causeAt.get(p) ?? -1).key))
        const isQuick = groupOf(k, i).minutes <= 5 && k.causes[i]?.kind !== 'hand'
        if (fixes.size === 1 && isQuick) expect(stop.steps[n + 1]?.key, told(stop)).toBe(groupOf(k, i).key)
      }
  })
  it('a machine that is dark is asked nothing of its gun: others first, then who may open it', () => {
    const said: Said[] = [{ type: 'check', key: 'switch', outcome: 'dead' }]
    const plan = planned(reckon(k, { symptom: 'nothing', said }, { hints: hintsAt(false) }))
    const about = plan.flatMap(({ step }) => (step.kind === 'check' ? [step.check.key] : [step.group.key]))
    expect(about[0]).toBe('booths')
    expect(about).not.toContain('plug')
    expect(about).not.toContain('otherGun')
  })
  it('the brake comes after the pin, the bottle after the flow, the other nozzle after the insulator', () => {
    const before = (fix: string, look: string) => {
      for (const stop of alone)
        for (const step of stop.steps)
          if (step.key === fix)
            expect(
              step.said.some((s) => s.key === look),
              told(stop),
            ).toBe(true)
    }
    before('hubLoose', 'hubLook')
    before('cylinderEmpty', 'flow')
    before('changed nozzle', 'nozzleGrip')
  })
})
describe('however the shop does it', () => {
  const liner = BY_SIGN.liner
  const shops: [string, SearchSchools][] = [
    ...['tip', 'clean', 'liner', 'seat'].map((first): [string, SearchSchools] => [first, { first, liner }]),
    ['a sign of the liner that holds', { ...BY_SIGN, liner: { ...liner, school: 'signs', isSigned: true } }],
    ['the liner after tips', { ...BY_SIGN, liner: { ...liner, school: 'afterTips' } }],
    ['the liner last', { ...BY_SIGN, liner: { ...liner, school: 'last' } }],
  ]
  it.each(shops)(
    '%s first: what is wanted first comes first, no look twice, no fix twice running, and an end',
    (_, schools) => {
      for (const { symptom, causes } of alone) {
        const hints = hintsAt(isCellStop(symptom, causes))
        const stop = { symptom, causes, steps: walkStop(k, { symptom, causes, hints, schools }) }
        const first = listOf(symptom)?.first
        if (first) expect(stop.steps[0]?.key, told(stop)).toBe(first)
        expect(stop.steps.length, told(stop)).toBeLessThanOrEqual(19)
        for (const [n, step] of stop.steps.entries()) {
          // So many fresh tips running are that school.
          const isSchool = schools.liner.school === 'afterTips' && step.key === 'changed tip'
          const isTwice = step.group !== null && stop.steps[n + 1]?.key === step.key
          expect(isTwice && !isSchool, told(stop)).toBe(false)
          const isProof = stop.steps[n - 1]?.group?.causes.some((i) => k.causes[i]?.fix.proof === step.key)
          const isAgain = step.check !== null && stop.steps.slice(0, n).some((s) => s.key === step.key)
          expect(isAgain && !isProof, told(stop)).toBe(false)
        }
      }
    },
  )
})
const WORN = new Set(['linerWorn', 'linerKinked', 'linerDirty', 'linerFitting'])
const isOneFix = (a: string, b: string) =>
  groupOf(k, k.causeAt.get(a) ?? -1).key === groupOf(k, k.causeAt.get(b) ?? -1).key

describe('what is known of this gun', () => {
  const known = (cause: string): Hint => ({
    ...{ cause, factor: 10, sign: 'reading', isKnown: true },
    because: { how: 'found', rule: 'rollTurned', at: 'rolls' },
  })
  const firstOf = (symptom: string, hints: Hint[], said: Said[] = []) => {
    const [next] = planned(reckon(k, { symptom, said }, { hints: [...hintsAt(false), ...hints] }))
    return next?.step.kind === 'fix' ? `fix ${next.step.group.key}` : next?.step.check.key
  }
  it('comes first where it can be behind what is seen, once, and not where somebody says it is right by now', () => {
    expect(firstOf('morePressure', [known('rollWrong')])).toBe('fix rollWrong')
    expect(firstOf('morePressure', [known('rollWrong')], [{ type: 'notSo', key: 'rollWrong' }])).not.toBe(
      'fix rollWrong',
    )
    const after = firstOf('morePressure', [known('rollWrong')], [{ type: 'fix', key: 'rollWrong' }])
    expect(after).not.toBe('fix rollWrong')
  })
  it('leaves a trouble alone that it has no part in, and waits until a nest is out', () => {
    expect(firstOf('nozzleLoose', [known('rollWrong')])).toBe('insulatorFeel')
    expect(firstOf('nest', [known('spoolReversed')])).toBe('nestOut')
    const out: Said[] = [{ type: 'check', key: 'nestOut', outcome: 'well' }]
    expect(firstOf('nest', [known('spoolReversed')], out)).toBe('fix spoolReversed')
  })
  it('of what takes half an hour, the free looks come before', () => {
    const wrong = known('linerWrong')
    expect(firstOf('jerk', [wrong])).not.toContain('fix')
    const steps = walkStop(k, { symptom: 'jerk', causes: ['linerWrong'], hints: [...hintsAt(false), wrong] })
    expect(steps.at(-1)?.key).toBe('changed liner')
  })
})

describe('where nothing is left', () => {
  it('what stands all the same is named, the likeliest first, and no screen comes back', () => {
    for (const s of SHIPPED.symptoms) {
      const said: Said[] = []
      for (let n = 0; n < 80; n++) {
        const at = reckon(k, { symptom: s.key, said }, { hints: hintsAt(s.only === 'cell') })
        const [next] = planned(at)
        if (!next) {
          const left = leftStanding(at)
          expect(left.length, s.key).toBeGreaterThan(0)
          expect(left[0]?.chance, s.key).toBeGreaterThanOrEqual(left.at(-1)?.chance ?? 1)
          break
        }
        expect(n, s.key).toBeLessThan(79)
        const last = said.at(-1)
        if (next.step.kind === 'fix') {
          expect(last?.type === 'fix' && last.key === next.step.group.key, s.key).toBe(false)
          said.push({ type: 'fix', key: next.step.group.key })
        } else
          said.push({ type: 'check', key: next.step.check.key, outcome: next.step.check.outcomes.at(-1)?.key ?? '' })
      }
    }
  })
  it('every kind of sign is one that shows a thing or one that only speaks of it', () =>
    expect(SIGNS.filter((s) => !SHOWS.has(s))).toEqual(['arc', 'test', 'swap']))
})
