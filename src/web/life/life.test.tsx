import { anId } from '@core/testing/ids.ts'
import { renderToStaticMarkup } from 'react-dom/server'
import { MemoryRouter } from 'react-router'
import { describe, expect, it } from 'vitest'
import { type LifeAnswer } from '@contract/life.ts'
import {
  costsWords,
  forHundred,
  wireWords,
  reasonWords,
  alongsideWords,
  bladeWords,
  comparedSentence,
  costAt,
  flatWords,
  hungrySentence,
  lifeSentence,
  longerSentence,
  lookUpstream,
  moneySentence,
  movedWords,
  neededWords,
  noHungryWords,
  notSaidWords,
  partsName,
  savingWords,
  schoolDoes,
  seenWords,
  shapeWords,
  shareWords,
  tryoutSentence,
  wornWhereWords,
  cheaperSentence,
} from './lifewords.ts'
import { Schools } from './Schools.tsx'
import { Compared, EachLife, Hungry } from './Told.tsx'
import { TriedHere } from './TriedHere.tsx'
import { UsedParts } from './UsedParts.tsx'
import { life, line, m, money, seen, spread, told } from '@web/testing/lifesamples.ts'

describe('where liners were worn', () => {
  it('a place that stands out asks for its look; else it is only told', () => {
    const counts = { rear: 6, middle: 0, neck: 1 }
    expect(wornWhereWords({ n: 7, counts, most: 'rear' })).toBe(
      'Worn most in the first third behind the machine (6 of 7), more than its length would bring: look how the cable leaves the feeder, and what comes in with the wire.',
    )
    expect(wornWhereWords({ n: 2, counts: { rear: 1, middle: 1, neck: 0 }, most: null })).toBe(
      'Found worn: 1 in the first third behind the machine, 1 in the middle of the cable. No place stands out.',
    )
  })
})

const show = (view: React.ReactElement) => renderToStaticMarkup(<MemoryRouter>{view}</MemoryRouter>)

describe('how long parts last, in words', () => {
  it('half of them, by when, and whose number it is', () => {
    expect(lifeSentence(life(), m)).toBe(
      'Half of the tips in training booths are gone by 6.1 h (5.2–7.3 h; yours, 214).',
    )
    expect(lifeSentence(life({ told: told({ source: 'trade', worn: 2 }) }), m)).toContain('trade; 2 worn here so far')
    expect(lifeSentence(life({ where: 'all' }), m)).toContain('tips here')
    expect(partsName('rolls')).toBe('rolls')
  })
  it('what cannot be told, and what is needed', () => {
    const none = (refused: LifeAnswer['refused'], over = {}) => life({ told: null, money: null, refused, ...over })
    expect(lifeSentence(none('noLives'), m)).toContain('Nothing is known yet')
    expect(neededWords(none('noLives'))).toContain('Log a change')
    expect(lifeSentence(none('nothingEnded'), m)).toContain('has worn out yet')
    const few = none('shareTooLow', { counted: { mean: 5.1, taken: 120 } })
    expect(lifeSentence(few, m)).toBe('A tip in training booths lasts 5.1 h in the mean (counted: about 120 taken).')
    expect(neededWords(few)).toContain('Fewer than 3 in 10')
    expect(moneySentence(few, m)).toBe('')
  })
  it('the share that is logged stands beside it', () => {
    expect(shareWords(life())).toBe('Tips logged: about 8 in 10 of those taken (7 to 9). Corrected for.')
    const all = { ...seen, share: { value: 0.99, low: 0.98, high: 1, isGuess: false } }
    expect(shareWords(life({ seen: all }))).toBe('Tips logged: nearly all of those taken.')
    expect(shareWords(life({ seen: { ...seen, share: { ...seen.share, isGuess: true } } }))).toContain('is a guess')
  })
  it('what was left out is said', () => {
    expect(seenWords(life(), m)).toBe(
      '200 ended, 14 still in, 6 taken out good, 40 timed only to the shift or day. Left out: 3 without any use between two lines, 2 counted in another unit than h.',
    )
    expect(notSaidWords(life({ asWorn: 5.9, asCut: 6.6 }), m)).toContain('by 5.9 h if all of those were worn, by 6.6 h')
  })
  it('the shape says whether a rule can be made of it', () => {
    expect(shapeWords(life())).toContain('much the same age')
    expect(shapeWords(life({ told: told({ shape: spread(1.1, 0.95, 1.3) }) }))).toContain('at any age')
    expect(shapeWords(life({ told: told({ shape: spread(0.8, 0.7, 0.9) }) }))).toContain('young ones')
    expect(shapeWords(life({ seen: { ...seen, ended: 0 } }))).toBe('')
  })
})

