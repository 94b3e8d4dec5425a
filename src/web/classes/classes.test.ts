import { describe, expect, it } from 'vitest'
import { HAND_ITEM_KEYS } from '@core/classes/items.ts'
import { type CalendarAnswer, type ClassesAnswer, type TechniqueAnswer } from '@contract/classes.ts'
import { wallText } from '@web/kit/day.ts'
import { kept, nextBooth, NOTHING_LOOKED, restRight, tapped } from './beforestate.ts'
import { lanesOf } from './calendarwords.ts'
import {
  classSentence,
  fitSentence,
  foundList,
  helpedSentence,
  teachSentence,
  callsSentence,
  tipsSentence,
  wireSentence,
  wireChanges,
} from './classwords.ts'
import { aboutWords } from './Known.tsx'
import { techniqueLines } from './TechniquePage.tsx'

const AT = Date.UTC(2026, 10, 2, 9)
const look = (found: object, still: string[] = []) =>
  ({ atMs: AT, found, still }) as ClassesAnswer['booths'][number]['look']
const booth = (name: string, own: Partial<ClassesAnswer['booths'][number]> = {}) =>
  ({
    stationId: `stn_${name}`,
    name,
    wireName: 'solid 0.9',
    wantsWireName: null,
    wantsWireId: null,
    learner: null,
    isDown: false,
    isParked: false,
    look: null,
    ...own,
  }) as ClassesAnswer['booths'][number]
const answer = (own: Partial<ClassesAnswer>) =>
  ({
    ...{
      nowMs: AT,
      zone: 'UTC',
      today: '2026-11-02',
      is: 'now',
      leftBy: null,
      todays: [],
      found: [],
      teach: [],
      lessons: [],
      groups: 1,
    },
    period: {
      name: 'Reed mornings',
      fromMs: AT - 3_600_000,
      toMs: AT + 3_600_000,
      entryId: 'cal_a',
      day: '2026-11-02',
    },
    group: { id: 'grp_a', name: 'Reed', level: 'new', size: 8, isActive: true },
    booths: [booth('T1'), booth('T2')],
    ...own,
  }) as unknown as ClassesAnswer

describe('the sentence of a class', () => {
  it('says who, until when, and how far the looking is', () => {
    expect(classSentence(answer({}))).toBe('Reed until 10:00. 2 booths, none looked at.')
    const looked = [booth('T1', { look: look({ gunHome: 'halfOut', clamp: 'off' }, ['clamp']) }), booth('T2')]
    expect(classSentence(answer({ booths: looked }))).toBe(
      'Reed until 10:00. 1 of 2 looked at, two things found, one still so.',
    )
    const right = [booth('T1', { look: look({ tip: 'right' }) })]
    expect(classSentence(answer({ booths: right }))).toBe('Reed until 10:00. Its booth is looked at, nothing found.')
  })
  it('of a shop without groups says what begins it', () => {
    expect(classSentence(answer({ period: null, groups: 0 }))).toMatch(/^No group yet/)
    expect(classSentence(answer({ period: null, groups: 2 }))).toMatch(/^No class in the calendar/)
  })
  it('what Floor knows is wrong stands before what was looked at', () => {
    const stand = [booth('T1'), booth('T2', { isDown: true }), booth('T3', { look: look({ clamp: 'off' }, ['clamp']) })]
    expect(fitSentence(stand, new Map([['stn_T1', 'Put on KE-T9, 2 min']]))).toBe(
      '0 of 3 fit to give out. T1: put on KE-T9, 2 min. T2: down. T3: work clamp not on.',
    )
    expect(fitSentence([booth('T1')], new Map())).toBe('1 of 1 fit to give out.')
  })
})

