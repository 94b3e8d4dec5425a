import { describe, expect, it } from 'vitest'
import { KIND_DEFAULTS } from '@core/path/kinds.ts'
import { check } from '@core/rightparts/check.ts'
import { MODES, type PartFacts, type Setup } from '@core/rightparts/facts.ts'
import { anId } from '@core/testing/ids.ts'
import { parseWireSize } from '@core/units/wiresize.ts'
import { bayFrom, NO_ANSWERS, type BayAnswers } from './bay.ts'
import { BOUGHT_GAS_KEYS, gasAgainst, gasesInOrder } from './gases.ts'
import { FEEDER_KIND_KEYS } from './feeders.ts'
import { suggestedLimits } from './limits.ts'
import { asksOf, catalogueWire, sizeOnBox, WIRE_KIND_KEYS, wireKind, readWireWords } from './wires.ts'

const ALL_WIRES = WIRE_KIND_KEYS.flatMap((kind) => wireKind(kind).sizesMm.map((sizeMm) => ({ kind, sizeMm })))

/** A gun built as the draft says, for the rules of fit. */
function setupOf(answers: BayAnswers): Setup {
  const draft = bayFrom(answers, 'metric')
  const parts = Object.fromEntries(
    draft.parts.map((p): [string, PartFacts] => [
      p.kindKey,
      { ...p, id: anId('part', `prt_${p.kindKey}`), code: p.name, familyId: null },
    ]),
  )
  return {
    wire: draft.wire ? { id: anId('wire', 'wir_1'), ...draft.wire } : null,
    family: draft.family ? { id: anId('family', 'fam_1'), ...draft.family } : null,
    feeder: draft.feeder ? { id: 'fdt_1', name: draft.feeder.name, ...draft.feeder.fit } : null,
    procedure: null,
    ...draft.built,
    settings: {},
    parts,
    polarityBy: 'gasless',
    tipStands: 'byMode',
  }
}

describe('the wires in the box', () => {
  it('have sizes that can be read back as they stand on the box, in both worlds', () => {
    for (const { sizeMm } of ALL_WIRES)
      for (const units of ['metric', 'us'] as const)
        expect([sizeMm, units, parseWireSize(sizeOnBox(sizeMm, units))]).toEqual([
          sizeMm,
          units,
          { ok: true, diameterMm: sizeMm },
        ])
  })
  it('are read as people write them: fractions, and .045 that some boxes call 1.1', () => {
    for (const [text, diameterMm] of [
      ['1/16', 1.6],
      ['5/64', 2],
      ['3/32 in', 2.4],
      ['1.1', 1.2],
      ['.068', 1.7],
    ] as const)
      expect([text, parseWireSize(text)]).toEqual([text, { ok: true, diameterMm }])
    expect(parseWireSize('7/64').ok).toBe(false)
  })
  it('ask of the gun what the rules of fit ask', () => {
    const asks = (kind: (typeof WIRE_KIND_KEYS)[number]) =>
      asksOf(catalogueWire(kind, wireKind(kind).sizesMm[0] ?? 1, 'us'))
    expect(asks('steel')).toMatchObject({ groove: 'V', liner: 'steel coil', polarity: 'gun positive' })
    expect(asks('bronze')).toMatchObject({ groove: 'U', liner: 'polymer', gases: ['argon', 'argon-helium'] })
    expect(asks('gasless')).toMatchObject({ groove: 'knurled V', polarity: 'gun negative', gases: ['none'] })
    expect(asks('fluxCored')).toMatchObject({ groove: 'knurled V', gases: null })
  })
  it.each([
    ['0.9 solid', 'metric', 'solid steel 0.9'],
    ['.035 mild steel', 'us', 'solid steel .035'],
    ['stainless 308L 1,0', 'metric', 'stainless 1.0'],
    ['flux-cored no gas 5/64', 'us', 'flux-cored, no gas 5/64'],
    ['alu 5356 1.2 mm', 'metric', 'aluminium 5xxx 1.2'],
    ['.045 flux-cored with gas', 'us', 'flux-cored, with gas .045'],
    ['.045 flux-cored', 'us', undefined],
    ['aluminium 1.2', 'metric', undefined],
    ['0.9', 'metric', undefined],
    ['solid', 'metric', undefined],
    ['solid 0.9 or 1.2', 'metric', undefined],
  ] as const)('"%s" in a %s list is %s', (text, units, name) => expect(readWireWords(text, units)?.name).toBe(name))
  it('are named apart', () => {
    for (const units of ['metric', 'us'] as const) {
      const names = ALL_WIRES.map(({ kind, sizeMm }) => catalogueWire(kind, sizeMm, units).name)
      expect(new Set(names).size).toBe(names.length)
    }
  })
})

