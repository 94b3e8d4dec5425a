import { saidOf as said, shopAnswer, stage, unstage } from '@web/testing/stage.tsx'
import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, describe, expect, it } from 'vitest'
import { finding, lookGun } from '@web/testing/samplefindings.ts'
import { gun, position } from '@web/testing/samples.ts'
import { Fit } from './Fit.tsx'
import { LookPage } from './LookPage.tsx'
import { MoreActs } from './More.tsx'

afterEach(unstage)
const OK = { ok: true }
const NEGATIVE = [
  { name: 'roll1', value: '1' },
  { name: 'roll2', value: '1' },
  { name: 'polarity', value: 'gun negative' },
]

describe('what does not fit', () => {
  it('is put right with one tap: the part that fits is logged, and its rolls the right way round', async () => {
    const set = [{ name: 'roll1' as const, value: '0.9' }]
    const { sent } = stage(<Fit gun={gun({ findings: [finding({ set })] })} units="metric" />, {
      'POST /logbook': { logged: [], isRepeat: false },
      'POST /rightparts/set': OK,
    })
    expect(screen.getByText(/The tip is for 1.2 mm/)).toBeTruthy()
    await userEvent.click(screen.getByRole('button', { name: 'Done: put on T-9' }))
    await waitFor(() => expect(sent.length).toBe(2))
    expect(said(sent)).toMatchObject([
      ['/logbook', { acts: [{ act: 'changed', position: 'tip', partId: 'part_9' }] }],
      ['/rightparts/set', { how: 'set', settings: set }],
    ])
  })
  it('a roll is turned without a part', async () => {
    const turned = finding({
      rule: 'rollTurned',
      at: 'rolls',
      remedy: { do: 'turn', rolls: [2] },
      put: null,
      set: [{ name: 'roll2', value: '0.9' }],
    })
    const { sent } = stage(<Fit gun={gun({ findings: [turned] })} units="metric" />, { 'POST /rightparts/set': OK })
    await userEvent.click(screen.getByRole('button', { name: 'Done: turn roll 2 round' }))
    await waitFor(() => expect(sent.length).toBe(1))
  })
  it('says so where the shop has no part that fits, and offers nothing to press', () => {
    stage(<Fit gun={gun({ findings: [finding({ put: null })] })} units="metric" />, {})
    expect(screen.getByText(/No tip here fits; order one/)).toBeTruthy()
    expect(screen.queryByRole('button', { name: /Done/ })).toBeNull()
  })
  it('the lead may keep it so, with why', async () => {
    const { sent } = stage(<Fit gun={gun({ findings: [finding()] })} units="metric" />, { 'POST /rightparts/keep': OK })
    await userEvent.click(await screen.findByRole('button', { name: 'keep it so' }))
    await userEvent.type(screen.getByLabelText('Why it may stay'), 'a try')
    await userEvent.click(screen.getByRole('button', { name: 'Keep it so' }))
    await waitFor(() => expect(said(sent)).toMatchObject([['/rightparts/keep', { isKept: true, note: 'a try' }]]))
  })
  it('tells the chain as one verdict and what nobody has told', () => {
    const chain = [
      { link: 'spool' as const, is: 'agrees' as const },
      { link: 'rolls' as const, is: 'wrong' as const },
      { link: 'polarity' as const, is: 'not told' as const },
    ]
    stage(<Fit gun={gun({ chain })} units="metric" />, {})
    expect(screen.getByText(/Does not belong together/).textContent).toContain('spool – rolls; not told: polarity.')
  })
  it('a reminder is untied with one tap', async () => {
    const tags = [{ tag: 'brakeTight' as const, sinceMs: 0, untilMs: null, parts: [] }]
    const { sent } = stage(<Fit gun={gun({ tags })} units="metric" />, { 'POST /rightparts/tag': OK })
    await userEvent.click(screen.getByRole('button', { name: 'Brake is back' }))
    await waitFor(() => expect(said(sent)).toMatchObject([['/rightparts/tag', { tag: 'brakeTight', isBack: true }]]))
  })
})

const NEVER = { is: 'never', amiss: [{ is: 'seat', wants: 'long', has: 'short' }], minutes: null }