describe('what to teach, in words', () => {
  const t = { item: 'gunHome' as const, wrong: 30, looked: 90, share: 1 / 3, low: 0.25, high: 0.42, minutes: 9 }
  it('is the group’s where it stands out, and nobody’s own where it does not', () => {
    expect(teachSentence({ ...t, why: 'thisGroup', byLuck: 0.01 }, 'Reed')).toBe(
      'Half out: 30 of 90 times after Reed, at the same booths more than after others (25 to 42 in 100; by luck under 1 in 50).',
    )
    expect(teachSentence({ ...t, why: 'everywhere', byLuck: null }, 'Reed')).toContain('Nobody’s own')
  })
  it('what came of a lesson is helped, cannot tell, or too early', () => {
    const of = {
      before: { wrong: 20, looked: 60 },
      since: { wrong: 3, looked: 50 },
      othersBefore: { wrong: 5, looked: 100 },
      othersSince: { wrong: 5, looked: 100 },
      looksToGo: 0,
      item: 'clamp' as const,
      day: '2026-11-02',
    }
    expect(helpedSentence({ ...of, says: 'helped', byLuck: 0.01 })).toBe(
      'It helped: 20 of 60 before, 3 of 50 since (others 5 and 5 in 100); by luck under 1 in 50.',
    )
    expect(helpedSentence({ ...of, says: 'cannotTell', byLuck: 0.3 })).toMatch(/^Cannot tell yet/)
    expect(helpedSentence({ ...of, says: 'tooEarly', byLuck: null, looksToGo: 12 })).toContain('After 12 more looks.')
  })
  it('tips of the week say what lies there, and what may not last', () => {
    const tips = {
      week: { days: 7, classes: 13, mean: 11.6, low: 7, high: 16 },
      month: { days: 28, classes: 50, mean: 44.9, low: 35, high: 55 },
      ...{ past: [], part: { partId: 'part_a', code: 'KE-T9', name: 'tip 0.9', onHand: 20 } },
    } as unknown as NonNullable<ClassesAnswer['tips']>
    expect(tipsSentence(tips)).toBe(
      '13 classes in seven days: about 12 (7 to 16); in four weeks about 45 (35 to 55). 20 KE-T9 on hand. They may not last the four weeks.',
    )
    expect(tipsSentence({ ...tips, part: { ...tips.part!, onHand: 9 } })).toContain('Order now')
    expect(tipsSentence({ ...tips, part: null })).not.toContain('on hand')
  })
  it('calls of the week by where they began, and what was no fault of the machine', () => {
    const places = [
      { place: 'tip' as const, n: 6 },
      { place: 'nozzle' as const, n: 3 },
      { place: 'pin' as const, n: 2 },
      { place: 'liner' as const, n: 1 },
    ]
    expect(callsSentence({ n: 15, places, machine: 1, notMachine: 2, untold: 0 })).toBe(
      '15 calls in seven days. Tip 6, nozzle 3, gun pin 2, elsewhere 1; machine or gun, nobody said where 1; the machine was well 2 times: hand, joint or metal.',
    )
    expect(callsSentence({ n: 1, places: [], machine: 0, notMachine: 1, untold: 0 })).toBe(
      '1 call in seven days. The machine was well once: hand, joint or metal.',
    )
    expect(callsSentence({ n: 0, places: [], machine: 0, notMachine: 0, untold: 0 })).toBe(
      'Nobody called in seven days.',
    )
  })
  it('wire of the week by level, in the shop’s units, and how many spools may be wanted', () => {
    const wire = {
      ...{ wireId: 'wir_a', name: 'solid 0.9', onHandKg: 30, unknown: 0, spoolKg: 15 },
      week: { hours: 20, mean: 14, low: 11.2, high: 17 },
      month: { hours: 80, mean: 56, low: 46, high: 64 },
      perHour: [
        { level: 'skilled', kg: 1.1 },
        { level: 'new', kg: 0.4 },
      ],
    } as unknown as ClassesAnswer['wires'][number]
    expect(wireSentence(wire, 'metric')).toBe(
      'Solid 0.9: about 14 kg in seven days (11 kg to 17 kg); in four weeks about 56 kg (46 kg to 64 kg). At one booth beginners weld 0.4 kg an hour of class and skilled ones 1.1 kg. 30 kg on the shelf, and what hangs on the guns: three more spools may be wanted before the four weeks are over.',
    )
    expect(wireSentence({ ...wire, onHandKg: 9 }, 'metric')).toContain(
      'one more spool may be wanted this week, four in four.',
    )
    expect(wireSentence({ ...wire, onHandKg: 90 }, 'us')).toMatch(/about 31 lb in seven days .* 200 lb on the shelf\.$/)
    expect(wireSentence({ ...wire, unknown: 1 }, 'metric')).toMatch(/30 kg and 1 spool nobody weighed on the shelf\.$/)
    expect(wireSentence({ ...wire, onHandKg: 0 }, 'metric')).toContain('None on the shelf, and what hangs')
    const alike = { ...wire, perHour: [{ level: null, kg: 0.43 }] }
    expect(wireSentence(alike, 'metric')).toContain('At one booth 0.43 kg an hour of class, whatever the level')
  })
  it('lists what was found, the most first', () => {
    const found = [
      { item: 'clamp' as const, wrong: 1, looked: 8 },
      { item: 'gunHome' as const, wrong: 3, looked: 8 },
      { item: 'tip' as const, wrong: 0, looked: 8 },
    ]
    expect(foundList(found)).toBe('gun in its socket 3 and work clamp 1')
  })
})