describe('a rule in money, in words', () => {
  it('the cheapest, what it saves with its spread, and the standing it takes away', () => {
    expect(moneySentence(life(), m)).toBe(
      'Cheapest: change at 3.2 h. It saves 25 % (22 % to 28 %) against running them to failure, 33 min less standing for 100 arc hours.',
    )
    expect(flatWords(life(), m)).toBe('Anything from 2.4 to 4.2 h is within 5 % of the least.')
    expect(flatWords(life({ money: money({ flat: [5, null] }) }), m)).toContain('Anything from 5 h on')
  })
  it('nothing to be had is said as plainly', () =>
    expect(moneySentence(life({ money: money({ advised: 'runToFailure', unpriced: ['part'] }) }), m)).toBe(
      'Run them to failure: changing earlier saves nothing worth a rule, as far as it is priced.',
    ))
  it('wire is told in the shop’s own units', () => {
    const liner = life({ kind: 'liner', unit: 'kg', asWire: { km: 40.2, name: 'solid steel' } })
    expect(wireWords(liner, m)).toContain(
      'about 40 km of solid steel. A liner wears by length: with another wire its limit is as many kilometres.',
    )
    expect(wireWords(liner, 'us')).toContain(
      'about 25 mi of solid steel. A liner wears by length: with another wire its limit is as many miles.',
    )
    const burnt = life({ reasons: [{ reason: 'burnedBack', n: 9, per100kg: 2.2 }] })
    expect(reasonWords(burnt, m)).toContain('(2.2 for 100 kg)')
    expect(reasonWords(burnt, 'us')).toContain('(1 for 100 lb)')
  })
  it('where nothing is priced yet no rule is called cheapest, or the same as another', () => {
    const at = life({ money: money({ advised: 'runToFailure', unpriced: ['part', 'labour', 'standing'] }) })
    expect(moneySentence(at, m)).toMatch(/^Nothing is priced yet, so no rule can be held against another/)
    expect(costsWords(at)).toMatch(/^A change takes in time 2 min of hands; .* Not priced: the part, an hour of hands/)
    expect(bladeWords(at, 3, m)).not.toContain('€')
    const html = show(<Schools at={at} units="metric" />)
    expect(html).toContain('in minutes for 100 arc hours')
    for (const never of ['is-advised', 'about the same', 'what others are held against'])
      expect(html).not.toContain(never)
  })
  it('in a shop that counts in pounds or miles a rule is told for as many', () => {
    const at = life({ kind: 'liner', unit: 'kg', money: money({ per: 'unit' }) })
    expect(bladeWords(at, 2, m)).toContain('for 100 kg €20, 20 parts, 60 min of hands, 20 min standing')
    expect(bladeWords(at, 2, 'us')).toMatch(/^Changed at 4.4 lb: for 100 lb €9.1, 9.1 parts, 27 min of hands, 9 min/)
    expect(show(<Schools at={at} units="us" />)).toContain('for 100 lb')
    expect(forHundred('unit', 'km', 'us').told(10)).toBeCloseTo(16.09, 2)
    expect(forHundred('unit', 'matings', 'us')).toMatchObject({ words: '100 times seated' })
  })
  it('of those that nearly all wear out it is said so', () => {
    const sure = money({
      blade: [2, 4, 8].map((use) => ({ ...money().blade[0], at: use, parts: 20, worn: 20 }) as never),
    })
    expect(bladeWords(life({ money: sure }), 4, m)).toMatch(/; nearly all wear out first\.$/)
  })
  it('no rule is made of the trade’s word alone', () =>
    expect(moneySentence(life({ seen: { ...seen, ended: 0 } }), m)).toBe(
      'Nothing to reckon yet: none has ended here. Changing early pays only where the log shows that they wear out with age.',
    ))
  it('each school says what it does', () => {
    expect(schoolDoes(line('fixed', 8, 0.1), life(), m)).toBe('change at 8 h, as now')
    const without = life({ rule: { ...life().rule, changeLimit: null } })
    expect(schoolDoes(line('fixed', 12, 0.1), without, m)).toBe('change every Friday (about 12 h)')
    expect(schoolDoes(line('onCondition', 2, 0.1), life(), m)).toContain('guess')
    expect(savingWords(line('fixed', 8, -0.4))).toBe('costs 40 % more')
    expect(savingWords(line('fixed', 8, -4.5))).toBe('costs 5.5 times as much')
    expect(savingWords(line('fixed', 8, 0.004))).toBe('about the same')
  })
  it('the blade reads its cost between two places of the table, and past its end as at its end', () => {
    expect(costAt(life(), 400)?.total).toBe(life().money?.blade.at(-1)?.total)
    expect(costAt(life(), 3)?.total).toBe(3000)
    expect(costAt(life(), null)?.total).toBe(20_000)
    expect(bladeWords(life(), 3, m)).toBe(
      'Changed at 3 h: for 100 arc hours €30, 20 parts, 60 min of hands, 30 min standing; 1 in 4 wears out first.',
    )
    expect(bladeWords(life({ isMoney: false }), null, m)).not.toContain('€')
  })
})

