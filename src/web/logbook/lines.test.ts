import { describe, expect, it } from 'vitest'
import { type CarrierId, type PartId, type SpoolId, type StoreId, type WireId } from '@core/ids/id.ts'
import { type Fact, type FactKind } from '@core/ledger/event.ts'
import { FACT_KINDS } from '@core/ledger/facts.ts'
import { type ShopChange, type ShopChangeOf } from '@core/ledger/shopchange.ts'
import { line } from '@web/testing/samples.ts'
import { lineSentence } from './lines.ts'
import { shopChangeWords } from './shopwords.ts'

const carrierId = 'car_1' as CarrierId
const wireId = 'wire_1' as WireId
const spoolId = 'spool_1' as SpoolId
const partId = 'part_1' as PartId
const storeId = 'store_1' as StoreId
const NAMES = {
  part: 'K-T10',
  wire: 'solid 1.0',
  spool: 7,
  carrier: null,
  cause: 'tip worn',
  scope: 'Booths',
  place: 'Cell cupboard',
  from: null,
  unit: 'arcHours' as const,
}
const fitted = {
  ...({ kind: 'fitted', carrierId, position: 'tip', partId: null } as const),
  ...({ count: 1, entryAge: 'new' } as const),
}

/** What every kind of fact says; one that is missing does not compile. */
const EXAMPLES: { [K in FactKind]: readonly [Extract<Fact, { kind: K }>, string] } = {
  fitted: [{ ...fitted, outReason: 'worn' }, 'Tip changed (K-T10): worn.'],
  removed: [{ kind: 'removed', carrierId, position: 'rolls', outReason: 'toTry' }, 'Rolls were taken out: to try.'],
  cleaned: [{ kind: 'cleaned', carrierId, position: 'nozzle' }, 'Nozzle cleaned.'],
  confirmed: [{ kind: 'confirmed', carrierId, position: null }, 'Looked over, all as it should be.'],
  found: [{ kind: 'found', carrierId, position: 'liner', partId }, 'Liner looked at (K-T10).'],
  mounted: [{ kind: 'mounted', carrierId, onId: carrierId }, 'Hung here.'],
  crashed: [{ kind: 'crashed', carrierId }, 'The torch hit something.'],
  stopped: [{ kind: 'stopped', carrierId, position: 'liner' }, 'Down at the liner.'],
  restarted: [{ kind: 'restarted', carrierId }, 'Running again.'],
  parked: [{ kind: 'parked', carrierId }, 'Parked.'],
  unparked: [{ kind: 'unparked', carrierId }, 'In use again.'],
  counted: [{ kind: 'counted', partId, quantity: 40 }, 'Counted: 40 (K-T10), Cell cupboard.'],
  received: [{ kind: 'received', partId, quantity: 12 }, '12 came in (K-T10), Cell cupboard.'],
  carried: [
    { kind: 'carried', partId, quantity: 6, fromStoreId: null, toStoreId: storeId },
    '6 carried from the main shelf to Cell cupboard (K-T10).',
  ],
  issued: [{ kind: 'issued', partId, quantity: 2 }, '2 handed out (K-T10).'],
  usageEntered: [{ kind: 'usageEntered', carrierId, rows: 1 }, 'Shift usage entered.'],
  shopChanged: [{ kind: 'shopChanged', change: { of: 'device' } }, 'Set-up: a device dropped.'],
  changedOver: [
    { kind: 'changedOver', carrierId, wireId, fromWireId: null, minutes: null },
    'Wire changed to solid 1.0.',
  ],
  wireFound: [{ kind: 'wireFound', carrierId, wireId }, 'On the hub: solid 1.0.'],
  setting: [{ kind: 'setting', carrierId, name: 'gas', value: 'argon mix', how: 'read' }, 'Gas: argon mix.'],
  tied: [{ kind: 'tied', carrierId, tag: 'brakeTight' }, 'Hub brake tight.'],
  untied: [{ kind: 'untied', carrierId, tag: 'brakeTight' }, 'Brake is back.'],
  jointFault: [{ kind: 'jointFault', carrierId, joint: 'tip', fault: 'seized', thread: null }, 'Tip: seized.'],
  gunStatus: [{ kind: 'gunStatus', carrierId, status: 'toRefurbish' }, 'Gun off: to refurbish.'],
  taskDone: [
    { kind: 'taskDone', carrierId, task: 'cylinder', familyId: null, minutes: 4, reason: null },
    'Done by the list: cylinder, flowmeter, hose.',
  ],
  followedUp: [{ kind: 'followedUp', carrierId, task: 'tension' }, 'Tension is set.'],
  handedOver: [
    {
      ...{ kind: 'handedOver', carrierId, classId: null, day: '2026-11-30', groupId: null, leftBy: null },
      ...{ found: { gunHome: 'halfOut', tip: 'right', clamp: 'off' }, still: ['clamp'] },
    },
    'Found before class: gun in its socket: half out; work clamp: not on, still so.',
  ],
  nearMiss: [{ kind: 'nearMiss', carrierId, hazard: 'other' }, 'Near miss: something else.'],
  blown: [{ kind: 'blown', carrierId }, 'Empty cable blown out, from the feeder forward.'],
  autopsy: [
    { kind: 'autopsy', carrierId, position: 'liner', found: ['worn'], isCertain: false, atMm: null, lengthMm: null },
    'Old liner: grooved, may be from pulling it out.',
  ],
  stuck: [{ kind: 'stuck', carrierId, position: 'liner', atMm: null, isKinked: true }, 'New liner stuck and kinked.'],
  spoiled: [
    { kind: 'spoiled', carrierId, position: 'liner', partId: null, why: 'cutShort' },
    'New liner spoiled: cut short.',
  ],
  linerCut: [
    {
      ...{ kind: 'linerCut', carrierId, by: 'A', neededMm: 18, standsOutMm: 60, firstCutMm: 30, nowMm: 30 },
      ...{ secondCutMm: 12, leftMm: 18, lengthMm: null },
    },
    'Liner cut: 18 mm left.',
  ],
  reading: [
    {
      ...{ kind: 'reading', carrierId, what: 'tension', method: 'block', how: 'looked', value: 2.2, left: null },
      ...{ grade: 'curls', is: 'good', headId: null, wireId: null, limit: null, from: {} },
    },
    'Drive tension: 2.2: curls and keeps coming.',
  ],
  calibrated: [
    { kind: 'calibrated', carrierId, wireId, pulls: [], atZeroN: 0, perMarkN: 1 },
    'Knob calibrated by slip pulls.',
  ],
  explained: [
    {
      ...{ kind: 'explained', carrierId, stopFromMs: null, symptom: 'burnback', touched: null, said: [] },
      ...{ cause: 'tipWorn', isCertain: false, by: 'known', closing: 'good' },
    },
    'It was: tip worn, not sure.',
  ],
  tuned: [
    { kind: 'tuned', carrierId, name: 'volts', from: 20, to: 21, saw: 'worse', symptom: null, guard: 'clear' },
    'Volts 20 V to 21 V: worse, back to 20 V.',
  ],
  tuneKept: [
    { kind: 'tuneKept', carrierId, wireId, mode: null, symptom: null, values: { volts: 20 } },
    'Settings that worked: volts 20 V.',
  ],
  spoolIn: [
    { kind: 'spoolIn', spoolId, wireId, labelKg: 15, lot: null, tareKg: null },
    'Spool 7 of solid 1.0 came in, 15 kg on the label.',
  ],
  wireLoaded: [
    { kind: 'wireLoaded', carrierId, wireId, labelKg: 15, leftKg: null, spoolId },
    'Spool 7 put on of solid 1.0, 15 kg on it.',
  ],
  wireOff: [{ kind: 'wireOff', carrierId, spoolId, leftKg: 4, sdKg: null }, 'Spool 7 taken off, about 4 kg left.'],
  spoolRead: [
    { kind: 'spoolRead', carrierId, spoolId, how: 'weighed', leftKg: 9, sdKg: 0.1 },
    'Spool 7 read: 9 kg left.',
  ],
  wireLost: [{ kind: 'wireLost', carrierId, spoolId, kg: 0.5, why: 'nest' }, 'Wire lost, 0.5 kg: nest.'],
  spoolGone: [{ kind: 'spoolGone', spoolId, leftKg: 0 }, 'Spool 7 empty.'],
}

