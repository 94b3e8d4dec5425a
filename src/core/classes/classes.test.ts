import { describe, expect, it } from 'vitest'
import { DRAWINGS } from '@core/drawings/all.ts'
import { beyondChance } from './beyond.ts'
import { lessonHelped } from './helped.ts'
import { HAND_ITEM_KEYS, HAND_ITEMS, handItem, isAnswer, PAIR_KEYS, wrongOf } from './items.ts'
import { PAIRS } from './pairs.ts'
import { sinceTaught, whatToTeach } from './teach.ts'
import { dayOfPeriod, drawSchool, groupOf, type SchoolAsked } from './world.ts'

const SCHOOL: SchoolAsked = { seed: 1, booths: 12, groups: 4, periods: 8, share: 0.12, spread: 0.8, differs: null }
const school = (own: Partial<SchoolAsked>) => drawSchool({ ...SCHOOL, ...own })

describe('what is looked at between two classes', () => {
  it('has for each thing a right answer, a wrong one, what puts it right in a line, and its pair', () => {
    for (const key of HAND_ITEM_KEYS) {
      expect(handItem(key).putRight.length, key).toBeLessThanOrEqual(44)
      expect(PAIR_KEYS).toContain(HAND_ITEMS[key].pair)
      expect(isAnswer(key, 'right')).toBe(true)
      expect(isAnswer(key, handItem(key).wrong[0].key)).toBe(true)
      expect(isAnswer(key, 'lovely')).toBe(false)
    }
    expect(wrongOf({ tip: 'right', flow: 'changed' })).toEqual(['flow'])
  })
  it('puts nothing right under power, where hands go to the tip, the socket or the clamp', () => {
    for (const key of ['tip', 'gunHome', 'clamp'] as const) {
      expect(handItem(key).putRight).toContain('Power off')
      expect(handItem(key).wantsOff).toBe(true)
    }
  })
  it('every pair is drawn, and says right and wrong', () => {
    for (const key of PAIR_KEYS) {
      const { panels } = DRAWINGS[PAIRS[key].drawing]
      expect([panels[0]?.is, panels[1]?.is], key).toEqual(['right', 'wrong'])
      expect(PAIRS[key].right).not.toBe(PAIRS[key].wrong)
    }
  })
})

describe('a group that stands out', () => {
  it('is named in at most one school of twenty where none differs, whatever booths and hands do', () => {
    const named = Array.from({ length: 80 }, (_, i) => beyondChance(school({ seed: 500 + i })).some((g) => g.isBeyond))
    // Of 80 at one in twenty: more than 9 would come by luck less than once in 100.
    expect(named.filter(Boolean).length).toBeLessThanOrEqual(9)
  })
  it('is found where it does differ, at the thing it differs in, and alone', () => {
    const found = Array.from({ length: 12 }, (_, i) =>
      beyondChance(school({ seed: 900 + i, differs: { group: 1, item: 'gunHome', odds: 6 } }))
        .filter((g) => g.isBeyond)
        .map((g) => `${g.group} ${g.item}`),
    )
    expect(found.filter((f) => f.includes('g1 gunHome')).length).toBeGreaterThanOrEqual(9)
    expect(found.flat().filter((f) => f !== 'g1 gunHome').length).toBeLessThanOrEqual(2)
  })
  it('is nobody because of one pair of hands, or one booth', () => {
    const clumsy = school({ share: 0.03, spread: 0 }).map((l) =>
      l.boothId === 'b3' && l.leftBy === 'g2' ? { ...l, found: { ...l.found, tip: 'overTight' } } : l,
    )
    expect(beyondChance(clumsy).filter((g) => g.isBeyond)).toEqual([])
    const worn = school({ share: 0.03, spread: 0 }).map((l) =>
      l.boothId === 'b3' ? { ...l, found: { ...l.found, gunHome: 'halfOut' } } : l,
    )
    expect(beyondChance(worn).filter((g) => g.isBeyond)).toEqual([])
  })
  it('is nobody while little was looked at, and the same looks say the same', () => {
    const few = school({ periods: 1, booths: 3 })
    expect(beyondChance(few).every((g) => g.byLuck === null && !g.isBeyond)).toBe(true)
    expect(beyondChance([])).toEqual([])
    const looks = school({ seed: 3 })
    expect(beyondChance(looks)).toEqual(beyondChance(looks))
  })
})