describe('side by side', () => {
  const compared: LifeAnswer['compared'][number] = {
    ...{ first: 'bare', second: 'plated', ratio: 3.5, low: 2.9, high: 4.3, ends: 80, more: 0, verdict: 'longer' },
    movedWith: [],
  }
  it('a plain answer, or how much is missing', () => {
    expect(comparedSentence(compared)).toBe('plated lasts 3.5 times as long as bare (2.9–4.3).')
    expect(comparedSentence({ ...compared, verdict: 'cantTell', ratio: 1.2, low: 0.8, high: 1.7, more: 42 })).toContain(
      'can’t tell yet. 1.2 times as long as bare (0.8–1.7) so far; about 42 more worn ones would tell',
    )
    expect(comparedSentence({ ...compared, ratio: null })).toContain('none has worn out yet')
  })
  it('warns of what moved along', () => {
    expect(movedWords(compared)).toBe('')
    expect(movedWords({ ...compared, movedWith: ['wire', 'mode'] })).toContain('differ in wire and mode')
  })
  it('never accuses who may only log more', () => {
    const h: LifeAnswer['hungry'][number] = {
      ...{
        stationId: anId('station', 'stn_1'),
        name: 'A7',
        ends: 90,
        expected: 30,
        z: 2.6,
        low: 2.2,
        high: 3.1,
        verdict: 'hungry',
      },
      readings: ['tension'],
    }
    expect(hungrySentence(h, 'tip')).toBe('A7 goes through 2.6 times as many tips as its use explains (2.2–3.1).')
    expect(hungrySentence({ ...h, verdict: 'mayLogMore' }, 'tip')).toContain('it may simply log more')
    expect(lookUpstream('tip', ['tension'])).toContain('Its drive tension asks for a look already')
    expect(lookUpstream('tip', [])).toContain('liner, cable lay and tension')
    expect(noHungryWords(life())).toBe('None of 8 places stands out for certain.')
  })
  it('what else is worth changing while it is open', () => {
    const a = { kind: 'tip' as const, name: 'tip', shareOfUsual: 0.4, isWorth: true }
    expect(alongsideWords(a)).toBe('Change the tip too once it is past 4 tenths of its usual.')
    expect(alongsideWords({ ...a, isWorth: false })).toBe('Leave the tip, if it is good.')
  })
  it('what makes it last, only where it is sure', () => {
    const l = { by: 'mode' as const, level: 'spray', against: 'pulse', ratio: 1.2, low: 1.1, high: 1.3 }
    expect(longerSentence(l)).toBe('Mode spray: 1.2 times as long as with pulse (1.1–1.3).')
    expect(longerSentence({ ...l, low: 0.8 })).toContain('can’t tell apart')
  })
  it('a try-out says how far it is', () => {
    const t: LifeAnswer['tryouts'][number] = {
      ...{
        id: anId('tryout', 'try_1'),
        question: 'dip or none?',
        nameA: 'none',
        nameB: 'dip',
        placesA: ['A1'],
        placesB: ['A2'],
      },
      ...{ unproven: [], ratio: 1.5, needed: 48, fromMs: 0, toMs: null, daysLeft: 20 },
      now: { answer: 'notYet', ratio: 1.3, low: 0.9, high: 1.9, ends: 20 },
    }
    expect(tryoutSentence(t)).toBe('20 of 48 worn ones are in, about three weeks more at this rate.')
    expect(tryoutSentence({ ...t, now: { ...t.now, answer: 'yes' } })).toBe(
      'Answered: dip lasts 1.3 times as long as none (0.9–1.9).',
    )
    expect(tryoutSentence({ ...t, now: { ...t.now, answer: 'noDifference' } })).toContain('no difference of 1.5 times')
  })
})