describe('a line of the log', () => {
  it.each(FACT_KINDS)('of the kind %s is a sentence', (kind) => {
    const [fact, says] = EXAMPLES[kind]
    expect(lineSentence(line({ fact, names: NAMES }), 'metric')).toBe(says)
  })
  it('follows the units', () => {
    const [fact] = EXAMPLES.wireLoaded
    expect(lineSentence(line({ fact, names: { ...NAMES, spool: null } }), 'us')).toBe(
      'New spool of solid 1.0, 33 lb on the label.',
    )
  })
  it('of a kind that is counted otherwise from now on says in what', () =>
    expect(
      lineSentence(
        line({ fact: { kind: 'shopChanged', change: { of: 'kind', kindKey: 'liner', unit: 'km' } } }),
        'metric',
      ),
    ).toBe('Set-up: the liner is counted in length of wire.'))
  it('of several parts says how many', () =>
    expect(lineSentence(line({ fact: { ...fitted, outReason: 'notSaid', count: 3 } }), 'metric')).toBe(
      'Tip changed 3 times since the last log.',
    ))
  it('of a look at how a gun is built is told as one', () =>
    expect(lineSentence(line({ actKind: 'look', fact: EXAMPLES.found[0] }), 'metric')).toBe(
      'Looked over how it is built.',
    ))
})

