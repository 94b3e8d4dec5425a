import { anId } from '@core/testing/ids.ts'
import { type CausePlace } from '@core/path/columns.ts'
import { renderToStaticMarkup } from 'react-dom/server'
import { describe, expect, it } from 'vitest'
import { MemoryRouter } from 'react-router'
import { type HelpAnswer, type PaybackAnswer, type StopsAnswer } from '@contract/payback.ts'
import { Stops } from './EachStop.tsx'
import { Heaps } from './Heaps.tsx'
import {
  beforeWords,
  cheapPartSentence,
  costWords,
  diffuserSentence,
  helpDetail,
  helpSentence,
  nestDetail,
  nestSentence,
  notFeedSentence,
  paybackSentence,
  spanOf,
  unpricedWords,
} from './paybackwords.ts'
import { RatesTable } from './RatesTable.tsx'
import { WhereTable } from './WhereTable.tsx'

const cost = (standMinor: number, partsMinor = 0) => ({
  ...{ standMinor, handsMinor: 0, partsMinor, wireMinor: 0, scrapMinor: 0 },
})
const heap = (stops: number, minutes: number, of = cost(minutes * 100)) => ({ stops, minutes, cost: of })
const NONE = heap(0, 0)
const line = (column: CausePlace | null, now = heap(3, 60), before = NONE) => ({
  ...{ column, now, before, parts: 3, partKind: 'tip' as const, partMinor: 64 },
})
const payback = (over: Partial<PaybackAnswer> = {}): PaybackAnswer => ({
  ...{ nowMs: 0, zone: 'UTC', currency: 'EUR', days: 90, isMoney: true, areas: [] },
  total: { now: heap(5, 300), before: heap(4, 200) },
  heaps: [line('tip', heap(3, 240, cost(24_000, 200)), heap(2, 90)), line('liner', heap(2, 60))],
  nests: null,
  notFeed: null,
  unpriced: { parts: [], wire: false, standing: false, scrap: 0 },
  rates: [],
  changes: [],
  ...over,
})
const rates = (name: string | null, over: Partial<PaybackAnswer['rates'][number]> = {}) => ({
  ...{
    areaId: name === null ? null : anId('area', name),
    name: name ?? '',
    stops: 10,
    kg: 100,
    arcHours: 500,
    estimatedShare: 0,
    tips: 100,
    diffusers: 3,
  },
  ...{ per100kg: { rate: 10, low: 5, high: 18 }, per100h: { rate: 2, low: 1, high: 3.7 }, betweenArcH: 50 },
  ...{ meanMin: 12, upShare: 0.998, diffusersFor100Tips: { rate: 3, low: 1, high: 6 } },
  ...over,
})

describe('what it cost, in words', () => {
  it('is hours and money, and where most of them began', () => {
    expect(paybackSentence(payback())).toBe('Down 5 h in 90 days, about €300. 4 h of it began at the tip.')
    expect(paybackSentence(payback({ isMoney: false }))).toBe('Down 5 h in 90 days. 4 h of it began at the tip.')
    expect(paybackSentence(payback({ total: { now: NONE, before: NONE }, heaps: [] }))).toBe('No stop in 90 days.')
    expect(paybackSentence(payback({ heaps: [line('off')] }))).toContain('began off the wire.')
  })
  it('of the days before says what they came to, and no minute where none is written down', () => {
    expect(beforeWords(payback())).toBe('The 90 days before: 3.3 h, about €200.')
    expect(beforeWords(payback({ total: { now: NONE, before: NONE } }))).toBe(
      'None written down in the 90 days before.',
    )
  })
  it('sets the cheap part beside the dear hours', () => {
    expect(cheapPartSentence(payback())).toBe('Parts put on there cost €2, the time €240.')
    expect(cheapPartSentence(payback({ isMoney: false }))).toBe('')
  })
  it('leaves out what is nothing, and says what nobody priced', () => {
    expect(costWords({ ...cost(1234, 0), wireMinor: 160 }, 'EUR')).toBe('standing €12, wire €1.6')
    expect(unpricedWords(payback())).toBe('')
    const unpriced = { parts: ['Liner'], wire: true, standing: false, scrap: 1 }
    expect(unpricedWords(payback({ unpriced }))).toContain('No price for wire, Liner, a scrapped piece')
  })
  it('of a nest: the mean, the middle half, and whose number the wire is', () => {
    const nests = {
      ...{ n: 4, meanMin: 11, meanMinor: 2400, lowMinor: 700, highMinor: 3800, cost: cost(9000), wireKg: 0.1 },
      guessedWire: 4,
    }
    expect(nestSentence(payback({ nests }))).toBe('A nest costs about €24 here (half of them €7 to €38), 11 min each.')
    expect(nestDetail(payback({ nests }), 'metric')).toContain('Nobody said how much wire was lost')
    const few = payback({ nests: { ...nests, meanMinor: null } })
    expect(nestSentence(few)).toBe('Four nests in 90 days, 11 min each.')
    expect(nestSentence(payback())).toBe('')
    const notFeed = {
      explained: 22,
      n: 3,
      minutes: 41,
      whys: [
        { says: 'draught', n: 2 },
        { says: 'fit-up', n: 1 },
      ],
    }
    expect(notFeedSentence(payback({ notFeed }))).toBe(
      '3 of 22 stops that were explained were not the feed (41 min): draught 2 and fit-up 1. No part of a gun puts these right.',
    )
    expect(notFeedSentence(payback({ notFeed: { ...notFeed, n: 1, whys: [{ says: 'draught', n: 1 }] } }))).toContain(
      'was not the feed (41 min): draught. No part',
    )
    expect(notFeedSentence(payback({ notFeed: { ...notFeed, n: 0 } }))).toBe('')
  })
  it('names an area only where its diffusers are beyond the whole’s interval', () => {
    const eats = rates('Bay B', { diffusersFor100Tips: { rate: 12, low: 8, high: 18 } })
    expect(diffuserSentence([rates(null), rates('Bay A'), eats])).toMatch(/^Bay B: more diffusers/)
    expect(diffuserSentence([rates(null), rates('Bay A')])).toBe('')
    expect(spanOf({ rate: 2, low: 1, high: Infinity })).toBe('2 (1–∞)')
    expect(spanOf(null)).toBe('–')
  })
})

