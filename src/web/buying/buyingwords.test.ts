import { describe, expect, it } from 'vitest'
import { anId } from '@core/testing/ids.ts'
import { lateSentence } from '@web/parts/LateLine.tsx'
import { NOW, sampleAdvice, sampleOffer, samplePart, sampleStock } from '@web/testing/stocksamples.ts'
import {
  absenceSentence,
  buyBecause,
  buyWords,
  chanceWords,
  hereWords,
  inDays,
  leadWords,
  needBecause,
  needWords,
  nowOrWait,
  partsSentence,
  priceWords,
} from './buyingwords.ts'
import { binWord } from './Bins.tsx'
import { bandsReader, bandsText } from './OfferForm.tsx'
import { columnsReader, columnsText } from './Suppliers.tsx'

const short = (over = {}) =>
  samplePart({
    advice: sampleAdvice({ chanceShort: 0.9, orderInDays: 0, runsOut: { low: 1, middle: 3, high: 6 } }),
    ...over,
  })

describe('what the page says first', () => {
  it('what runs out before its order could be here, soonest first', () => {
    const later = short({
      partId: anId('part', 'part_2'),
      code: 'L-10',
      advice: sampleAdvice({ chanceShort: 0.5, runsOut: { low: 5, middle: 8, high: 12 } }),
    })
    expect(partsSentence(sampleStock([later, short()]))).toBe(
      'Two parts run out before an order of today could be here: T-10 about 26 Nov (24 Nov to 29 Nov); L-10 about 1 Dec (28 Nov to 5 Dec).',
    )
  })
  it('what is to be ordered, what comes next, or that nothing does', () => {
    const due = samplePart({ advice: sampleAdvice({ orderInDays: 0 }) })
    expect(partsSentence(sampleStock([due]))).toContain('One part is to be ordered now: T-10.')
    expect(partsSentence(sampleStock([samplePart()]))).toBe('Nothing wants ordering. Next is T-10, in about 9 days.')
    const idle = samplePart({ advice: sampleAdvice({ orderInDays: null }) })
    expect(partsSentence(sampleStock([idle]))).toBe('Nothing wants ordering within a year.')
  })
  it('what is missing before it can say anything', () => {
    expect(partsSentence(sampleStock([]))).toContain('No part is on any gun yet')
    expect(partsSentence(sampleStock([samplePart({ onHand: null })]))).toContain('Nobody has counted the shelf yet')
    const untold = samplePart({ advice: null, need: [], by: 'nothing' })
    expect(partsSentence(sampleStock([untold]))).toContain('Nobody can tell yet what will be wanted')
    const idle = samplePart({ advice: sampleAdvice({ orderInDays: null }) })
    expect(partsSentence(sampleStock([untold, idle]))).toBe('Nothing that can be told wants ordering within a year.')
  })
  it('what booths with classes go by', () => {
    const by = (booths: number, pace: number) => needBecause(samplePart({ byClasses: { booths, pace } }))
    expect(by(6, 1.02)).toContain('; all by the classes that come, as many as before')
    expect(by(4, 0.61)).toContain('; 4 of them by the classes that come: in four weeks 0.61 of the pace so far')
    expect(by(4, 0)).toContain(': none in four weeks')
    expect(needBecause(samplePart())).not.toContain('classes')
  })
  it('the cheap part that would be missed most, with why; none where a week costs no more than it does', () => {
    expect(absenceSentence(sampleStock([samplePart()]))).toBe(
      'Of what costs little, T-10 (tip 1.0, €0.64 each) would cost most if it were not there: a week without it about €4,000, because Cell 1 and Cell 2 stand without it.',
    )
    expect(absenceSentence(sampleStock([samplePart({ advice: sampleAdvice({ weekWithoutMinor: 90 }) })]))).toBe('')
  })
})