describe('its pieces', () => {
  const stroke = (used: number, over: Partial<LifeAnswer['strokes'][number]> = {}) => ({
    ...{
      used,
      end: 'worn' as const,
      reason: 'worn' as const,
      name: 'A1',
      stationId: anId('station', 'stn_1'),
      fromMs: 0,
      toMs: 1,
    },
    ...{ parts: 1, group: null },
    ...over,
  })
  const strokes = [stroke(9), stroke(6, { end: 'in', reason: null, toMs: null }), stroke(3, { end: 'chance' })]
  it('a stroke for each life, the blade where it cuts, the part that was asked for', () => {
    const html = show(<UsedParts at={life({ strokes, strokesOf: 3 })} blade={4} marked={2} units="metric" />)
    for (const part of ['life-worn', 'life-in', 'life-chance', 'life-blade', 'life-marked'])
      expect(html).toContain(part)
    expect(html).toContain('3 lives, the longest at the bottom')
  })
  it('the schools with the advised one marked, and minutes alone where there is no money', () => {
    expect(show(<Schools at={life()} units="metric" />)).toContain('is-advised')
    expect(show(<Schools at={life({ isMoney: false })} units="metric" />)).toContain('in minutes')
  })
  it('each life opens to its days in the Logbook', () =>
    expect(show(<EachLife at={life({ strokes, strokesOf: 3 })} units="metric" />)).toContain(
      '/logbook?day=1970-01-01&amp;position=tip&amp;stationId=stn_1',
    ))
  it('a gun says what it was dealt, or nothing', () => {
    const tryouts = [{ kindKey: 'nozzle' as const, question: 'bare or plated?', gets: 'plated' }]
    expect(show(<TriedHere gun={{ tryouts }} />)).toContain('Try-out, nozzle: here it is Plated.')
    expect(show(<TriedHere gun={{ tryouts: [] }} />)).toBe('')
  })
  it('nobody stands out: it says so', () => expect(show(<Hungry at={life()} />)).toContain('None of 8 places'))
  it('what lasts longer is held against what it costs by the hour', () => {
    const cost = (eachMinor: number, total: number, low: number, high: number) => ({
      cost: { ...{ eachMinor, total, low, high }, per: 'arcHours' as const },
    })
    const group = (name: string, more: ReturnType<typeof cost>) => ({
      ...{ key: name, name, n: 40, told: told(), refused: null, ...more },
    })
    const at = (second: ReturnType<typeof cost>) => ({
      ...{ currency: 'EUR', unit: 'arcHours' as const },
      groups: [group('bare', cost(780, 9000, 8000, 10_000)), group('faced', second)],
    })
    const pair = { first: 'bare', second: 'faced' }
    expect(cheaperSentence(at(cost(1490, 4000, 3500, 4600)), pair, 'metric')).toBe(
      'Dearer by the piece, it saves about €50 in 100 arc hours.',
    )
    expect(cheaperSentence(at(cost(500, 14_000, 12_000, 16_000)), pair, 'metric')).toBe(
      'Cheaper by the piece, it costs about €50 in 100 arc hours more.',
    )
    expect(cheaperSentence(at(cost(780, 9500, 8500, 11_000)), pair, 'metric')).toBe(
      'At the same price; whether it is cheaper by the hour can’t be told yet.',
    )
    expect(cheaperSentence({ ...at(cost(1, 1, 1, 1)), groups: [] }, pair, 'metric')).toBe('')
    const page = show(<Compared at={life({ by: 'part', ...at(cost(1490, 4000, 3500, 4600)) })} units="metric" />)
    expect(page).toContain('100 arc hours of it cost')
    expect(page).toContain('€14.90')
  })
  it('groups left out are named', () => {
    const groups = [{ key: 'a', name: 'bare', n: 40, told: told(), refused: null, cost: null }]
    expect(show(<Compared at={life({ by: 'part', groups, leftOut: ['A7', 'B3'] })} units="metric" />)).toContain(
      'Without A7 and B3',
    )
  })
})
