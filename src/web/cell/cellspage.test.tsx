import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, describe, expect, it } from 'vitest'
import { anId } from '@core/testing/ids.ts'
import { type CellFit } from '@core/rightparts/facts.ts'
import { type NecksAt } from '@core/cell/neckneed.ts'
import { type CellLine, type NeckRoundLine } from '@contract/cell.ts'
import { saidOf, stage, unstage } from '@web/testing/stage.tsx'
import { NOW } from '@web/testing/samples.ts'
import { aCell as cell, BUILT, cellsOf as answer } from '@web/testing/cellsamples.ts'
import { CellsPage } from './CellsPage.tsx'
import { cellsSentence, creepingSentence, heavierSentence, lengthsOf, oneMoreSentence, weeksWord } from './cellwords.ts'

const OK = { ok: true }
const ROUND: NeckRoundLine = {
  ...{ familyId: anId('family', 'fam_1'), familyName: 'Tarn', robots: 3, spares: 2, ready: 1 },
  lifeH: { mean: 100, sdLog: 0.2, n: 12, by: 'yours' },
  mendH: { mean: 24, sdLog: 0.3, n: 0, by: 'trade' },
  ...{ lifeShape: 2, mendSigma: 0.6, stopMinorPerHour: 14_500, priceMinor: 21_900 },
}
const todo = (task: CellLine['todo'][number]['task'], why = 'the torch hit something') => ({ task, why, sinceMs: NOW })
const row = (spares: number, pWeekShort: number, standingPerWeek: number): NecksAt => ({
  ...{ spares, pWeekShort, low: pWeekShort / 2, high: pWeekShort * 1.5, standingPerWeek },
})

describe('what the cells say first', () => {
  it('is a crash, then a tool centre, then what is down, then the necks', () => {
    const crashed = cell({ todo: [todo('toolCentre')], isDown: true })
    const centre = cell({ name: 'Cell 2', todo: [todo('toolCentre', 'another neck went on')] })
    const rounds = [ROUND]
    expect(cellsSentence({ nowMs: NOW, cells: [centre, crashed], rounds })).toContain('Cell 1: the torch hit something')
    expect(cellsSentence({ nowMs: NOW, cells: [centre], rounds })).toContain('Cell 2: the tool centre is to be checked')
    expect(cellsSentence({ nowMs: NOW, cells: [cell({ isDown: true })], rounds })).toBe('Cell 1 is down.')
    expect(cellsSentence({ nowMs: NOW, cells: [cell()], rounds: [{ ...ROUND, ready: 0 }] })).toBe('No neck is ready.')
    expect(cellsSentence({ nowMs: NOW, cells: [cell()], rounds })).toBe(
      'One neck is ready, nothing is open at the cells.',
    )
    const untold = {
      is: 'toMakeRight' as const,
      amiss: [{ is: 'untold' as const, kindKey: 'tip' as const }],
      minutes: 1,
    }
    const said = cell({
      ready: [{ neckId: 'car_n9' as CellLine['ready'][number]['neckId'], name: 'N9', verdict: untold }],
    })
    expect(cellsSentence({ nowMs: NOW, cells: [said], rounds })).toContain('No neck that is said to be ready is right')
    expect(cellsSentence({ nowMs: NOW, cells: [], rounds: [] })).toBe('No robot cells yet.')
  })
  it('a motor that works harder comes before what is only down, with how much and since when', () => {
    const creeping = { amps: 2.4, baseA: 2, sinceMs: NOW - 3 * 86_400_000, atMs: NOW }
    const c = cell({ creeping })
    expect(cellsSentence({ nowMs: NOW, cells: [c], rounds: [ROUND] })).toContain('Cell 1: the feed motor works harder')
    expect(creepingSentence(c, { nowMs: NOW, zone: 'UTC' })).toContain('up 20 % at the same wire speed since')
  })
  it('tells where the way got heavier: a length of conduit, or the liner', () => {
    const pull = (piece: number, forceN: number, firstN: number) => ({ piece, forceN, firstN, atMs: NOW })
    expect(heavierSentence(cell({ pulls: [pull(0, 8, 7)] }), 'metric')).toBe('')
    expect(heavierSentence(cell({ pulls: [pull(1, 9, 5)] }), 'metric')).toContain('along the arm: look at that length')
    expect(heavierSentence(cell({ pulls: [pull(100, 9, 5)] }), 'metric')).toContain('cable: that is the liner')
  })
  it('draws the way as it was told, and leaves out what nobody said', () => {
    const names = (over: Partial<CellFit>) => lengthsOf(cell({ cell: { ...BUILT, ...over } }), 'us').map((l) => l.name)
    expect(names({})).toEqual(['drum', 'booster', 'drum to post', 'along the arm', 'feeder', 'cable', 'N1'])
    expect(names({ payoff: null, booster: 'none', conduit: null })).toEqual(['spool or drum', 'feeder', 'cable', 'N1'])
    expect(lengthsOf(cell(), 'us')[2]?.says).toContain('13 ft, two quarter turns, polymer')
  })
})

