import { anId } from '@core/testing/ids.ts'
import { describe, expect, it } from 'vitest'
import { RULES, type RuleKey } from '@core/rightparts/finding.ts'
import { type FindingLine } from '@contract/rightparts.ts'
import { shopAnswer } from '@web/testing/stage.tsx'
import { asTheBay, lookBody, lookSentence, nextGun, readable } from './look.ts'
import { finding, lookGun } from '@web/testing/samplefindings.ts'
import { datumWords, findingSentence, remedyWords, settingWords, standing, stockWords } from './words.ts'

describe('findings as sentences', () => {
  it('carry the numbers of the gun, in the shop’s units', () => {
    expect(findingSentence(finding(), 'metric')).toBe('The tip is for 1.2 mm, the wire is 0.9 mm.')
    expect(findingSentence(finding(), 'us')).toBe('The tip is for .045, the wire is .035.')
  })
  it('are whole for every rule there is', () => {
    for (const rule of Object.keys(RULES) as RuleKey[]) {
      const said = findingSentence(finding({ rule }), 'metric')
      expect(said).not.toMatch(/[{}]/)
      expect(said).toMatch(/^\S.*[.]$/)
    }
  })
  it('say where a tip stands by hand, not by sign', () => {
    expect([standing(2, 'metric'), standing(-3.5, 'metric'), standing(0, 'metric'), standing(-3.175, 'us')]).toEqual([
      '2 mm out',
      '3.5 mm back',
      'level',
      '0.13 in back',
    ])
    expect(datumWords({ is: 'depths', fromMm: -12, toMm: -3 }, 'metric', true)).toBe('12 mm back to 3 mm back')
  })
})

describe('what to do about one', () => {
  const remedy = (over: Partial<FindingLine>) => remedyWords(finding(over), 'metric')
  it('names the part, the rolls, or what to set', () => {
    expect(remedy({})).toBe('Put on T-9')
    expect(remedy({ put: null })).toBe('No tip here fits')
    expect(remedy({ remedy: { do: 'turn', rolls: [1, 2, 4] } })).toBe('Turn rolls 1, 2 and 4 round')
    expect(remedy({ remedy: { do: 'set', name: 'machineWire', value: '0.9' } })).toBe('Set the machine’s wire: 0.9 mm')
    expect(remedy({ remedy: { do: 'takeOut', kindKey: 'outlet' } })).toBe('Take the outlet guide out')
  })
  it('and how many there are', () => {
    const stock = (onHand: number | null) =>
      stockWords(finding({ put: { partId: anId('part', 'p'), code: 'T-9', name: 'tip', onHand } }))
    expect([stock(3), stock(0), stock(null), stockWords(finding({ put: null }))]).toEqual([
      '3 on the shelf',
      'none on the shelf',
      'not counted',
      'order one, or describe one in Our shop',
    ])
    expect(settingWords('unwind', 'over the top', 'metric')).toBe('wire leaves over the top')
  })
})

describe('a first look', () => {
  const shop = shopAnswer()
  it('as the bay sends the bay’s parts and the number on every roll', () => {
    const gun = lookGun('A1')
    expect(lookBody(gun, asTheBay(gun, shop))).toEqual({
      stationId: gun.stationId,
      wireId: 'wire_1',
      parts: [{ position: 'tip', partId: 'part_1' }],
      settings: [
        { name: 'roll1', value: '1' },
        { name: 'roll2', value: '1' },
      ],
    })
  })
  it('offers every size where the grooves of the rolls are not told: a wrong one can be said', () => {
    expect(readable(asTheBay(lookGun('A1'), shop), shop)).toEqual([0.6, 0.8, 0.9, 1, 1.2, 1.4, 1.6, 1.7, 2, 2.4])
  })
  it('ends with how many are built wrong', () => {
    const base = { nowMs: 0, zone: 'UTC', areas: [] }
    const seen = (name: string, over = {}) => lookGun(name, { lookedMs: 1, ...over }, anId('part', 'part_1'))
    expect(lookSentence({ ...base, guns: [] })).toBe('No guns here yet.')
    expect(lookSentence({ ...base, guns: [lookGun('A1')] })).toBe('Nobody has looked at how 1 gun is built.')
    expect(lookSentence({ ...base, guns: [seen('A1'), seen('A2')] })).toBe('None of 2 guns is built wrong.')
    const guns = [seen('A1', { findings: [finding()] }), seen('A2'), lookGun('A3')]
    expect(lookSentence({ ...base, guns })).toBe('1 of 2 guns is built wrong. 1 not looked at.')
    expect(nextGun({ ...base, guns }, guns[0]?.stationId ?? '')?.name).toBe('A2')
    expect(nextGun({ ...base, guns }, guns[2]?.stationId ?? '')).toBeNull()
  })
})
