import { isDeepStrictEqual } from 'node:util'
import { describe, expect, it } from 'vitest'
import { knowledgeFaults, type Cause, type Check, type Knowledge } from './knowledge.ts'
import { withNews as merged } from './merge.ts'
import { SHIPPED } from './shipped/knowledge.ts'

/** What shipped when the shop changed its lists: a little of what ships now, or what ships now without a row or two. */
const without = (k: Knowledge, cause: string): Knowledge => ({
  symptoms: k.symptoms.map((s) => {
    const { [cause]: _, ...odds } = s.odds ?? {}
    const { [cause]: __, ...source } = s.source ?? {}
    return {
      ...s,
      causes: s.causes.filter((c) => c !== cause),
      ...(s.odds ? { odds } : {}),
      ...(s.source ? { source } : {}),
    }
  }),
  causes: k.causes.filter((c) => c.key !== cause),
  checks: k.checks.map((c) => ({
    ...c,
    outcomes: c.outcomes.map((o) => ({ ...o, points: o.points.filter((p) => p !== cause) })),
  })),
})
const withNews = (base: Knowledge, own: Knowledge, ships: Knowledge) => merged({ base, own, ships }, isDeepStrictEqual)
const causeIn = (k: Knowledge, key: string) => k.causes.find((c) => c.key === key)
const checkIn = (k: Knowledge, key: string) => k.checks.find((c) => c.key === key)
const symptomIn = (k: Knowledge, key: string) => k.symptoms.find((s) => s.key === key)
const withCause = (k: Knowledge, key: string, over: Partial<Cause>): Knowledge => ({
  ...k,
  causes: k.causes.map((c) => (c.key === key ? { ...c, ...over } : c)),
})
const withCheck = (k: Knowledge, key: string, over: Partial<Check>): Knowledge => ({
  ...k,
  checks: k.checks.map((c) => (c.key === key ? { ...c, ...over } : c)),
})
const before = without(SHIPPED, 'hubPin')

describe('a shop’s own lists, and what ships new', () => {
  it('are what ships where the shop changed nothing', () => {
    expect(withNews(before, before, SHIPPED).knowledge).toEqual(SHIPPED)
    expect(withNews(SHIPPED, SHIPPED, SHIPPED)).toEqual({
      knowledge: SHIPPED,
      came: { symptoms: 0, causes: 0, checks: 0 },
    })
  })
  it('keep the shop’s words of one field, and take what is new in another of the same row', () => {
    const own = withCheck(before, 'straighten', { do: 'Cable out straight on the floor' })
    const ships = withCheck(SHIPPED, 'straighten', { minutes: 0.4, do: 'Lay it straight' })
    const { knowledge } = withNews(before, own, ships)
    expect(checkIn(knowledge, 'straighten')).toMatchObject({ do: 'Cable out straight on the floor', minutes: 0.4 })
  })
  it('get a cause with the looks that show it, where it stands in what ships', () => {
    const own = withCause(before, 'tipWorn', { says: 'tip done for' })
    const { knowledge, came } = withNews(before, own, SHIPPED)
    expect(came).toEqual({ symptoms: 0, causes: 1, checks: 0 })
    expect(causeIn(knowledge, 'hubPin')).toEqual(causeIn(SHIPPED, 'hubPin'))
    expect(causeIn(knowledge, 'tipWorn')?.says).toBe('tip done for')
    for (const s of knowledge.symptoms) expect(s.causes).toEqual(symptomIn(SHIPPED, s.key)?.causes)
    expect(knowledgeFaults(knowledge)).toEqual([])
  })
  it('in the shop’s own order, what is new after the one it follows', () => {
    const nest = symptomIn(before, 'nest')
    const turned = [...(nest?.causes ?? [])].reverse()
    const own = { ...before, symptoms: before.symptoms.map((s) => (s.key === 'nest' ? { ...s, causes: turned } : s)) }
    const now = symptomIn(withNews(before, own, SHIPPED).knowledge, 'nest')?.causes ?? []
    expect(now.filter((c) => c !== 'hubPin')).toEqual(turned)
    const ships = symptomIn(SHIPPED, 'nest')?.causes ?? []
    expect(now.indexOf('hubPin')).toBe(now.indexOf(ships[ships.indexOf('hubPin') - 1] ?? '') + 1)
  })
  it('leave out what the shop took out, and keep what it made', () => {
    const made: Cause = { ...(causeIn(before, 'tipWorn') as Cause), key: 'ownThing', says: 'the fan over booth 3' }
    const own = {
      ...without(before, 'draught'),
      causes: [...without(before, 'draught').causes, made],
      symptoms: without(before, 'draught').symptoms.map((s) =>
        s.key === 'porosity'
          ? { ...s, causes: [...s.causes, 'ownThing'], odds: { ...s.odds, ownThing: 'often' as const } }
          : s,
      ),
      checks: without(before, 'draught').checks.map((c) =>
        c.key === 'draughtFeel' || c.outcomes.length < 3
          ? c
          : { ...c, outcomes: c.outcomes.map((o, i) => (i === 0 ? { ...o, points: [...o.points, 'ownThing'] } : o)) },
      ),
    }
    const { knowledge } = withNews(before, own, SHIPPED)
    expect(causeIn(knowledge, 'draught')).toBeUndefined()
    expect(knowledge.symptoms.flatMap((s) => s.causes)).not.toContain('draught')
    expect(symptomIn(knowledge, 'porosity')).toMatchObject({ odds: { ownThing: 'often' } })
    expect(causeIn(knowledge, 'hubPin')).toBeDefined()
    expect(knowledgeFaults(knowledge)).toEqual([])
  })
  it('lose what ships no more and the shop left as it was; what it changed stays', () => {
    const ships = without(SHIPPED, 'draught')
    expect(causeIn(withNews(SHIPPED, SHIPPED, ships).knowledge, 'draught')).toBeUndefined()
    const told = { ...SHIPPED, checks: [...SHIPPED.checks.filter((c) => c.key !== 'otherGun')] }
    const own = withCheck(SHIPPED, 'otherGun', { how: 'Ours: the card on the lid.' })
    expect(checkIn(withNews(SHIPPED, own, told).knowledge, 'otherGun')?.how).toBe('Ours: the card on the lid.')
  })
  it('that would not hold together with what is new stay as they are', () => {
    const own = withCause(before, 'tipWorn', { says: 'tip done for' })
    // A look that is to come after one that is not there.
    const broken = withCheck(SHIPPED, 'straighten', { after: 'gone' })
    expect(withNews(before, own, broken)).toEqual({ knowledge: own, came: { symptoms: 0, causes: 0, checks: 0 } })
  })
})
