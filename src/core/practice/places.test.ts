import { describe, expect, it } from 'vitest'
import { indexOf } from '@core/diagnose/belief.ts'
import { isFor } from '@core/diagnose/ratio.ts'
import { SHIPPED } from '@core/diagnose/shipped/knowledge.ts'
import { runBead } from './bead.ts'
import { faultsFor } from './drill.ts'
import { FAULT_KEYS, brokenRig, type FaultKey } from './faults.ts'
import { metersOf } from './meters.ts'
import { beadPicture, PLATE } from './picture.ts'
import { BOOTH_PLACES, fixesAt, looksAt, placeOfCheck } from './places.ts'
import { soundRig } from './rig.ts'
import { USUAL_BOOTHS } from './setups.ts'

const knowledge = indexOf(SHIPPED)
const setup = USUAL_BOOTHS[0]!
const rig = soundRig(setup)
const broken = (key: FaultKey, bad = 0.8) => brokenRig(rig, [{ key, bad }])
const all = new Set(knowledge.checks.map((c) => c.key))

describe('what can be done at a booth', () => {
  it.each(knowledge.symptoms.filter((s) => s.only !== 'cell').map((s) => s.key))(
    'with “%s” every look is at one place, and every fault it may be can be put right at some',
    (complaint) => {
      const looks = BOOTH_PLACES.flatMap((place) => looksAt(knowledge, { place, complaint, done: all }))
      expect(looks.length).toBe(knowledge.checks.filter((c) => isFor(c, complaint)).length)
      const fixes = BOOTH_PLACES.flatMap((place) => fixesAt(knowledge, { place, complaint, setup }))
      const mended = new Set(fixes.flatMap((f) => f.group.causes.map((i) => knowledge.causes[i]!.key)))
      const faults = knowledge.symptoms
        .find((s) => s.key === complaint)!
        .causes.filter((c) => (faultsFor(knowledge, setup) as string[]).includes(c))
      expect(faults.filter((f) => !mended.has(f))).toEqual([])
    },
  )
  it('stands where it is: spool at the spool, rolls at the rolls, clamp at the work, settings at the machine', () => {
    const at = (key: string) => placeOfCheck(knowledge, knowledge.checkOf.get(key)!)
    expect(
      [
        'spoolByHand',
        'readRoll',
        'gunSeat',
        'cableLies',
        'tipFace',
        'clamp',
        'compare',
        'flow',
        'switch',
        'nestOut',
        'arcLook',
      ].map(at),
    ).toEqual(['spool', 'rolls', 'pin', 'cable', 'front', 'work', 'machine', 'gas', 'machine', 'rolls', 'work'])
  })
  it('what only narrows another look waits for it; what is for a licensed trade is never offered', () => {
    const soap = (done: string[]) =>
      looksAt(knowledge, { place: 'gas', complaint: 'porosity', done: new Set(done) }).some((c) => c.key === 'soap')
    expect([soap([]), soap(['flow'])]).toEqual([false, true])
    const fixes = fixesAt(knowledge, { place: 'machine', complaint: 'nothing', setup })
    expect(fixes.some((f) => f.cause.fix.isLicensed)).toBe(false)
    expect(fixes[0]?.isListed).toBe(true)
  })
})

describe('what is read', () => {
  const value = (check: string, key: FaultKey) => metersOf(check, { rig: broken(key), sound: rig })[0]
  it('is what gets there, what it pulls, what was set, beside what it should be', () => {
    expect(value('flow', 'orings')?.value).toBeLessThan(7)
    expect(value('flow', 'orings')?.usual).toBe(14)
    const pull = value('pull', 'linerWorn')
    expect((pull?.value ?? 0) / (pull?.usual ?? 1)).toBeGreaterThan(2)
    expect(metersOf('compare', { rig: broken('settings', 0.2), sound: rig }).map((m) => m.value > m.usual)).toEqual([
      true,
      false,
    ])
    expect(metersOf('tipFace', { rig, sound: rig })).toEqual([])
  })
})

describe('the picture of a bead', () => {
  const picture = (r: typeof rig) => beadPicture(runBead(r, { seed: 3 }), { rig: r, setup, seed: 3 })
  it('is even, bright and without holes where nothing is wrong', () => {
    const p = picture(rig)
    const halves = p.slices.slice(5).map((s) => s.half)
    expect(Math.max(...halves) / Math.min(...halves)).toBeLessThan(1.2)
    expect([p.holes.length, p.soot]).toEqual([0, 0])
  })
  it('has holes and soot without gas, gaps where the wire stopped, balls about it where drops were thrown', () => {
    const open = picture(broken('cylinderEmpty'))
    expect(open.holes.length).toBeGreaterThan(8)
    expect(open.soot).toBeGreaterThan(0.6)
    expect(picture(broken('tensionLow', 1)).slices.filter((s) => s.half === 0).length).toBeGreaterThan(10)
    expect(picture(broken('polarity')).spatter.length).toBeGreaterThan(picture(rig).spatter.length + 10)
    expect(Math.max(...picture(broken('tensionHigh')).slices.map((s) => Math.abs(s.off)))).toBeGreaterThan(1)
    expect(picture(broken('circuitOpen')).slices.every((s) => s.half === 0)).toBe(true)
  })
  it('stays on its plate', () => {
    for (const key of FAULT_KEYS.filter((k) => k !== 'coredCrushed'))
      for (const d of [...picture(broken(key)).spatter, ...picture(broken(key)).holes])
        expect([key, d.x > 0 && d.x < PLATE.width && d.y > 0 && d.y < PLATE.height]).toEqual([key, true])
  })
})
