import { anId } from '@core/testing/ids.ts'
import { type KindKey } from '@core/path/columns.ts'
import { describe, expect, it } from 'vitest'
import {
  FEEDER,
  NO_PROCEDURE,
  NOTHING_KNOWN,
  onShelf,
  partOf,
  RIGHT_STEEL,
  rollsOf,
  SHELF,
  wireOf,
} from '@core/testing/sampleparts.ts'
import { chainOf, check, findingsWith, normalOn, rightPart } from './check.ts'
import { wireFor } from './chooser.ts'
import { type Setup } from './facts.ts'
import { RULES, type RuleKey } from './finding.ts'
import { UNTOLD_FAMILY } from './untold.ts'
import { permittedDuty, ratingsOf } from './rating.ts'
import { runningGroove } from './rollrules.ts'

const put = (code: string): Setup => ({
  ...RIGHT_STEEL,
  parts: { ...RIGHT_STEEL.parts, [onShelf(code).kindKey]: onShelf(code) },
})
const set = (settings: Setup['settings']): Setup => ({
  ...RIGHT_STEEL,
  settings: { ...RIGHT_STEEL.settings, ...settings },
})
const procedure = (said: Partial<typeof NO_PROCEDURE>): Setup => ({
  ...RIGHT_STEEL,
  procedure: { ...NO_PROCEDURE, ...said },
})
const withFit = (kindKey: KindKey, code: string, fit: Parameters<typeof partOf>[2]): Setup => ({
  ...RIGHT_STEEL,
  parts: { ...RIGHT_STEEL.parts, [kindKey]: partOf(kindKey, code, fit) },
})
const family = (fit: Partial<typeof UNTOLD_FAMILY>): Setup => ({
  ...RIGHT_STEEL,
  family: { id: anId('family', 'fam-kelp'), name: 'Kelp', fit: { ...UNTOLD_FAMILY, neckMm: 150, ...fit } },
})
const aluminium = { ...put('LP12'), wire: wireOf('aluminium', 1.2), gas: 'argon' as const, mode: 'pulse' as const }
const onAluminium = (code: string): Setup => ({
  ...aluminium,
  settings: {},
  parts: {
    ...aluminium.parts,
    tip: onShelf('T12A'),
    rolls: onShelf('RU12'),
    outlet: null,
    [onShelf(code).kindKey]: onShelf(code),
  },
})

