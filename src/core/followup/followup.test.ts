import { describe, expect, it } from 'vitest'
import { questionByCode, QUESTIONS } from '@core/houserule/schools.ts'
import { KIND_DEFAULTS } from '@core/path/kinds.ts'
import {
  FOLLOW_UP_TEXT,
  followUp,
  openFollowUps,
  TRIGGERS,
  type FollowUpAt,
  type Happening,
  type Pending,
} from './followup.ts'
import { FOLLOW_UPS, type FollowUp } from './keys.ts'

const NOTHING: Happening = {
  kind: 'fitted',
  position: null,
  isOtherPart: false,
  isKnocked: false,
  hasCrashed: false,
  isNeckOn: false,
  isSeatedAgain: false,
  followedUp: null,
  isRaised: false,
  nozzleCleanings: 0,
}
function after(...events: Partial<Happening>[]): Map<FollowUp, Pending> {
  const pending = new Map<FollowUp, Pending>()
  events.forEach((e, i) => followUp(pending, { ...NOTHING, ...e }, i))
  return pending
}
const at = (more: Partial<FollowUpAt> = {}): FollowUpAt => ({
  nowMs: 100,
  isCell: false,
  schoolOf: (code) => questionByCode.get(code)?.usual ?? '',
  workedHSince: () => 2,
  ...more,
})
const open = (pending: Map<FollowUp, Pending>, where: FollowUpAt = at()) =>
  openFollowUps([Object.fromEntries(pending)], where).map((f) => f.follow)

describe('what an act makes necessary', () => {
  it('a liner: tension, free feed, the seat and the O-rings', () =>
    expect(open(after({ position: 'liner' }))).toEqual(['tension', 'freeFeed', 'seat', 'orings']))
  it('rolls: tension and the outlet guide; wire: tension; a tip: nothing', () => {
    expect(open(after({ position: 'rolls' }))).toEqual(['tension', 'outlet'])
    expect(open(after({ kind: 'wireLoaded' }))).toEqual(['tension'])
    expect(open(after({ position: 'tip' }))).toEqual([])
  })
  it('a gun that hangs again: its seat and its O-rings', () =>
    expect(open(after({ kind: 'mounted', isSeatedAgain: true }))).toEqual(['seat', 'orings']))
  it('on a cell: the reamer after another part, the tool centre after a knock; on a booth neither', () => {
    const both = after({ position: 'nozzle', isOtherPart: true }, { position: 'tip', isKnocked: true })
    expect(open(both, at({ isCell: true }))).toEqual(['reamer', 'toolCentre'])
    expect(open(both)).toEqual([])
  })
  it('a knob raised to keep going: somebody looks at the liner, however long it runs', () => {
    const raised = after({ kind: 'reading', isRaised: true })
    expect(open(raised, at({ workedHSince: () => 300 }))).toEqual(['linerCheck'])
    expect(open(after({ kind: 'reading', isRaised: true }, { kind: 'confirmed', position: 'liner' }))).toEqual([])
    expect(open(after({ kind: 'reading', isRaised: true }, { position: 'liner' }))).not.toContain('linerCheck')
  })
  it('every eighth cleaning of the nozzle asks for the diffuser, which brushing settles and a glance does not', () => {
    const nozzle = (nozzleCleanings: number) => ({
      kind: 'cleaned' as const,
      position: 'nozzle' as const,
      nozzleCleanings,
    })
    expect(open(after(nozzle(7)))).toEqual([])
    expect(open(after(nozzle(8)))).toEqual(['deepClean'])
    expect(open(after(nozzle(8), nozzle(9)))).toEqual(['deepClean'])
    expect(open(after(nozzle(8), { kind: 'confirmed', position: 'diffuser' }))).toEqual(['deepClean'])
    expect(open(after(nozzle(8), { kind: 'cleaned', position: 'diffuser' }))).toEqual([])
    expect(open(after({ kind: 'reading' }))).toEqual([])
  })
  it('goes by the school of when tension is set', () => {
    const liner = after({ position: 'liner' })
    const spool = after({ kind: 'wireLoaded' })
    const by = (school: string) => at({ schoolOf: () => school })
    expect([open(liner, by('liner')), open(spool, by('liner'))].map((o) => o.includes('tension'))).toEqual([
      true,
      false,
    ])
    expect([open(liner, by('wire')), open(spool, by('wire'))].map((o) => o.includes('tension'))).toEqual([false, true])
    expect(open(spool, by('fault'))).toEqual([])
  })
})

describe('what settles it', () => {
  it('being said, or the thing itself being looked at', () => {
    expect(open(after({ kind: 'wireLoaded' }, { kind: 'followedUp', followedUp: 'tension' }))).toEqual([])
    expect(open(after({ position: 'rolls' }, { kind: 'confirmed', position: 'outlet' }))).toEqual(['tension'])
    expect(open(after({ position: 'liner' }, { position: 'orings' }))).not.toContain('orings')
    expect(open(after({ position: 'liner' }, { kind: 'confirmed', position: null }))).toEqual(['tension', 'freeFeed'])
  })
  it('and not what came before it', () =>
    expect(open(after({ kind: 'followedUp', followedUp: 'tension' }, { kind: 'wireLoaded' }))).toEqual(['tension']))
  it('or that it ran: a spool’s tension is not asked for after a shift, a liner’s after a week', () => {
    const worked = (h: number) => at({ workedHSince: () => h })
    expect(open(after({ kind: 'wireLoaded' }), worked(8))).toEqual(['tension'])
    expect(open(after({ kind: 'wireLoaded' }), worked(9))).toEqual([])
    expect(open(after({ position: 'liner' }), worked(39))).toContain('tension')
    expect(open(after({ position: 'liner' }), worked(41))).toEqual([])
  })
  it('the seat waits until the gun has run', () => {
    const asked = (h: number) =>
      openFollowUps(
        [Object.fromEntries(after({ isSeatedAgain: true, kind: 'mounted' }))],
        at({ workedHSince: () => h }),
      )
    expect(asked(0.5).find((f) => f.follow === 'seat')?.isAsked).toBe(false)
    expect(asked(1).find((f) => f.follow === 'seat')?.isAsked).toBe(true)
    expect(asked(0).find((f) => f.follow === 'orings')?.isAsked).toBe(true)
  })
  it('of two carriers the later one counts', () => {
    const [one] = openFollowUps(
      [{ tension: { sinceMs: 5, by: 'linerTension' } }, { tension: { sinceMs: 9, by: 'spoolTension' } }],
      at(),
    )
    expect(one).toMatchObject({ follow: 'tension', by: 'spoolTension' })
  })
})

describe('the table', () => {
  it('hangs every task at a position of the path, and asks only by schools there are', () => {
    const kinds = new Set(KIND_DEFAULTS.map((k) => k.key))
    for (const f of FOLLOW_UPS) expect(kinds.has(FOLLOW_UP_TEXT[f].at), f).toBe(true)
    for (const t of Object.values(TRIGGERS)) {
      const question = QUESTIONS.find((q) => q.code === t.onlyBy?.code)
      for (const s of t.onlyBy?.schools ?? []) expect(question?.schools.map((x) => x.key)).toContain(s)
    }
    expect(new Set(Object.values(TRIGGERS).map((t) => t.follow))).toEqual(new Set(FOLLOW_UPS))
  })
})