describe('the whole gun', () => {
  const parts = [position(), position({ position: 'liner', kindKey: 'liner' })]
  it('a damaged thread has two outcomes', async () => {
    const { sent } = stage(<MoreActs gun={gun({ positions: parts })} />, {
      '/houserule': { zone: 'UTC', choices: [] },
      'POST /rightparts/joint': OK,
    })
    await userEvent.click(screen.getByRole('button', { name: 'Joint trouble' }))
    expect(screen.queryByRole('button', { name: 'nozzle' })).toBeNull()
    await userEvent.click(screen.getByRole('button', { name: 'tip' }))
    await userEvent.click(screen.getByRole('button', { name: 'crossed threads' }))
    await userEvent.click(screen.getByRole('button', { name: 'Both scrapped' }))
    await waitFor(() =>
      expect(said(sent)).toMatchObject([
        ['/rightparts/joint', { joint: 'tip', fault: 'crossThreaded', thread: 'scrapped' }],
      ]),
    )
  })
  it('a nozzle that stands crooked is asked why, by the rule of the house; a filed thread is tried by hand', async () => {
    const positions = [...parts, position({ position: 'nozzle', kindKey: 'nozzle' })]
    const rule = (code: 'D19' | 'D23', option: string) => ({
      ...{ code, option, scopeType: 'site', scopeKey: '*', note: null, chosenBy: null, chosenMs: 1 },
    })
    const answers = {
      '/houserule': { zone: 'UTC', choices: [rule('D23', 'knock'), rule('D19', 'file')] },
      'POST /rightparts/joint': OK,
    }
    const view = stage(<MoreActs gun={gun({ positions })} />, answers)
    await userEvent.click(screen.getByRole('button', { name: 'Joint trouble' }))
    await userEvent.click(screen.getByRole('button', { name: 'nozzle' }))
    await userEvent.click(screen.getByRole('button', { name: 'stands crooked' }))
    expect(await screen.findByText(/Tapped straight it is a stop-gap/)).toBeTruthy()
    await userEvent.click(screen.getByRole('button', { name: 'the insulator under it is loose' }))
    await waitFor(() =>
      expect(said(view.sent)).toMatchObject([['/rightparts/joint', { joint: 'nozzle', fault: 'askewInsulator' }]]),
    )
    unstage()
    stage(<MoreActs gun={gun({ positions })} />, answers)
    await userEvent.click(screen.getByRole('button', { name: 'Joint trouble' }))
    await userEvent.click(screen.getByRole('button', { name: 'tip' }))
    await userEvent.click(screen.getByRole('button', { name: 'stripped' }))
    expect(await screen.findByText(/House rule: filed clean/)).toBeTruthy()
  })
  it('a part that does not fit is refused with the reason', async () => {
    stage(<MoreActs gun={gun({ positions: parts })} />, {
      '/shop': shopAnswer(),
      'POST /parts/issue': {
        problem: { code: 'wrong-part', message: 'T-10 does not fit this gun.', details: ['The tip is for 1 mm.'] },
      },
    })
    await userEvent.click(screen.getByRole('button', { name: 'Fetch a part' }))
    await userEvent.selectOptions(await screen.findByLabelText('a part from the shelf'), 'part_1')
    await userEvent.click(screen.getByRole('button', { name: /Hand it out/ }))
    expect((await screen.findByRole('alert')).textContent).toContain('T-10 does not fit this gun.')
  })
  it('another gun is hung with one tap; one that does not seat cannot be', async () => {
    const spare = {
      gunId: 'car_31',
      name: '31',
      status: 'ready',
      familyName: 'Kite',
      cableM: 4,
      sinceMs: 0,
      here: { is: 'right', amiss: [], minutes: 0 },
    }
    const { sent } = stage(<MoreActs gun={gun({ positions: parts })} />, {
      '/gun/spares?stationId=stn_00b7': {
        guns: [spare, { ...spare, gunId: 'car_32', name: '32', here: NEVER }],
        elsewhere: [{ name: 'gun 44', stationId: 'stn_00a1', stationName: 'A1' }],
      },
      'POST /shop/move': OK,
      'POST /gun/swap': OK,
    })
    await userEvent.click(screen.getByRole('button', { name: 'Swap the gun' }))
    expect((await screen.findByRole<HTMLButtonElement>('button', { name: /32 on B7 now/ })).disabled).toBe(true)
    await userEvent.click(screen.getByRole('button', { name: /31 on B7 now/ }))
    await waitFor(() => expect(said(sent)).toMatchObject([['/gun/swap', { gunId: 'car_31', oldGun: 'toRefurbish' }]]))
    await userEvent.click(screen.getByRole('button', { name: 'Swap the gun' }))
    await userEvent.type(screen.getByLabelText(/the number on the gun that hangs here/), '44')
    await userEvent.click(screen.getByRole('button', { name: /gun 44 on B7 now/ }))
    await waitFor(() =>
      expect(said(sent)[1]).toEqual(['/shop/move', { stationId: 'stn_00b7', gunOfStationId: 'stn_00a1' }]),
    )
  })
})

describe('first look', () => {
  const look = { nowMs: 0, zone: 'UTC', areas: [{ id: 'area_1', name: 'Bay A' }], guns: [lookGun('A1'), lookGun('A2')] }
  const answers = { '/rightparts/look': look, '/shop': shopAnswer() }
  it('a gun as the bay is one tap, then the next; what was found stands above it', async () => {
    const { sent } = stage(<LookPage />, { ...answers, 'POST /rightparts/look': { findings: [finding()] } })
    await userEvent.click(await screen.findByRole('button', { name: /Begin at A1/ }))
    await userEvent.click(screen.getByRole('button', { name: 'As the bay' }))
    expect(await screen.findByRole('heading', { name: 'A2' })).toBeTruthy()
    expect(screen.getByText('A1: The tip is for 1.2 mm, the wire is 0.9 mm.')).toBeTruthy()
    expect(said(sent)).toMatchObject([['/rightparts/look', { stationId: 'stn_00a1', parts: [{ partId: 'part_1' }] }]])
  })
  it('only what differs is asked; a skip is as big', async () => {
    const { sent } = stage(<LookPage />, { ...answers, 'POST /rightparts/look': { findings: [] } })
    await userEvent.click(await screen.findByRole('button', { name: /Begin at A1/ }))
    await userEvent.click(screen.getByRole('button', { name: 'Not now' }))
    await userEvent.click(screen.getByRole('button', { name: /T-10 tip 1.0/ }))
    await userEvent.click(within(screen.getByRole('list')).getByRole('button', { name: 'none of ours' }))
    await userEvent.click(screen.getByRole('button', { name: /^Polarity/ }))
    await userEvent.click(screen.getByRole('button', { name: 'gun negative' }))
    await userEvent.click(screen.getByRole('button', { name: 'That is what is on it' }))
    await waitFor(() =>
      expect(said(sent)).toMatchObject([
        ['/rightparts/look', { stationId: 'stn_00a2', parts: [{ partId: null }], settings: NEGATIVE }],
      ]),
    )
  })
})