/** Each rule with a set-up in which it speaks and says how bad; the right gun is the one in which none does. */
const SPEAKS: Record<RuleKey, { setup: Setup; severity: 'stops' | 'harms' | 'note' }> = {
  tipSmall: { setup: { ...put('T9'), wire: wireOf('solid', 1.2) }, severity: 'stops' },
  tipLarge: { setup: put('T10'), severity: 'harms' },
  tipPlain: { setup: onAluminium('T12'), severity: 'harms' },
  tipWide: { setup: { ...put('T12A'), wire: wireOf('solid', 1.2) }, severity: 'harms' },
  otherFamily: { setup: withFit('diffuser', 'X', { familyId: anId('family', 'fam-other') }), severity: 'stops' },
  otherPin: { setup: { ...family({ pin: 'long' }), feeder: { ...FEEDER, pin: 'short' } }, severity: 'stops' },
  linerSmall: { setup: { ...put('LS10'), wire: wireOf('solid', 1.2) }, severity: 'stops' },
  linerLarge: { setup: put('LS12'), severity: 'harms' },
  linerKind: { setup: onAluminium('LS12'), severity: 'stops' },
  linerSoft: {
    setup: withFit('liner', 'LP9', { fit: { linerKind: 'polymer', wireMm: [0.8, 1] } }),
    severity: 'note',
  },
  linerShort: {
    setup: withFit('liner', 'L3', { fit: { linerKind: 'steel coil', wireMm: [0.8, 1], lengthM: 4 } }),
    severity: 'stops',
  },
  jacketInNeck: {
    setup: withFit('liner', 'LJ', { fit: { isJacketed: true, bareFrontMm: 100, wireMm: [0.8, 1] } }),
    severity: 'harms',
  },
  jumpMissing: { setup: family({ isNeckQuick: true }), severity: 'note' },
  guideSmall: { setup: withFit('inlet', 'G6', { fit: { wireMm: [0.6, 0.8] } }), severity: 'stops' },
  guideLarge: { setup: withFit('outlet', 'G16', { fit: { wireMm: [1.2, 1.6] } }), severity: 'harms' },
  guideSteel: { setup: onAluminium('GO'), severity: 'harms' },
  grooveShape: {
    setup: { ...RIGHT_STEEL, parts: { ...RIGHT_STEEL.parts, rolls: rollsOf('RK9', 'knurled V', [0.9, 1.2]) } },
    severity: 'stops',
  },
  grooveSize: { setup: { ...put('RV12'), settings: {} }, severity: 'stops' },
  rollTurned: { setup: set({ roll2: '1.0' }), severity: 'stops' },
  rollOdd: { setup: set({ roll3: '1.2' }), severity: 'stops' },
  unwind: { setup: set({ unwind: 'from underneath' }), severity: 'harms' },
  polarity: { setup: set({ polarity: 'gun negative' }), severity: 'stops' },
  gas: { setup: set({ gas: 'argon' }), severity: 'stops' },
  gasMode: { setup: { ...set({ gas: 'CO2' }), mode: 'spray' }, severity: 'harms' },
  tipPosition: { setup: set({ tipOut: '-6' }), severity: 'harms' },
  rating: {
    setup: {
      ...family({ mixedAmps: 250, dutyFraction: 0.6 }),
      procedure: { ...NO_PROCEDURE, amps: [280, 320], dutyFraction: 0.5 },
    },
    severity: 'harms',
  },
  nozzleStyle: { setup: family({ nozzleStyle: 'threaded' }), severity: 'stops' },
  reamerBlade: { setup: set({ reamerBlade: '16' }), severity: 'stops' },
  reamerClamp: { setup: set({ reamerClamp: '18' }), severity: 'harms' },
  fitRumour: {
    setup: withFit('nozzle', 'X', { familyId: anId('family', 'fam-kelp'), fit: { proof: 'rumour' } }),
    severity: 'harms',
  },
  fitClaimed: {
    setup: withFit('nozzle', 'X', { familyId: anId('family', 'fam-kelp'), fit: { proof: 'claimed' } }),
    severity: 'note',
  },
  otherWire: { setup: procedure({ wireId: anId('wire', 'wire-solid-1.2') }), severity: 'stops' },
  otherMode: { setup: procedure({ mode: 'spray' }), severity: 'harms' },
  otherGas: { setup: procedure({ gas: 'CO2' }), severity: 'harms' },
  procedurePolarity: {
    setup: procedure({ wireId: anId('wire', 'wire-solid-0.9'), polarity: 'gun negative' }),
    severity: 'harms',
  },
  machineWire: { setup: set({ machineWire: '1.2' }), severity: 'harms' },
  machineMode: { setup: set({ machineMode: 'spray' }), severity: 'harms' },
  machineMaterial: { setup: set({ machineMaterial: 'stainless' }), severity: 'harms' },
  feederSlow: { setup: procedure({ wireMPerMin: [18, 24] }), severity: 'harms' },
  wireThick: { setup: procedure({ thicknessMm: [0.6, 0.6] }), severity: 'harms' },
  wireThin: { setup: procedure({ thicknessMm: [20, 25] }), severity: 'note' },
  wrongAlloy: { setup: procedure({ material: 'aluminium 5xxx' }), severity: 'stops' },
  positionSpray: {
    setup: { ...procedure({ position: 'overhead' }), mode: 'spray', settings: {} },
    severity: 'harms',
  },
}

describe('a gun built right', () => {
  it('has no finding', () => expect(check(RIGHT_STEEL)).toEqual([]))
  it('and one of which nothing is known is not accused', () => expect(check(NOTHING_KNOWN)).toEqual([]))
  it('holds as a chain, and tells what is not told', () => {
    expect(chainOf(RIGHT_STEEL, []).map((l) => l.is)).toEqual(['not told', ...Array<string>(6).fill('agrees')])
    const turned = set({ roll2: '1.0' })
    expect(chainOf(turned, check(turned)).find((l) => l.link === 'rolls')?.is).toBe('wrong')
  })
})

describe.each(Object.entries(SPEAKS) as [RuleKey, (typeof SPEAKS)[RuleKey]][])('%s', (rule, { setup, severity }) => {
  it(`${severity}, and is silent on the gun built right`, () => {
    expect(check(setup).find((f) => f.rule === rule)?.severity).toBe(severity)
    expect(check(RIGHT_STEEL).some((f) => f.rule === rule)).toBe(false)
  })
  it('says what it wants put in', () => {
    const finding = check(setup).find((f) => f.rule === rule)
    for (const [name, datum] of Object.entries({ found: finding?.found, wanted: finding?.wanted }))
      if (RULES[rule].what.includes(`{${name}}`)) expect(JSON.stringify(datum)).not.toContain('""')
  })
})