const help = (over: Partial<HelpAnswer> = {}): HelpAnswer => ({
  ...{ nowMs: 0, zone: 'UTC', atMs: 0, unit: 'arcHours', days: { before: 28, after: 28 } },
  ...{ before: { stops: 30, over: 400 }, after: { stops: 10, over: 400 } },
  ...{ is: 'fewer', ratio: 0.33, low: 0.15, high: 0.7, p: 0.002, untilDays: 0 },
  ...{ elsewhere: 'not', elsewhereRatio: 0.98, isAfterBad: false },
  ...over,
})
describe('did it help, in words', () => {
  it('yes and no with their span; and not where the others changed alike', () => {
    expect(helpSentence(help())).toBe('Yes: it stops 0.33 times as often as before (0.15 to 0.7).')
    expect(helpSentence(help({ is: 'more', ratio: 2, low: 1.2, high: null }))).toMatch(/^No: it stops 2 times/)
    expect(helpSentence(help({ elsewhere: 'same' }))).toContain('so do the places where nothing was changed')
  })
  it('can’t tell: how long until it can, or that it never will', () => {
    expect(helpSentence(help({ is: 'cantTell', untilDays: 9.2 }))).toContain('about 10 days more')
    expect(helpSentence(help({ is: 'cantTell', untilDays: 40 }))).toContain('about 6 weeks more')
    expect(helpSentence(help({ is: 'cantTell', untilDays: null }))).toContain('no time worth waiting')
  })
  it('says what it rests on, the other places, and a bad stretch before', () => {
    const [counts, others, bad] = helpDetail(help({ isAfterBad: true }))
    expect(counts).toContain('Before 30 in 400 arc hours (28 days), since 10 in 400 arc hours')
    expect(others).toContain('Everywhere else')
    expect(bad).toContain('some of the fall would have come by itself')
    expect(helpDetail(help({ elsewhereRatio: null, p: 0.8 }))).toEqual([expect.stringContaining('No difference')])
  })
})

describe('heaps and tables', () => {
  const count = (html: string, what: string) => html.split(what).length - 1
  it('these days filled, the days before as a line, where there is anything', () => {
    const html = renderToStaticMarkup(<Heaps at={payback()} isMoney isNarrow={false} />)
    expect([count(html, 'heap-now'), count(html, 'heap-before')]).toEqual([2, 1])
    expect(html).toContain('€240')
  })
  it('on a phone only the places that have one', () => {
    const html = renderToStaticMarkup(<Heaps at={payback()} isMoney={false} isNarrow />)
    expect(html).toContain('>liner<')
    expect(html).not.toContain('>diffuser<')
  })
  it('the dearest first, without money for hands', () => {
    const html = renderToStaticMarkup(<WhereTable at={payback()} />)
    expect(html.indexOf('Tip')).toBeLessThan(html.indexOf('Liner'))
    expect(html).toContain('one tip €0.64')
    expect(renderToStaticMarkup(<WhereTable at={payback({ isMoney: false })} />)).not.toContain('€')
  })
  it('rates by what the shop weighs in, and how much it stood', () => {
    const html = renderToStaticMarkup(<RatesTable rates={[rates(null), rates('Bay A', { upShare: 1 })]} units="us" />)
    expect(html).toContain('for 100 lb')
    expect(html).toContain('1 h in 500')
    expect(html).toContain('4.5 (2.3–8.2)')
  })
})

describe('each stop', () => {
  const stop = (name: string, over: Partial<StopsAnswer['stops'][number]> = {}) => ({
    ...{ eventId: anId('event', `ev_${name}`), stationId: anId('station', `stn_${name}`), name },
    ...{ fromMs: 0, toMs: 60_000, minutes: 12, column: 'tip' as const, cause: null, parts: 0, minor: 640 },
    ...over,
  })
  const stops = (over: Partial<StopsAnswer> = {}): StopsAnswer => ({
    ...{ zone: 'UTC', currency: 'EUR', isMoney: true, of: 1, stops: [stop('A1')] },
    ...over,
  })
  const drawn = (at: StopsAnswer) =>
    renderToStaticMarkup(
      <MemoryRouter>
        <Stops at={at} />
      </MemoryRouter>,
    )
  it('says where, how long, what it was and what it took; that nobody said is said', () => {
    const page = drawn(stops())
    expect(page).toContain('nobody said')
    expect(page).toContain('Tip')
    expect(page).toContain('money')
    expect(page).toContain('/logbook?day=1970-01-01&amp;stationId=stn_A1')
    expect(drawn(stops({ stops: [stop('A2', { cause: 'spatter on the tip', toMs: null })] }))).toMatch(
      /12 min, still.*spatter on the tip/s,
    )
  })
  it('shows no money to who may not see it, and says how many are not told', () => {
    const page = drawn(stops({ isMoney: false, of: 2400, stops: [stop('A1', { minor: null })] }))
    expect(page).not.toContain('money')
    expect(page).toContain('The newest 1 of 2400.')
  })
})