describe('one part', () => {
  it('what is here: by count, by what gets logged, or that the count is wrong', () => {
    const at = { zone: 'UTC' }
    expect(hereWords(samplePart(), at)).toBe('50 by count and log, counted 20 Nov.')
    const thin = samplePart({ likely: { mean: 36, low: 30, high: 42, share: 0.6 } })
    expect(hereWords(thin, at)).toContain('About 6 in 10 changes get logged, so more likely 36 (30–42).')
    expect(hereWords(samplePart({ onHand: -4, likely: null }), at)).toContain('Count it again.')
    expect(hereWords(samplePart({ onHand: null }), at)).toBe('Never counted.')
    expect(hereWords(samplePart({ packed: 3 }), at)).toContain('3 of them lie packed in a kit.')
  })
  it('what will be wanted, by what, and to a day', () => {
    const at = samplePart()
    expect(needWords(at, null)).toContain('In a week 16 (12–20), in a month 68 (58–79), in three months 200 (180–230)')
    const term = { days: 41, mean: 90, low: 80, high: 101 }
    expect(needWords(samplePart({ need: [...at.need, term] }), 41)).toContain('To that day: 90 (80–101).')
    expect(needWords(samplePart({ need: [] }), null)).toContain('nobody can tell yet')
    const seen = { taken: 98, days: 49, by: 'counted' as const }
    expect(needBecause(samplePart({ seen }))).toBe(
      'Because 6 are on guns, each with its own age, by your own lives; the shelf lost 98 in 7 weeks.',
    )
    expect(needBecause(samplePart({ by: 'counts', seen, source: null }))).toBe(
      'Because the shelf lost 98 in 7 weeks; 6 are on guns.',
    )
    expect(needBecause(samplePart({ by: 'nothing', inUse: 0 }))).toBe('It is on no gun.')
  })
  it('what to buy, and why then', () => {
    const at = sampleStock([])
    expect(buyWords(samplePart(), at)).toBe('Order in about 9 days, when 40 are left: 300 from By post, about €190.')
    expect(buyWords(short(), at)).toBe('Order now: 300 from By post, about €190.')
    expect(buyWords(samplePart({ onHand: null }), at)).toBe('Order when 40 are left: 300 from By post, about €190.')
    expect(buyBecause(samplePart(), at)).toBe(
      'About 28 are wanted in the 12 days an order takes; with 40 it lasts 98 times in 100, because one missing costs about €90.',
    )
    expect(buyBecause(samplePart({ advice: sampleAdvice({ service: 0.999, shortMinor: 5 }) }), at)).toContain(
      'practically always, because one missing costs little',
    )
  })
  it('pay more now, or wait', () => {
    const bridge = {
      ...{ supplierName: 'Counter', quantity: 20, minor: 4600, standWithMinor: 2000 },
      ...{ standWithoutMinor: 110_000, chanceShort: 0.83 },
    }
    const at = (b: typeof bridge) => nowOrWait(short({ advice: sampleAdvice({ bridge: b }) }), sampleStock([]))
    expect(at(bridge)).toBe(
      'Bridge it today: 20 from Counter for about €46. Waiting for By post alone runs short 8 times in 10, which would cost about €1,100 of standing.',
    )
    expect(at({ ...bridge, standWithoutMinor: 5000, chanceShort: 0.1 })).toBe(
      'Wait for By post: it runs short 1 time in 10, about €50 of standing; bridging it would take 20 from Counter for about €46.',
    )
    expect(nowOrWait(samplePart(), sampleStock([]))).toBe('')
    expect([0.01, 0.99].map(chanceWords)).toEqual(['hardly ever', 'for sure'])
  })
  it('whose lead time, and prices by how many', () => {
    expect(leadWords(sampleOffer())).toBe('12 days ± 5 days, by your orders')
    expect(leadWords(sampleOffer({ leadBy: 'guess', leadDays: 7, sdLeadDays: 0 }))).toBe('7 days, a guess')
    expect(priceWords(sampleOffer(), 'EUR')).toBe('€0.64, from 500 €0.52')
    expect([0.4, 1, 9, 21, 100].map(inDays)).toEqual(['a day', '1 day', '9 days', '3 weeks', '3 months'])
  })
  it('its bin: days, a year and more, count it, no gun', () => {
    expect(binWord(samplePart())).toBe('22 d')
    const lasts = sampleAdvice({ runsOut: { low: null, middle: null, high: null } })
    expect(binWord(samplePart({ advice: lasts }))).toBe('1 y +')
    expect(binWord(samplePart({ onHand: null }))).toBe('count')
    expect(binWord(samplePart({ advice: null, inUse: 0 }))).toBe('no gun')
  })
})

describe('what is typed of a supplier', () => {
  it('prices by how many, back as they were typed', () => {
    const read = bandsReader('0.64; from 500: 0.52')
    expect(read).toEqual({
      ok: true,
      value: [
        { from: 0, each: 64 },
        { from: 500, each: 52 },
      ],
    })
    expect(bandsText(read.ok ? read.value : [])).toBe('0.64; from 500: 0.52')
  })
  it.each([
    ['', 'Write what one costs'],
    ['0', 'more than 0'],
    ['abc', 'abc'],
    ['0.64; 0.52', 'From how many on does 0.52 hold?'],
    ['from 10: 0.64', 'The first price is for one'],
    ['0.64; from 500: 0.52; from 100: 0.4', 'after the one before'],
  ])('refuses %j in words', (text, why) => {
    const read = bandsReader(text)
    expect(read.ok).toBe(false)
    if (!read.ok) expect(read.why).toContain(why)
  })
  it('columns they want an order in; none are ours', () => {
    const read = columnsReader('Item = their number; Qty = packs')
    expect(read).toEqual({
      ok: true,
      value: [
        { head: 'Item', is: 'theirCode' },
        { head: 'Qty', is: 'packs' },
      ],
    })
    expect(columnsText(read.ok ? read.value : null)).toBe('Item = their number; Qty = packs')
    expect(columnsReader('  ')).toEqual({ ok: true, value: null })
    expect(columnsReader('Item = colour')).toMatchObject({ ok: false })
  })
})

it('an order that is late and that a gun waits for, on Floor', () => {
  const one = {
    ...{ code: 'T-12', name: 'tip 1.2', supplierName: 'By post', dueMs: NOW - 172_800_000, onHand: 15 },
    ...{ outDays: 2.3, stands: ['Cell 1', 'Cell 2'] },
  }
  const at = { nowMs: NOW, zone: 'UTC' }
  expect(lateSentence({ ...at, late: [one] })).toBe(
    'T-12 (tip 1.2) should have come from By post on 21 Nov; 15 are left, for about 2 days. Cell 1 and Cell 2 wait for it then.',
  )
  expect(lateSentence({ ...at, late: [{ ...one, onHand: 0, outDays: 0, stands: [] }, one] })).toBe(
    'T-12 (tip 1.2) should have come from By post on 21 Nov; none is left, for today at most. 1 more part is as late.',
  )
  expect(lateSentence({ ...at, late: [] })).toBe('')
})