describe('families', () => {
  it('bind liner, jump liner and O-rings as well as the front; what nobody told a family goes with any', () => {
    const other = { familyId: anId('family', 'fam-other') }
    for (const kindKey of ['neck', 'diffuser', 'insulator', 'tip', 'nozzle', 'liner', 'jump', 'orings'] as const) {
      const at = RIGHT_STEEL.parts[kindKey] ?? {
        ...SHELF[0]!,
        id: anId('part', kindKey),
        kindKey,
        sizeMm: null,
        fit: null,
      }
      const foreign = { ...at, kindKey, ...other }
      expect(
        findingsWith(RIGHT_STEEL, foreign).map((f) => f.rule),
        kindKey,
      ).toContain('otherFamily')
      const untold = { ...at, kindKey, familyId: null }
      expect(
        findingsWith(RIGHT_STEEL, untold).map((f) => f.rule),
        kindKey,
      ).not.toContain('otherFamily')
    }
  })
})

describe('rolls', () => {
  it('run the groove behind the number on feeders that are marked the other way', () => {
    const grooves = [
      { shape: 'V', sizeMm: 0.9 },
      { shape: 'V', sizeMm: 1.2 },
    ] as const
    expect(runningGroove(grooves, 0.9, 'read')?.sizeMm).toBe(0.9)
    expect(runningGroove(grooves, 0.9, 'behind')?.sizeMm).toBe(1.2)
    expect(runningGroove(grooves, 1.6, 'read')).toBeNull()
  })
  it('that serve the wire on one face are turned, not bought', () =>
    expect(check(set({ roll1: '1.0', roll2: '1.0' })).map((f) => f.remedy)).toEqual([{ do: 'turn', rolls: [1, 2] }]))
  it('nobody has read give no verdict', () => expect(check({ ...RIGHT_STEEL, settings: {} })).toEqual([]))
  it('of V on cored wire feed badly, teeth on solid stop', () => {
    const cored = { ...put('RV12'), wire: wireOf('flux-cored', 1.2), settings: {} }
    expect(check(cored).find((f) => f.rule === 'grooveShape')?.severity).toBe('harms')
  })
})

describe('tip on aluminium', () => {
  it('may be a plain one a step over where the family allows it, and its own of the same size', () => {
    expect(check(onAluminium('T12A')).filter((f) => f.at === 'tip')).toEqual([])
    const over = partOf('tip', 'T14', {
      sizeMm: 1.4,
      familyId: anId('family', 'fam-kelp'),
      fit: { isForAluminium: false },
    })
    const setup = onAluminium('T12A')
    expect(check({ ...setup, parts: { ...setup.parts, tip: over } }).filter((f) => f.at === 'tip')).toEqual([])
    const strict = {
      ...setup,
      family: { ...family({ aluBoreOverMm: 0.1 }).family! },
      parts: { ...setup.parts, tip: over },
    }
    expect(check(strict).map((f) => f.rule)).toContain('tipLarge')
  })
})

describe('polarity', () => {
  const cored = (fit: Parameters<typeof wireOf>[2]) => ({
    ...set({ polarity: 'gun positive' }),
    wire: wireOf('flux-cored', 0.9, fit),
  })
  const says = (setup: Setup) => check(setup).some((f) => f.rule === 'polarity')
  it('goes by the wire’s own data first', () => {
    expect(says(cored({ polarity: 'gun negative' }))).toBe(true)
    expect(says({ ...cored({ polarity: 'gun negative', isSelfShielded: false }), polarityBy: 'gasless' })).toBe(false)
  })
  it('is negative for gasless cored wire, and no verdict where its shielding is not told', () => {
    expect(says(cored({ isSelfShielded: true }))).toBe(true)
    expect(says(cored({}))).toBe(false)
  })
})