const rule = {
  ...({ of: 'houseRule', kindKey: 'tip', classKey: 'booth', cleanAt: null } as const),
  ...({ school: 'leastCost', lives: 210 } as const),
}
const CHANGES: { [K in ShopChangeOf]: readonly [Extract<ShopChange, { of: K }>, string | RegExp] } = {
  houseRule: [
    { ...rule, changeAt: 6.5, lookDays: 7 },
    'house rule for the tip in booths: change at 6.5 h, look every 7 days (least cost, from 210 lives)',
  ],
  school: [
    { of: 'school', code: 'D02', scopeType: 'class', scopeKey: 'booth', option: 'mark', was: null, terms: null },
    'How is drive-roll tension tested? In booths: to the mark on the knob; before: the usual',
  ],
  word: [{ of: 'word', kindKey: 'nozzle', usual: 60, early: 20 }, 'word on the nozzle: usual 60 h, early 20 h'],
  called: [{ of: 'called', word: 'lance', kindKey: 'neck' }, '“lance” means the neck here'],
  tryout: [
    { of: 'tryout', question: 'Dip?', nameA: 'no dip', nameB: 'dip', places: 20 },
    'try-out: Dip? (no dip or dip, 20 places)',
  ],
  tryoutEnd: [{ of: 'tryoutEnd', isConfirmed: false }, 'a try-out ended'],
  site: [{ of: 'site', name: 'Yard', zone: 'UTC' }, 'shop: Yard, UTC'],
  area: [{ of: 'area', name: 'Bay A' }, 'area Bay A changed'],
  place: [{ of: 'place', name: 'A1' }, 'place A1 changed'],
  part: [{ of: 'part', name: 'K-T10' }, 'part K-T10'],
  wire: [{ of: 'wire', name: 'solid 1.0' }, 'wire solid 1.0'],
  family: [{ of: 'family', name: 'Kelp' }, 'fit family Kelp'],
  feederType: [{ of: 'feederType', name: 'four-roll' }, 'feeder four-roll'],
  procedure: [{ of: 'procedure', name: 'P1' }, 'procedure P1'],
  gun: [{ of: 'gun', name: 'K1' }, 'gun K1'],
  rates: [{ of: 'rates', classKey: 'booth' }, 'rates of booths'],
  kind: [{ of: 'kind', kindKey: 'orings' }, 'counting and keeping of the O-rings'],
  shifts: [{ of: 'shifts', count: 2 }, 'shifts (2)'],
  finding: [
    { of: 'finding', rule: 'tipLarge', at: 'tip', isKept: true },
    'what was found at the tip, bore against wire: kept as it is',
  ],
  counted: [{ of: 'counted', parts: 1 }, 'shelves counted: 1 part'],
  received: [{ of: 'received' }, 'a delivery put on the shelf'],
  carried: [{ of: 'carried', parts: 2 }, 'carried from one place to another: 2 parts'],
  store: [{ of: 'store', name: 'Cell cupboard', isClosed: false }, 'parts lie at Cell cupboard'],
  necksGoRound: [{ of: 'necksGoRound', places: 3 }, 'necks go round at 3 cells'],
  neck: [{ of: 'neck', name: 'N4' }, 'neck N4'],
  group: [{ of: 'group', name: 'Reed', isActive: true }, 'group Reed'],
  calendar: [{ of: 'calendar', name: 'Reed', is: 'moved', count: 1 }, 'calendar: Reed moved'],
  drillSet: [{ of: 'drillSet', name: 'Tuesday', group: 'Reed', isEnded: false }, 'drills “Tuesday” set for Reed'],
  taught: [{ of: 'taught', group: 'Reed', item: 'gunHome' }, 'two-minute lesson for Reed: gun in its socket'],
  pairWords: [{ of: 'pairWords', pair: 'tipTight', isWrongHere: true }, 'card “How tight a tip is”: wrong here'],
  supplier: [{ of: 'supplier', name: 'Harbour Supply' }, 'supplier Harbour Supply'],
  offer: [{ of: 'offer', part: 'K-T10', supplier: 'Harbour Supply' }, 'what Harbour Supply sells K-T10 for'],
  shelf: [{ of: 'shelf', part: 'K-T10' }, 'where K-T10 lies'],
  ordered: [{ of: 'ordered', supplier: 'Harbour Supply', lines: 2 }, 'ordered from Harbour Supply: 2 lines'],
  orderClosed: [
    { of: 'orderClosed', supplier: 'Harbour Supply' },
    'the rest of an order from Harbour Supply does not come',
  ],
  kit: [{ of: 'kit', name: 'bay A, noon', isClosed: false }, 'kit bay A, noon packed'],
  jobs: [{ of: 'jobs', count: 2 }, 'wire for 2 jobs said'],
  job: [{ of: 'job', name: 'hinges', isDone: true }, 'job hinges welded'],
  tin: [{ of: 'tin', kindKey: 'tip', grams: 240, isEmptied: true }, 'tin of old tips weighed: 240 g, emptied'],
  guideWords: [{ of: 'guideWords', guide: 'tip', step: 's', isOwn: true }, /own words at a step of the guide/],
  cautionWords: [{ of: 'cautionWords', hazard: 'hot', isOwn: false }, 'shipped words for the caution: hot part'],
  knowledge: [{ of: 'knowledge', isShipped: true }, 'why a gun stops: back to what ships'],
  person: [{ of: 'person', isNew: true }, 'a person added'],
  device: [{ of: 'device' }, 'a device dropped'],
  photo: [{ of: 'photo', ofType: 'event' }, 'a photo of a line taken back'],
  sheet: [{ of: 'sheet', list: 'parts', lines: 1 }, 'parts list: 1 line'],
  other: [{ of: 'other', said: 'as it was said' }, 'as it was said'],
}
describe('a change of set-up', () => {
  it.each(Object.keys(CHANGES) as ShopChangeOf[])('of %s is told in words, with no key of the program in it', (of) => {
    const [change, says] = CHANGES[of]
    const words = shopChangeWords(change, NAMES, 'metric')
    if (typeof says === 'string') expect(words).toBe(says)
    else expect(words).toMatch(says)
    expect(words).not.toMatch(/[a-z][A-Z]/)
  })
  it('holds where it holds: everywhere, in a class, for a family', () => {
    const school = { of: 'school' as const, code: 'D02', option: 'mark', terms: null }
    const says = (scopeType: string, scopeKey: string, scope: string | null) =>
      shopChangeWords({ ...school, scopeType, scopeKey }, { ...NAMES, scope }, 'metric').split('? ')[1]
    expect(says('site', '*', null)).toBe('Everywhere: to the mark on the knob')
    expect(says('class', 'cell', 'Robot cells')).toBe('In robot cells: to the mark on the knob')
    expect(says('family', 'fam_1', 'Kelp')).toBe('For Kelp: to the mark on the knob')
    expect(says('feeder', '4', 'feeders with 4 rolls')).toBe('For feeders with 4 rolls: to the mark on the knob')
  })
})
