import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, describe, expect, it } from 'vitest'
import { NOTHING_OF_CELL } from '@core/rightparts/facts.ts'
import { type CellLine } from '@contract/cell.ts'
import { saidOf, stage, unstage } from '@web/testing/stage.tsx'
import { NOW } from '@web/testing/samples.ts'
import { CellsPage } from './CellsPage.tsx'
import { cellSentence, cellsSentence } from './cellwords.ts'
import { aCell, cellsOf } from '@web/testing/cellsamples.ts'
import { bladesSentence, failsSentence, reamSentence, tankSentence } from './reamerwords.ts'

const DAY = 86_400_000
type Reamer = CellLine['reamer']
const cell = (over: Partial<Reamer>, more: Partial<CellLine> = {}) =>
  aCell({ reamer: { ...aCell().reamer, every: 12, ...over }, ...more })
const reams = (over: Partial<NonNullable<Reamer['reams']>> = {}): Partial<Reamer> => ({
  reams: { ...{ n: 5, leftShare: 0.03, doesLeaveIt: false, shutWhenDue: 0.1, every: 18, isHeld: 'up' }, ...over },
})
const tank = (over: Partial<NonNullable<NonNullable<Reamer['tank']>['now']>> = {}): Partial<Reamer> => ({
  tank: {
    ...{ readL: 1, atMs: NOW - 5 * DAY },
    now: {
      ...{ litres: 0.6, low: 0.5, high: 0.7, n: 2, times: 1, emptyMs: NOW + 9 * DAY, earlyMs: NOW + 7 * DAY },
      ...over,
    },
  },
})
const AT = { nowMs: NOW, zone: 'UTC' }

describe('what is said of a reamer', () => {
  it('how often it need come, and what that saves; or that nobody has looked enough', () => {
    expect(reamSentence(cell(reams()))).toBe(
      'It is reamed every 12 cycles. A ream leaves next to nothing. As its turn comes the nozzle is up to 10 % shut (5 looks). Every 18 cycles would do, and saves agent, blade and time: change it in the program, then here. That is one step; look again then.',
    )
    expect(reamSentence(cell(reams({ every: 7, isHeld: null, shutWhenDue: 0.4 })))).toContain(
      'It wants to come every 7 cycles',
    )
    expect(reamSentence(cell(reams({ every: 13, isHeld: null })))).toContain('That is about right.')
    expect(reamSentence(cell(reams({ every: null, n: 2, leftShare: null })))).toContain('after one more look at')
    expect(reamSentence(cell({ every: null }))).toContain('Nobody said')
  })
  it('that leaves the nozzle shut is not told to come oftener', () => {
    const says = reamSentence(cell(reams({ doesLeaveIt: true, leftShare: 0.4, every: null })))
    expect(says).toContain('leaves 40 % of the nozzle shut')
    expect(says).toContain('More reams do not help that')
  })
  it('what blades did, and that a cutter which only shears bends the end', () => {
    const blade = { arcHours: 459, cycles: 22_064, sinceMs: NOW - 49 * DAY }
    expect(bladesSentence(cell({ blade }), 'metric')).toBe(
      'The reamer’s blade has done 460 h of arc, about 22,000 cycles.',
    )
    const shears = cell({ cutter: { ...blade, cycles: null } }, { cell: { ...NOTHING_OF_CELL, cutter: 'shears only' } })
    expect(bladesSentence(shears, 'us')).toContain('shears without clamping')
  })
})

describe('what is said of the tank and of starts', () => {
  it('litres with their spread and the day, in the shop’s own units', () => {
    expect(tankSentence(cell(tank()), AT, 'metric')).toMatch(
      /^About 0.6 L of anti-spatter left \(0.5 L to 0.7 L\), empty .*, at the earliest /,
    )
    expect(tankSentence(cell(tank()), AT, 'us')).toContain('0.63 qt')
    expect(tankSentence(cell(tank({ litres: 0.02, low: 0, high: 0.1 })), AT, 'metric')).toContain('as good as empty')
    expect(tankSentence(cell(tank({ times: 2 })), AT, 'metric')).toContain('a leak, or the shot is set otherwise')
    expect(tankSentence(cell({ tank: { readL: 1, atMs: NOW, now: null } }), AT, 'metric')).toContain(
      'seconds of arc are known',
    )
    expect(tankSentence(cell({}), AT, 'metric')).toBe('')
  })
  it('an empty tank and failing starts come up by themselves, after what stands', () => {
    const dry = cell(tank({ litres: 0, low: 0, high: 0.05 }))
    const fails = cell({ fails: { share: 0.084, wellShare: 0.008, sinceMs: NOW - 2 * DAY } })
    const said = (c: CellLine) => cellsSentence({ cells: [c], rounds: [], nowMs: NOW })
    expect(said(dry)).toContain('Fill the tank')
    expect(cellSentence(dry, NOW)).toBe('Cell 1: fill the tank of its sprayer.')
    expect(said(fails)).toContain('more starts come to nothing')
    expect(cellSentence({ ...dry, isDown: true }, NOW)).toBe('Cell 1 is down.')
    expect(failsSentence(fails, AT)).toMatch(
      /^8.4 in 100 starts come to nothing since .*, 0.8 before: .*as the last weld left it/,
    )
    const cut = { ...fails, cell: { ...fails.cell, cutter: 'clamps and shears' as const } }
    expect(failsSentence(cut, AT)).toContain('as the cutter leaves it')
  })
})

describe('a look at the reamer', () => {
  afterEach(unstage)
  const open = async (c: CellLine) => {
    const staged = stage(
      <CellsPage />,
      { '/cells': cellsOf([c]), 'POST /reading': { eventId: 'ev_1', is: 'good', because: 'no window', target: null } },
      `/cells?cell=${c.stationId}`,
    )
    await userEvent.click(await screen.findByRole('button', { name: 'reamer, cutter, sprayer' }))
    return staged
  }
  it('is one tap, before it goes in or after', async () => {
    const { sent } = await open(cell(reams()))
    const before = screen.getByRole('group', { name: /before it goes in/ })
    await userEvent.click(within(before).getByRole('button', { name: 'A thin ring' }))
    expect(await screen.findByText('Kept: a thin ring.')).toBeTruthy()
    const after = screen.getByRole('group', { name: /Straight after it/ })
    await userEvent.click(within(after).getByRole('button', { name: 'It hardly took anything' }))
    await waitFor(() =>
      expect(saidOf(sent)).toMatchObject([
        ['/reading', { what: 'beforeReam', grade: 'ring' }],
        ['/reading', { what: 'afterReam', grade: 'half' }],
      ]),
    )
  })
  it('keeps the tank as found and as filled up, and refuses one that was filled to less', async () => {
    const { sent } = await open(cell(tank(), { cell: { ...NOTHING_OF_CELL, tankL: 1 } }))
    await userEvent.type(screen.getByLabelText('in the tank, L'), '0.4')
    await userEvent.type(screen.getByLabelText('filled up to, L'), '0.3')
    await userEvent.click(screen.getByRole('button', { name: 'Keep it' }))
    expect(await screen.findByText(/there is more in it than was found/)).toBeTruthy()
    await userEvent.clear(screen.getByLabelText('filled up to, L'))
    await userEvent.type(screen.getByLabelText('filled up to, L'), '1')
    await userEvent.click(screen.getByRole('button', { name: 'Keep it' }))
    await waitFor(() => expect(saidOf(sent)).toMatchObject([['/reading', { what: 'agentTank', value: 0.4, left: 1 }]]))
  })
})