describe('what to put on', () => {
  it('is right for the wire, of the family, and on the shelf', () => {
    expect(rightPart(put('T10'), 'tip', SHELF)?.code).toBe('T9')
    expect(rightPart(onAluminium('T12'), 'tip', SHELF)?.code).toBe('T12A')
    expect(rightPart(onAluminium('LS12'), 'liner', SHELF)?.code).toBe('LP12')
  })
  it('prefers what is in stock to what is not', () => {
    const empty = SHELF.map((p) => (p.code === 'T9' ? { ...p, onHand: 0 } : p))
    const spare = partOf('tip', 'Z9', { sizeMm: 0.9, familyId: anId('family', 'fam-kelp'), priceMinor: 900 })
    expect(rightPart(put('T10'), 'tip', [...empty, spare])?.code).toBe('Z9')
  })
  it('is nothing when the shop has none, and never a part nobody has described', () => {
    const vague = partOf('rolls', 'R?', {})
    expect(rightPart({ ...RIGHT_STEEL, wire: wireOf('solid', 2) }, 'rolls', [...SHELF, vague])).toBeNull()
  })
})

describe('what goes with the job', () => {
  it('wire by thickness, thin to thick', () => {
    expect(wireFor('steel', false, [0.7, 0.7])).toEqual([0.6, 0.8])
    expect(wireFor('steel', false, [12, 12])).toEqual([1.2, 1.4, 1.6, 2, 2.4])
  })
  it('says nothing of a job nobody has told', () => expect(check(procedure({}))).toEqual([]))
  it('tells what is normal on a wire', () => {
    expect(normalOn(wireOf('solid', 0.9, { grade: 'deoxidised' }))).toContain('islands')
    expect(normalOn(wireOf('solid', 0.9))).toBeNull()
  })
})

describe('permitted duty', () => {
  it('falls with the square of the current, and is at most all the time', () => {
    expect(permittedDuty(300, 0.6, 300)).toBeCloseTo(0.6, 12)
    expect(permittedDuty(300, 0.6, 600)).toBeCloseTo(0.15, 12)
    expect(permittedDuty(300, 0.6, 100)).toBe(1)
    expect(() => permittedDuty(0, 0.6, 100)).toThrow('permittedDuty: expected amps > 0')
  })
  const hot = (over: Partial<Setup> = {}, tipAmps: number | null = null): Setup => ({
    ...family({ mixedAmps: 400, co2Amps: 500, dutyFraction: 0.6 }),
    parts: { ...RIGHT_STEEL.parts, tip: withFit('tip', 'T', { fit: { ratedAmps: tipAmps } }).parts['tip'] ?? null },
    procedure: { ...NO_PROCEDURE, amps: [280, 320], dutyFraction: 0.6 },
    ...over,
  })
  it('is asked of the gun and of each part that tells its rating; the weakest comes first', () => {
    expect(ratingsOf(hot())).toMatchObject([{ at: 'neck', by: 'family', ratedAmps: 400 }])
    const weak = ratingsOf(hot({}, 300))
    expect(weak.map((r) => r.at)).toEqual(['tip', 'neck'])
    expect(weak[0]?.may).toBeLessThan(0.6)
    expect(check(hot({}, 300)).find((f) => f.rule === 'rating')).toMatchObject({
      ...{ at: 'tip', remedy: { do: 'change', kindKey: 'tip' } },
    })
    expect(check(hot({}, 330)).filter((f) => f.rule === 'rating')).toEqual([])
  })
  it('pulse heats more than its mean tells; CO2 cools a part as it cools the gun', () => {
    const [plain] = ratingsOf(hot({ mode: 'spray' }, 330))
    const [pulse] = ratingsOf(hot({ mode: 'pulse' }, 330))
    expect(pulse?.heatAmps).toBeCloseTo(1.15 * 320, 9)
    expect(pulse?.may).toBeLessThan(plain?.may ?? 0)
    expect(pulse?.chance).toBeGreaterThan(plain?.chance ?? 1)
    const [co2] = ratingsOf(hot({ ...set({ gas: 'CO2' }), ...hot({}, 330), gas: 'CO2', mode: 'short circuit' }, 330))
    expect(co2?.may).toBeGreaterThan(plain?.may ?? 1)
  })
  it('at exactly what it may the chance is even; with room to spare it is next to none', () => {
    const even = ratingsOf(hot({ mode: 'spray', procedure: { ...NO_PROCEDURE, amps: [400, 400], dutyFraction: 0.6 } }))
    expect(even[0]?.chance).toBeCloseTo(0.5, 6)
    const room = ratingsOf(hot({ mode: 'spray', procedure: { ...NO_PROCEDURE, amps: [200, 200], dutyFraction: 0.3 } }))
    expect(room[0]?.chance).toBeLessThan(0.001)
    expect(ratingsOf(hot({ procedure: null }))).toEqual([])
  })
})