describe('one more neck', () => {
  it('has an answer with its price', () => {
    const says = oneMoreSentence([row(2, 0.33, 3), row(3, 0.04, 0.25)], ROUND, (m) => `€${m / 100}`)
    expect(says).toBe(
      'With two spare necks for three robots a robot waits for a neck 1 week in 3, with one more 1 week in 25. It saves about 2.8 h of standing a week, and has paid for itself in a week. A neck is €219.',
    )
  })
  it('says so where it would not pay, and tells no money to those who are told none', () => {
    const rows = [row(2, 0.001, 0.001), row(3, 0, 0)]
    expect(oneMoreSentence(rows, ROUND, String)).toContain('One more would save next to nothing')
    const hand = { ...ROUND, stopMinorPerHour: null, priceMinor: null }
    expect(oneMoreSentence([row(2, 0.3, 2), row(3, 0.1, 0.5)], hand, String)).toBe(
      'With two spare necks for three robots a robot waits for a neck 1 week in 3, with one more 1 week in 10. It saves about 90 min of standing a week.',
    )
  })
  it('counts weeks as a hand would', () =>
    expect([0.001, 0.03, 0.5, 0.99].map(weeksWord)).toEqual([
      'hardly ever',
      '1 week in 35',
      'every other week',
      'nearly every week',
    ]))
})

describe('a cell at the guard', () => {
  afterEach(unstage)
  const open = (c: CellLine, more: Record<string, unknown> = {}) =>
    stage(<CellsPage />, { '/cells': answer([c]), ...more }, `/cells?cell=${c.stationId}`)
  it('says first how it is made safe, and a crash is one tap', async () => {
    const { sent } = open(cell(), { 'POST /cells/crash': OK })
    expect(await screen.findByText('Key in your pocket.')).toBeTruthy()
    await userEvent.click(screen.getByRole('button', { name: 'It hit something' }))
    await waitFor(() => expect(saidOf(sent)).toMatchObject([['/cells/crash', { stationId: 'stn_00c1' }]]))
  })
  it('lists what a crash left, tool centre first, and does not say that it is checked when it is not', async () => {
    const { sent } = open(cell({ isDown: true, todo: [todo('cableLook'), todo('toolCentre')] }), {
      'POST /followup': OK,
    })
    const steps = await screen.findByRole('list', { name: 'To do before production' })
    expect(
      within(steps)
        .getAllByRole('button')
        .map((b) => b.textContent),
    ).toEqual(['Read it', 'Cable is good'])
    expect(screen.getByRole('button', { name: /It welds again/ }).textContent).toContain('was not checked')
    await userEvent.click(screen.getByRole('button', { name: 'Cable is good' }))
    await waitFor(() => expect(saidOf(sent)).toMatchObject([['/followup', { task: 'cableLook' }]]))
  })
  it('gets the ready neck that is right, and the old one goes to be mended', async () => {
    const { sent } = open(cell(), { 'POST /cells/swap': OK })
    await userEvent.click(await screen.findByRole('button', { name: 'Another neck on' }))
    await userEvent.click(screen.getByRole('button', { name: /^N4 on/ }))
    await waitFor(() =>
      expect(saidOf(sent)).toMatchObject([
        ['/cells/swap', { neckId: 'car_n4', oldNeck: 'toRefurbish', isFromElsewhere: false }],
      ]),
    )
  })
  it('keeps the pull through one length', async () => {
    const { sent } = open(cell(), {
      'POST /reading': { eventId: 'ev_1', is: 'good', because: 'no window', target: null },
    })
    await userEvent.click(await screen.findByRole('button', { name: 'along the arm: not pulled yet' }))
    await userEvent.type(await screen.findByLabelText('pull, N'), '6.5')
    await userEvent.click(screen.getByRole('button', { name: 'Keep it' }))
    await waitFor(() =>
      expect(saidOf(sent)).toMatchObject([['/reading', { what: 'segmentPull', value: 6.5, from: { piece: 1 } }]]),
    )
  })
})