describe('a gas as it is bought', () => {
  it.each([
    ['mix75', { wire: 'steel', mode: 'spray' }, 'does not go with spray'],
    ['mix90', { wire: 'steel', mode: 'spray' }, null],
    ['co2', { wire: 'steel', mode: 'short circuit' }, null],
    ['mix90', { wire: 'stainless', mode: 'pulse' }, 'too much CO2 for stainless: it carburises and rusts'],
    ['argon', { wire: 'steel', mode: null }, 'not for solid steel'],
    ['none', { wire: 'metalCored', mode: null }, 'metal-cored wants gas'],
    ['none', { wire: 'gasless', mode: null }, null],
    ['co2', { wire: 'fluxCored', mode: 'spray' }, null],
    ['argon', { wire: null, mode: null }, null],
  ] as const)('%s for %o: %s', (key, of, why) => {
    expect(gasAgainst(key, of)).toBe(why)
  })
  it('stands first where it goes with the wire', () => {
    expect(gasesInOrder({ wire: 'aluSoft', mode: null })[0]).toBe('argon')
    expect(gasesInOrder({ wire: 'gasless', mode: null })[0]).toBe('none')
    expect(gasesInOrder({ wire: 'stainless', mode: 'pulse' })[0]).toBe('mix98')
    for (const { kind } of ALL_WIRES)
      expect(gasesInOrder({ wire: kind, mode: null }).toSorted()).toEqual([...BOUGHT_GAS_KEYS].sort())
  })
  it('every wire has one that nothing is said against, in each mode it is welded in', () => {
    for (const kind of WIRE_KIND_KEYS) {
      const [best = 'co2'] = gasesInOrder({ wire: kind, mode: null })
      expect([kind, gasAgainst(best, { wire: kind, mode: null })]).toEqual([kind, null])
    }
  })
})

describe('seven answers', () => {
  const full = (kind: (typeof WIRE_KIND_KEYS)[number], sizeMm: number): BayAnswers => ({
    wire: { kind, sizeMm },
    gunName: 'the grey one',
    nozzle: 'push-on',
    feeder: 'four',
    mode: null,
    gas: gasesInOrder({ wire: kind, mode: null })[0] ?? null,
    cableM: 3,
  })
  it('make a gun with which nothing is wrong, whatever the wire', () => {
    for (const { kind, sizeMm } of ALL_WIRES) {
      const found = check(setupOf(full(kind, sizeMm))).filter((f) => f.severity !== 'note')
      expect([kind, sizeMm, found]).toEqual([kind, sizeMm, []])
    }
  })
  it('that nobody gives make nothing, and nothing is guessed', () => {
    expect(bayFrom(NO_ANSWERS, 'us')).toEqual({
      wire: null,
      family: null,
      feeder: null,
      parts: [],
      built: { mode: null, gas: null, cableM: null, rollCount: null, wireSpeedMPerMin: null },
      doubts: [],
    })
  })
  it('name the parts in the shop’s own units, and leave the number to whoever has the bag in hand', () => {
    const { parts, wire } = bayFrom({ ...NO_ANSWERS, wire: { kind: 'aluSoft', sizeMm: 1.2 }, nozzle: 'threaded' }, 'us')
    expect(wire?.name).toBe('aluminium 4xxx .045')
    expect(parts.map((p) => p.name)).toEqual([
      'contact tip for aluminium .045',
      'polymer liner for .045',
      'drive rolls U .045',
      'nozzle, thread-in',
    ])
  })
  it('that do not go together are told before they are taken', () => {
    const at = (more: Partial<BayAnswers>) => bayFrom({ ...full('aluSoft', 1.2), ...more }, 'metric').doubts
    expect(at({})).toEqual([])
    expect(at({ cableM: 4.5 })).toEqual([expect.stringContaining('folds up')])
    expect(at({ cableM: 4.5, feeder: 'pushPull' })).toEqual([])
    expect(at({ gas: 'co2' })).toEqual(['CO2: not for aluminium 4xxx.'])
    expect(bayFrom({ ...full('steel', 0.9), feeder: 'spoolGun' }, 'metric').doubts).toHaveLength(1)
  })
  it('guess a feed that a machine can run, so that hours are kilograms too', () => {
    for (const wire of ALL_WIRES)
      for (const mode of MODES) {
        const speed = bayFrom({ ...NO_ANSWERS, wire, mode }, 'metric').built.wireSpeedMPerMin ?? 0
        expect([wire, mode, speed > 2 && speed < 24]).toEqual([wire, mode, true])
      }
    expect(
      bayFrom({ ...NO_ANSWERS, wire: { kind: 'steel', sizeMm: 0.9 }, mode: 'short circuit' }, 'us').built
        .wireSpeedMPerMin,
    ).toBe(6)
  })
  it('know every way a wire is driven', () => {
    for (const feeder of FEEDER_KIND_KEYS)
      expect(bayFrom({ ...NO_ANSWERS, feeder }, 'metric').feeder?.fit.rollCount).toBeGreaterThan(1)
  })
})

describe('the trade’s numbers', () => {
  const kinds = KIND_DEFAULTS.map((k) => ({ key: k.key, lifeUnit: k.lifeUnit }))
  it('come with a spread, in the unit the shop counts in', () => {
    const [tip] = suggestedLimits([{ key: 'tip', lifeUnit: 'arcHours' }])
    expect(tip).toEqual({ kindKey: 'tip', changeAt: 8, low: 3.2, high: 20, unit: 'arcHours', lookDays: 7 })
    expect(suggestedLimits([{ key: 'tip', lifeUnit: 'kg' }])[0]).toMatchObject({ changeAt: null, low: null })
  })
  it('say something of every kind that wears', () => {
    const said = suggestedLimits(kinds).map((s) => s.kindKey)
    for (const k of KIND_DEFAULTS)
      if (k.partClass !== 'durable part')
        expect([k.key, said.includes(k.key) || k.isOptional === true]).toEqual([k.key, true])
  })
  it('look at least as often as a thing stays seen', () => {
    for (const s of suggestedLimits(kinds)) {
      const kind = KIND_DEFAULTS.find((k) => k.key === s.kindKey)
      if (kind?.confirmDays && s.lookDays) expect(s.lookDays).toBeLessThanOrEqual(kind.confirmDays)
    }
  })
})
