import { describe, expect, it } from 'vitest'
import { type CalendarAnswer, type ClassesAnswer, type GroupsAnswer } from '@contract/classes.ts'
import { type FloorAnswer } from '@contract/floor.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type KitAnswer, type StockAnswer } from '@contract/stock.ts'
import { DAY_MS } from '@core/units/time.ts'
import { Fitter } from '@server/life/fitter.ts'
import { keepFits } from '@server/life/keep.ts'
import { ShopStore } from '@server/shopmodel/store.ts'
import { openFitShop, STEEL } from '@server/testing/fitshop.ts'
import { serverForAll } from '@server/testing/serverforall.ts'
import { makePlaces, nextKey, type Client } from '@server/testing/testserver.ts'

/** Three booths, two groups on alternate days, eight weeks of shifts told; then a term that ends. */
let lead: Client
let ids: Map<string, string>
let tipId: string
/** A Monday, 06:00 in Oslo. */
const START = Date.UTC(2026, 10, 2, 5)
const WEEKS = 8
const dayAt = (n: number) => new Date(START + n * DAY_MS).toISOString().slice(0, 10)
const send = (path: string, body: Record<string, unknown>) => lead.post(path, { key: nextKey(), ...body })
const NEW = [1, 3, 5]
const SKILLED = [2, 4]
/** Wire of a booth on such a day: beginners weld less. */
const kgOn = (weekday: number) => (NEW.includes(weekday) ? 0.6 : 1.5)

async function groupOf(
  name: string,
  level: string,
  of: { booths: readonly string[]; weekdays: readonly number[]; untilDay: string | null },
) {
  const booths = of.booths.map((stationId) => ({ stationId, wireId: null, learner: null }))
  await send('/classes/group', { id: null, name, level, size: 3, booths })
  const { groups } = (await lead.get<GroupsAnswer>('/classes/groups')).body
  await send('/calendar/entry', {
    ...{ id: null, kind: 'class', name, areaId: null, groupId: groups.find((g) => g.name === name)?.id ?? null },
    ...{ firstDay: dayAt(-7 * WEEKS), start: '09:00', end: '12:00' },
    weekly: { weekdays: of.weekdays, untilDay: of.untilDay, everyWeeks: 1 },
  })
}

serverForAll({ nowMs: START }, async (here) => {
  ;({ lead } = here)
  await send('/shop/site', { name: 'School', zone: 'Europe/Oslo', units: 'metric', currency: 'EUR' })
  await send('/shop/shifts', {
    areaId: null,
    shifts: [{ name: 'day', weekdays: [1, 2, 3, 4, 5], start: '08:00', end: '16:00', breaks: [] }],
  })
  const at = await openFitShop(lead, 'T1–T3', { classKey: 'training', placeWord: 'booth' })
  const booths = [...at.ids.values()]
  ids = at.ids
  tipId = at.part('T9')
  await groupOf('Reed', 'new', { booths, weekdays: NEW, untilDay: null })
  await groupOf('Moss', 'skilled', { booths, weekdays: SKILLED, untilDay: null })
  for (let d = -7 * WEEKS; d < 0; d++) {
    const weekday = (((d % 7) + 7) % 7) + 1
    if (weekday > 5) continue
    for (const stationId of booths)
      await send('/clock/usage', { stationId, day: dayAt(d), kg: kgOn(weekday), arcHours: kgOn(weekday) / 2 })
  }
  await keepFits({ ...here.server.parts.deps, shops: new ShopStore() }, new Fitter())
})

describe('a kit for a class', () => {
  const kit = async (of = '') => (await lead.get<KitAnswer>(`/parts/kit${of}`)).body
  const groupIdOf = async (name: string) =>
    (await lead.get<GroupsAnswer>('/classes/groups')).body.groups.find((g) => g.name === name)?.id
  it('holds the tips a class of that level may take, beyond what is due', async () => {
    expect((await kit()).lines).toEqual([])
    // Ten in the classes of beginners; those of the skilled take none.
    for (let w = 1; w <= 5; w++)
      for (const name of ['T1', 'T2']) {
        const atMs = START - 7 * w * DAY_MS + 4 * 3_600_000
        const act = { stationId: ids.get(name), act: 'changed', position: 'tip', outReason: 'worn', happenedMs: atMs }
        await send('/logbook', { acts: [{ ...act, count: 1, partId: tipId }] })
      }
    const { lines } = await kit(`?groupId=${await groupIdOf('Reed')}`)
    expect(lines.map((l) => [l.code, l.guns])).toEqual([['T9', []]])
    expect(lines[0]?.quantity).toBe(lines[0]?.forClass)
    expect(lines[0]?.forClass).toBeGreaterThanOrEqual(1)
    expect((await kit(`?groupId=${await groupIdOf('Moss')}`)).lines[0]?.forClass ?? 0).toBeLessThan(
      lines[0]?.forClass ?? 0,
    )
  })
  it('of a group there is not is refused', async () => {
    expect((await lead.get('/parts/kit?groupId=grp_nowhere000')).status).toBe(404)
  })
})