describe('what to teach', () => {
  const looks = school({ seed: 901, differs: { group: 1, item: 'gunHome', odds: 8 } })
  const ofGroups = beyondChance(looks)
  const ask = (group: string, taught: Parameters<typeof whatToTeach>[0]['taught'] = []) =>
    whatToTeach({ group, ofGroups, booths: 12, taught })
  it('is what the group does more than others, else what is common and costs most', () => {
    expect(ask(groupOf(1))[0]).toMatchObject({ item: 'gunHome', why: 'thisGroup' })
    const other = ask(groupOf(0))
    expect(other.every((t) => t.why === 'everywhere')).toBe(true)
    expect(other.map((t) => t.minutes)).toEqual(other.map((t) => t.minutes).sort((a, b) => b - a))
  })
  it('is let work for two weeks once it was taught', () => {
    expect(ask(groupOf(1), [{ item: 'gunHome', daysAgo: 3 }])[0]?.item).not.toBe('gunHome')
    expect(ask(groupOf(1), [{ item: 'gunHome', daysAgo: 15 }])[0]?.item).toBe('gunHome')
  })
  it('counts what a group was taught about from the lesson on, and nothing else less', () => {
    const day = dayOfPeriod(3)
    const left = sinceTaught(looks, [{ group: groupOf(1), item: 'gunHome', day }])
    expect(left.some((l) => l.leftBy === groupOf(1) && l.day <= day && 'gunHome' in l.found)).toBe(false)
    expect(left.every((l) => 'tip' in l.found)).toBe(true)
    expect(left.filter((l) => 'gunHome' in l.found).length).toBe(looks.length - 4 * 12)
    expect(sinceTaught(looks, [])).toEqual(looks)
  })
  it('is nothing while next to nothing was found', () =>
    expect(whatToTeach({ group: 'g', ofGroups: [], booths: 9, taught: [] })).toEqual([]))
})

describe('whether a lesson helped', () => {
  const differs = { group: 1, item: 'gunHome' as const, odds: 10, untilPeriod: 8 }
  const lesson = { group: 'g1', item: 'gunHome' as const, day: dayOfPeriod(8) }
  it('is said where it fell, and the others did not', () => {
    const told = lessonHelped(school({ seed: 77, periods: 17, differs }), lesson)
    expect(told.says).toBe('helped')
    expect(told.since.wrong / told.since.looked).toBeLessThan(told.before.wrong / told.before.looked)
  })
  it('is not said where all fell alike: that was not the lesson', () => {
    const all = school({ seed: 78, periods: 17, share: 0.4 }).map((l) =>
      l.day > lesson.day
        ? { ...l, found: { ...l.found, gunHome: l.boothId < 'b3' ? (l.found.gunHome ?? 'right') : 'right' } }
        : l,
    )
    expect(lessonHelped(all, lesson).says).not.toBe('helped')
  })
  it('comes by luck at most one time in twenty where nothing changed', () => {
    const said = Array.from(
      { length: 100 },
      (_, i) => lessonHelped(school({ seed: 3000 + i, periods: 17 }), lesson).says,
    )
    expect(said.filter((s) => s === 'helped').length).toBeLessThanOrEqual(11)
  })
  it('waits until there was enough to look at', () =>
    expect(lessonHelped(school({ periods: 9, booths: 10 }), lesson)).toMatchObject({ says: 'tooEarly', looksToGo: 20 }))
})