describe('a look before class', () => {
  it('a tap says it, the same tap takes it back, with whether it is still so', () => {
    const one = kept(tapped(NOTHING_LOOKED, 'clamp', 'off'), 'clamp', true)
    expect(one).toEqual({ found: { clamp: 'off' }, still: ['clamp'] })
    expect(tapped(one, 'clamp', 'off')).toEqual(NOTHING_LOOKED)
    expect(tapped(one, 'clamp', 'right')).toEqual({ found: { clamp: 'right' }, still: [] })
  })
  it('one key says that the rest is right', () => {
    const all = restRight(tapped(NOTHING_LOOKED, 'tip', 'loose'))
    expect(Object.keys(all.found)).toHaveLength(HAND_ITEM_KEYS.length)
    expect(all.found.tip).toBe('loose')
  })
  it('goes on to the next that nobody has looked at, round the bay', () => {
    const bay = [
      booth('T1'),
      booth('T2', { look: look({ tip: 'right' }) }),
      booth('T3', { isParked: true }),
      booth('T4'),
    ]
    expect(nextBooth(bay, 'stn_T1')?.name).toBe('T4')
    expect(nextBooth(bay, 'stn_T4')?.name).toBe('T1')
    expect(nextBooth([booth('T1')], 'stn_T1')).toBeNull()
  })
})

describe('technique in words', () => {
  const t = {
    ...{
      name: 'T1',
      wireName: null,
      mode: null,
      minuteFirst: true,
      stickOutMm: [10, 15],
      stickOutBy: 'trade',
      workDeg: 45,
    },
    ...{ travelDeg: [10, 15], way: 'pull', speedMmS: [5, 10], wireAt: 'leading edge', of: null, days: 28, was: [] },
  } as unknown as TechniqueAnswer
  it('is in the shop’s units, with whose number it is', () => {
    expect(
      techniqueLines(t, 'metric')
        .map(([, how]) => how)
        .slice(0, 5),
    ).toEqual([
      ...['10 mm to 15 mm', '45°', '10 to 15°', 'pull: it points back over the bead', '30 cm/min to 60 cm/min'],
    ])
    expect(techniqueLines(t, 'us')[0]).toEqual(['wire out of the tip', '3/8 in to 9/16 in', 'the trade’s'])
    expect(techniqueLines(t, 'us')[4]?.[1]).toBe('12 in/min to 24 in/min')
  })
})

describe('the calendar on the screen', () => {
  it('two at once stand one below the other', () => {
    const o = (fromMs: number, toMs: number) => ({ fromMs, toMs }) as CalendarAnswer['occurrences'][number]
    expect(lanesOf([o(0, 10), o(5, 15), o(10, 20)]).map((b) => b.lane)).toEqual([0, 1, 0])
  })
  it.each([
    ['8:50', '08:50'],
    ['0850', '08:50'],
    ['8.50', '08:50'],
    ['1 pm', '13:00'],
    ['12:15 am', '00:15'],
    ['25:00', null],
    ['soon', null],
    ['13 pm', null],
  ])('a time typed as %s is %s', (typed, read) => {
    const got = wallText(typed)
    expect(got.ok ? got.value : null).toBe(read)
  })
  it('what a quiz was about, in words', () => {
    expect(aboutWords({ kind: 'name', about: 'tip' })).toBe('where the tip sits')
    expect(aboutWords({ kind: 'pair', about: 'tipTight' })).toBe('how tight a tip is')
    expect(aboutWords({ kind: 'trigger', about: 'armOpen' })).toBe('what the trigger starts')
  })
})

describe('another wire for the next class', () => {
  it('is one list of changes for each wire, the most booths first, and none for a booth that is parked', () => {
    const wants = (name: string, wire: string, own = {}) =>
      booth(name, { wantsWireId: `wire_${wire}`, wantsWireName: wire, ...own } as never)
    const changes = wireChanges([
      wants('T1', 'cored'),
      wants('T2', 'solid'),
      booth('T3'),
      wants('T4', 'solid'),
      wants('T5', 'cored', { isParked: true }),
    ])
    expect(changes.map((c) => [c.wireName, c.booths.map((b) => b.name)])).toEqual([
      ['solid', ['T2', 'T4']],
      ['cored', ['T1']],
    ])
  })
})