describe('wire by calendar and level', () => {
  it('is told for the coming week, by what each level welded', async () => {
    const { wires } = (await lead.get<ClassesAnswer>('/classes')).body
    expect(wires.map((w) => w.name)).toEqual([STEEL])
    const [wire] = wires
    const rate = (level: string) => wire?.perHour.find((r) => r.level === level)?.kg ?? 0
    expect(rate('new')).toBeCloseTo(0.2, 1)
    expect(rate('skilled')).toBeCloseTo(0.5, 1)
    const week = 3 * (3 * 0.6 + 2 * 1.5)
    expect(Math.abs((wire?.week.mean ?? 0) / week - 1)).toBeLessThan(0.08)
    expect(wire?.week.low).toBeLessThan(wire?.week.mean ?? 0)
    expect(Math.abs((wire?.month.mean ?? 0) / (4 * week) - 1)).toBeLessThan(0.08)
  })
  it('without shifts goes by weeks, in a zone far from Greenwich too: the week’s total is right, and no level is told apart', async () => {
    const site = { name: 'School', units: 'us', currency: 'USD' }
    await send('/shop/site', { ...site, zone: 'America/Chicago' })
    await send('/shop/shifts', { areaId: null, shifts: [] })
    const [wire] = (await lead.get<ClassesAnswer>('/classes')).body.wires
    expect(wire?.perHour.map((r) => r.level)).toEqual([null])
    const week = 3 * (3 * 0.6 + 2 * 1.5)
    expect(Math.abs((wire?.month.mean ?? 0) / (4 * week) - 1)).toBeLessThan(0.08)
    await send('/shop/site', { ...site, zone: 'Europe/Oslo', units: 'metric', currency: 'EUR' })
    await send('/shop/shifts', {
      areaId: null,
      shifts: [{ name: 'day', weekdays: [1, 2, 3, 4, 5], start: '08:00', end: '16:00', breaks: [] }],
    })
  })
  it('is what parts of booths are forecast by: as before while as many classes come, less when a term ends', async () => {
    const tip = async () =>
      (await lead.get<StockAnswer>('/parts')).body.parts.find((p) => p.kindKey === 'tip' && p.inUse > 0)
    const before = await tip()
    expect(before?.byClasses?.booths).toBe(3)
    expect(before?.byClasses?.pace).toBeCloseTo(1, 1)
    const month = (p: typeof before) => p?.need.find((n) => n.days === 30)?.mean ?? 0
    expect(month(before)).toBeGreaterThan(0)
    const { entries } = (await lead.get<CalendarAnswer>(`/calendar?from=${dayAt(0)}&days=7`)).body
    const moss = entries.find((e) => e.name === 'Moss')
    const weekly = { weekdays: SKILLED, untilDay: dayAt(-3), everyWeeks: 1 }
    const { kind, name, areaId, groupId, firstDay, start, end } = moss ?? ({} as Partial<NonNullable<typeof moss>>)
    await send('/calendar/entry', { id: moss?.id, kind, name, areaId, groupId, firstDay, start, end, weekly })
    const after = await tip()
    // Nine hours of beginners a week at 0.2 kg, of once six more at 0.5.
    expect(after?.byClasses?.pace).toBeGreaterThan(0.3)
    expect(after?.byClasses?.pace).toBeLessThan(0.5)
    expect(month(after)).toBeLessThan(0.6 * month(before))
  })
})

describe('a floor of booths with classes and of others', () => {
  it('goes by the window most rows share; a booth whose class begins sooner says so', async () => {
    const others = [...(await makePlaces(lead, 'A1–A4')).values()]
    await send('/shop/rule', { kindKey: 'tip', classKey: '*', changeLimit: 0.1, cleanLimit: null, lookDays: null })
    for (const stationId of [...others, ids.get('T3') ?? '']) {
      const act = { stationId, act: 'changed', position: 'tip', outReason: 'worn', count: 1, partId: tipId }
      await send('/logbook', { acts: [{ ...act, happenedMs: START - 5 * DAY_MS }] })
      await send('/clock/usage', { stationId, day: dayAt(-4), arcHours: 3 })
    }
    const { cutoff, guns } = (await lead.get<FloorAnswer>('/floor')).body
    const rows = guns.filter((g) => g.rank !== null)
    expect(rows.map((g) => g.name)).toEqual(expect.arrayContaining(['A1', 'A4', 'T3']))
    const ofA1 = (await lead.get<GunAnswer>(`/gun/${others[0]}`)).body.cutoff
    expect(cutoff).toEqual(ofA1)
    expect(cutoff.of).toBeNull()
    expect(cutoff.byMs).toBeGreaterThan(START + 3 * 3_600_000)
    expect(rows.find((g) => g.name === 'T3')?.by).toMatchObject({ byMs: START + 3 * 3_600_000, of: { name: 'Reed' } })
    expect(rows.find((g) => g.name === 'A1')?.by).toBeNull()
  })
})
