import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, describe, expect, it } from 'vitest'
import { guessedSetup, guessesFor } from '@core/drag/setup.ts'
import { usualShape } from '@core/drag/usual.ts'
import { NOTHING_OF_CELL, type DrumPlan } from '@core/rightparts/facts.ts'
import { type CellLine } from '@contract/cell.ts'
import { saidOf, stage, unstage } from '@web/testing/stage.tsx'
import { NOW } from '@web/testing/samples.ts'
import { aCell, cellsOf } from '@web/testing/cellsamples.ts'
import { CellsPage } from './CellsPage.tsx'
import { turnedSentences } from './conversionwords.ts'

const shape = { ...usualShape('steel', 1.2), payoff: 'spool' as const }
const DRAG = {
  ...{ nowMs: NOW, zone: 'UTC', stationId: 'stn_00c1', name: 'Cell 1', wireName: 'steel 1.2', linerCode: null },
  ...{ feederName: null, isCell: true, calibratedMs: null, knob: null },
  drag: { setup: guessedSetup(shape), sources: {}, spans: guessesFor(shape) },
}
const PLAN: DrumPlan = {
  ...{ booster: 'electric', sinceMs: NOW - 86_400_000, done: ['before', 'hung'] },
  conduit: [{ name: 'drum to arm', lengthM: 6, bends: 3, lining: 'polymer' }],
}
const onSpool = (over: Partial<CellLine['cell']> = {}) =>
  aCell({ cell: { ...NOTHING_OF_CELL, payoff: 'spool', conduit: PLAN.conduit, ...over } })
const open = (c: CellLine, key: string) => {
  const staged = stage(
    <CellsPage />,
    { '/cells': cellsOf([c]), '/drag': DRAG, 'POST /shop/station': { ok: true } },
    `/cells?cell=${c.stationId}`,
  )
  return screen.findByRole('button', { name: key }).then(async (button) => {
    await userEvent.click(button)
    return staged
  })
}

describe('from spool to drum', () => {
  afterEach(unstage)
  it('is planned with what it will ask of the rolls', async () => {
    const { sent } = await open(onSpool({ conduit: null }), 'from spool to drum')
    expect(screen.getByText(/Name its lengths/)).toBeTruthy()
    expect(screen.getByRole('button', { name: 'Plan it' })).toHaveProperty('disabled', true)
    await userEvent.type(screen.getByLabelText('next length is called'), 'drum to arm')
    await userEvent.type(screen.getByLabelText('long, m'), '6')
    await userEvent.click(screen.getByRole('button', { name: 'Add it' }))
    expect(
      await screen.findByText(/^Now the rolls work against .* N; on that way against .* N .*: it feeds/),
    ).toBeTruthy()
    await userEvent.click(screen.getByRole('button', { name: 'Plan it' }))
    await waitFor(() =>
      expect(saidOf(sent)).toMatchObject([
        [
          '/shop/station',
          { except: { cell: { payoff: 'spool', plan: { conduit: [{ name: 'drum to arm' }], done: [] } } } },
        ],
      ]),
    )
  })
  it('is done step by step, and runs when somebody says so', async () => {
    const { sent } = await open(onSpool({ plan: PLAN }), 'from spool to drum: planned')
    const steps = within(screen.getByRole('list', { name: 'From spool to drum' })).getAllByRole('button')
    expect(steps.map((b) => b.textContent)).toEqual(['Done', 'Done', 'Not yet'])
    expect(screen.getByRole('button', { name: /It runs from the drum/ }).textContent).toContain('not all of it')
    if (steps[2]) await userEvent.click(steps[2])
    await userEvent.click(screen.getByRole('button', { name: /It runs from the drum/ }))
    await waitFor(() =>
      expect(saidOf(sent)).toMatchObject([
        ['/shop/station', { except: { cell: { plan: { done: ['before', 'hung', 'threaded'] } } } }],
        ['/shop/station', { except: { cell: { payoff: 'drum', booster: 'electric', plan: null, drumSinceMs: NOW } } }],
      ]),
    )
  })
  it('has its numbers before and after, or says what is missing of them', async () => {
    const turned = { sinceMs: NOW - 9 * 86_400_000, ampsBefore: 2, ampsAfter: 2.5, pullBeforeN: 16, pullAfterN: 12 }
    expect(turnedSentences({ turned }, 'metric')).toEqual([
      'The feed motor draws 2.5 A where it drew 2 A: 25 % more.',
      'All lengths together pull 12 N where they pulled 16 N: 25 % less.',
    ])
    expect(turnedSentences({ turned: { ...turned, ampsBefore: null, pullBeforeN: null } }, 'us')).toEqual([
      expect.stringContaining('once the feeder has sent'),
      expect.stringContaining('Nobody pulled through the old way'),
    ])
    await open({ ...onSpool({ payoff: 'drum', drumSinceMs: turned.sinceMs }), turned }, 'since it runs from a drum')
    expect(screen.getByRole('link', { name: /Whether stops became fewer/ }).getAttribute('href')).toMatch(
      /^\/payback\?change=day&day=\d{4}-\d\d-\d\d$/,
    )
  })
  it('is not offered where wire comes from a drum anyway', async () => {
    stage(<CellsPage />, { '/cells': cellsOf([onSpool({ payoff: 'drum' })]) }, '/cells?cell=stn_00c1')
    expect(await screen.findByRole('button', { name: 'how this cell is built' })).toBeTruthy()
    expect(screen.queryByRole('button', { name: /drum$/ })).toBeNull()
  })
})
