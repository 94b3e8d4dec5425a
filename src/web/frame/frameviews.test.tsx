import { anId } from '@core/testing/ids.ts'
import { ME, PLACES, shopAnswer, stage, taken, unstage } from '@web/testing/stage.tsx'
import { act } from 'react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { fireEvent, waitFor, within } from '@testing-library/react'
import { type LogAnswer } from '@contract/logbook.ts'
import { keepLast } from '@web/offline/last.ts'
import { CorrectLine } from '@web/logbook/CorrectLine.tsx'
import { LogbookPage } from '@web/logbook/LogbookPage.tsx'
import { LinkPage } from '@web/people/Link.tsx'
import { SignInPage } from '@web/people/SignIn.tsx'
import { FloorPage } from '@web/floor/FloorPage.tsx'
import { GunPage } from '@web/gun/GunPage.tsx'
import { ShiftTotal } from '@web/gun/ShiftTotal.tsx'
import { ActStrip } from '@web/log/ActStrip.tsx'
import { floorGun, floorOf, gun, line, want } from '@web/testing/samples.ts'
import { Find } from './Find.tsx'
import { Shell } from './Shell.tsx'

afterEach(() => {
  act(() => keepLast(null))
  unstage()
})

const logged = (over: Partial<LogAnswer['logged'][number]> = {}): LogAnswer => ({
  logged: [
    {
      eventId: anId('event', 'ev_0000000001'),
      stationId: anId('station', 'stn_00a1'),
      stationName: 'A1',
      position: 'tip',
      didAmount: 5.8,
      unit: 'arcHours',
      isEstimated: false,
      usualAmount: 5.2,
      usualN: 40,
      ...over,
    },
  ],
  isRepeat: false,
})

describe('finding a gun', () => {
  it('by two characters and Enter, the exact name first', async () => {
    const { user, getByLabelText, findByText, where } = stage(<Find isOpen isDown={false} onClose={vi.fn()} />)
    await findByText('cell, Bay B')
    await user.type(getByLabelText('The number on the gun'), 'b7{enter}')
    await waitFor(() => expect(where()).toBe('/gun/stn_00b7'))
  })
  it('asked from "it’s down" says at once that it is', async () => {
    const { user, getByLabelText, findByText, sent, where } = stage(<Find isOpen isDown onClose={vi.fn()} />)
    await findByText('cell, Bay B')
    await user.type(getByLabelText('The number on the gun'), 'A2{enter}')
    await waitFor(() => expect(where()).toBe('/gun/stn_00a2'))
    expect(sent).toMatchObject([{ path: '/logbook', body: { acts: [{ stationId: 'stn_00a2', act: 'down' }] } }])
  })
  it('that is not there says so and goes nowhere', async () => {
    const { user, getByLabelText, findByText, where } = stage(<Find isOpen isDown={false} onClose={vi.fn()} />)
    await user.type(getByLabelText('The number on the gun'), 'Z9{enter}')
    await findByText('No gun has “Z9” painted on it.')
    await waitFor(() => expect(where()).toBe('/'))
  })
})

describe('the frame', () => {
  it('shows a stranger what to do, and a new shop how to begin', async () => {
    const nobody = { ...ME, person: null }
    const stranger = stage(<Shell />, { '/people/me': nobody })
    await stranger.findByText('This device belongs to no place yet')
    unstage()
    const fresh = stage(<Shell />, { '/people/me': { ...nobody, isNew: true } })
    await fresh.findByText('No shop here yet')
    expect(fresh.getByRole('link', { name: 'Begin' })).toBeTruthy()
  })
  it('takes single keys, and leaves them to whoever types', async () => {
    const { user, findByText, findByLabelText, getByLabelText, queryByLabelText, where } = stage(<Shell />)
    await findByText('Kettle Lane')
    await user.keyboard('l')
    await waitFor(() => expect(where()).toBe('/logbook'))
    await user.keyboard('?')
    await findByText('What the wire says')
    await user.keyboard('{Escape}')
    await user.keyboard('/')
    await findByLabelText('The number on the gun')
    await user.type(getByLabelText('The number on the gun'), 'l?')
    expect(where()).toBe('/logbook')
    await user.keyboard('{Escape}')
    expect(queryByLabelText('The number on the gun')).toBeNull()
  })
  it('a scanner that types is heard on any screen, and its letters are nobody’s shortcuts', async () => {
    const said = { stationId: 'stn_00b7', stationName: 'B7', said: 'twice', acts: [], logged: [] }
    const { findByText, findByRole, sent, where } = stage(<Shell />, { '/logbook/scan': said })
    await findByText('Kettle Lane')
    for (const key of [...'/go/B7/tip-changed', 'Enter']) fireEvent.keyDown(document.body, { key })
    expect((await findByRole('alert')).textContent).toContain('Scanned a moment ago on B7')
    expect(sent).toMatchObject([{ path: '/logbook/scan', body: { code: '/go/B7/tip-changed' } }])
    expect(where()).toBe('/')
  })
  it('a device is named by its place and may sign in', async () => {
    const device = { id: 'dev_1', name: 'hall tablet', areaId: null, stationId: null }
    const { findByRole } = stage(<Shell />, { '/people/me': { ...ME, person: null, device } })
    await findByRole('link', { name: 'hall tablet: sign in' })
  })
})

describe('signing in', () => {
  it('sends name and password, and says in words when they do not go together', async () => {
    const wrong = {
      problem: { code: 'wrong-password', message: 'That name and password do not go together.', details: [] },
    }
    const { user, findByLabelText, getByLabelText, getByRole, findByRole, sent } = stage(<SignInPage />, {
      '/people/sign-in': wrong,
    })
    await user.type(await findByLabelText('Name'), 'Oda')
    await user.type(getByLabelText('Password'), 'nope{enter}')
    expect((await findByRole('alert')).textContent).toContain('do not go together')
    expect(sent[0]).toMatchObject({ path: '/people/sign-in', body: { name: 'Oda', password: 'nope' } })
    expect(getByRole('button', { name: 'Sign in' })).toHaveProperty('disabled', false)
  })
  it('a new shop needs a password of ten letters before anything is sent', async () => {
    const { user, findByLabelText, getByLabelText, getByRole, findByText, sent } = stage(<SignInPage />, {
      '/people/me': { ...ME, person: null, isNew: true },
    })
    await user.type(await findByLabelText('Shop'), 'Kettle Lane')
    await user.type(getByLabelText('Your name'), 'Oda')
    await user.type(getByLabelText(/A password/), 'short')
    await user.click(getByRole('button', { name: 'Open the shop' }))
    await findByText('at least 10 letters')
    expect(sent).toEqual([])
    await user.type(getByLabelText(/A password/), ' and long enough')
    await user.click(getByRole('button', { name: 'Open the shop' }))
    expect(sent[0]).toMatchObject({ path: '/people/first-lead', body: { shopName: 'Kettle Lane', units: 'metric' } })
  })
  it('a link binds with a tap, never by being opened', async () => {
    const { user, findByRole, sent, where } = stage(<LinkPage />, {}, '/link/one-time-token')
    const key = await findByRole('button', { name: 'Bind it here' })
    expect(sent).toEqual([])
    await user.click(key)
    expect(sent).toMatchObject([{ path: '/people/bind', body: { token: 'one-time-token' } }])
    await waitFor(() => expect(where()).toBe('/'))
  })
})

describe('what was logged last', () => {
  const last = () =>
    act(() => keepLast({ acts: [{ stationId: 'stn_00a1', act: 'changed', position: 'tip' }], ...logged() }))
  it('stays with its pay-back line until undone', async () => {
    const { user, findByText, getByRole, queryByText, sent } = stage(<ActStrip />, {
      '/logbook/undo': { eventIds: ['ev_0000000002'] },
    })
    last()
    await findByText('That one did 5.8 h. Usual here 5.2 h.')
    await user.click(getByRole('button', { name: 'Undo' }))
    expect(sent).toMatchObject([{ path: '/logbook/undo', body: { eventIds: ['ev_0000000001'] } }])
    await waitFor(() => expect(queryByText(/That one did/)).toBeNull())
  })
  it('cannot be undone any more: says so and stays', async () => {
    const late = {
      problem: {
        code: 'too-late-to-undo',
        message: 'Something was logged there since.',
        details: ['Correct the line in the Logbook instead.'],
      },
    }
    const { user, findByRole, getByRole, getByText } = stage(<ActStrip />, { '/logbook/undo': late })
    last()
    await user.click(getByRole('button', { name: 'Undo' }))
    expect((await findByRole('alert')).textContent).toContain('Correct the line in the Logbook')
    getByText('Tip changed · A1')
  })
  it('was on another gun: one tap and its number move it', async () => {
    const { user, getByRole, findByLabelText, findByRole, sent, findByText } = stage(<ActStrip />, {
      '/logbook/correct': { eventIds: ['ev_0000000002'] },
    })
    last()
    await user.click(getByRole('button', { name: 'not A1' }))
    await user.type(await findByLabelText('Which gun was it'), 'b7')
    await user.click(await findByRole('button', { name: /B7/ }))
    await findByText('Tip changed · B7')
    expect(sent).toMatchObject([
      { path: '/logbook/correct', body: { eventId: 'ev_0000000001', stationId: 'stn_00b7' } },
    ])
  })
})

describe('the Logbook', () => {
  const book = (over: object = {}) => ({
    day: '2026-11-24',
    zone: 'UTC',
    lines: [
      line({ eventId: anId('event', 'ev_0000000001'), stationId: anId('station', 'stn_00a1'), stationName: 'A1' }),
    ],
    previousDay: '2026-11-23',
    nextDay: null,
    ...over,
  })
  it('keeps day and part in the address, and says so in its sentence', async () => {
    const { user, findByRole, getByRole, getByLabelText, where } = stage(<LogbookPage />, { '/logbook': book() })
    await findByRole('heading', { name: 'One line on Tuesday, 24 November 2026.' })
    expect(getByRole('button', { name: 'later' })).toHaveProperty('disabled', true)
    await user.selectOptions(getByLabelText('Which part'), 'tip')
    await user.click(await findByRole('button', { name: 'earlier' }))
    expect(where()).toBe('/?position=tip&day=2026-11-23')
  })
  it('of a day without lines says so', async () => {
    const { findByText } = stage(<LogbookPage />, { '/logbook': book({ lines: [] }) })
    await findByText('Nothing was logged that day.')
  })
  it('a line is corrected: another gun, another reason, earlier, and a word why', async () => {
    const done = vi.fn()
    const one = line({
      eventId: anId('event', 'ev_0000000001'),
      stationId: anId('station', 'stn_00a1'),
      stationName: 'A1',
    })
    const { user, findByRole, getByLabelText, getByRole, sent } = stage(
      <CorrectLine line={one} units="metric" onDone={done} />,
      { '/logbook/correct': { eventIds: ['ev_0000000002'] } },
    )
    await findByRole('option', { name: 'B7, Bay B' })
    expect(getByRole('button', { name: 'Correct it' })).toHaveProperty('disabled', true)
    await user.selectOptions(getByLabelText('It was on'), 'B7, Bay B')
    await user.selectOptions(getByLabelText('It came out because'), 'knocked')
    await user.selectOptions(getByLabelText('It was earlier by'), 'an hour')
    await user.type(getByLabelText(/A word why/), 'wrong booth')
    await user.click(getByRole('button', { name: 'Correct it' }))
    expect(sent).toMatchObject([
      {
        path: '/logbook/correct',
        body: {
          eventId: 'ev_0000000001',
          stationId: 'stn_00b7',
          outReason: 'knocked',
          happenedMs: one.happenedMs - 3_600_000,
          note: 'wrong booth',
        },
      },
    ])
    expect(done).toHaveBeenCalledOnce()
  })
  it('a line did not happen: one tap; a line taken back offers nothing but to log again', async () => {
    const one = line({ eventId: anId('event', 'ev_0000000001') })
    const { user, getByRole, sent } = stage(<CorrectLine line={one} units="metric" onDone={vi.fn()} />)
    await user.click(getByRole('button', { name: 'It did not happen' }))
    expect(sent).toMatchObject([{ body: { eventId: 'ev_0000000001', withdraw: true } }])
    unstage()
    const gone = stage(<CorrectLine line={line({ standing: 'withdrawn' })} units="metric" onDone={vi.fn()} />)
    gone.getByText(/log it again/)
    expect(gone.queryByRole('button', { name: 'Correct it' })).toBeNull()
  })
})

describe('a gun’s page', () => {
  const answers = { '/gun/stn_00b7': gun({ wants: [want()] }), '/logbook': logged() }
  it('logs with a letter and a tap, and pays back', async () => {
    const { user, findByRole, sent } = stage(<GunPage />, answers, '/gun/stn_00b7')
    await findByRole('heading', { name: 'B7' })
    await user.keyboard('t')
    await user.click(await findByRole('button', { name: 'Burned back' }))
    expect(sent).toMatchObject([
      { path: '/logbook', body: { acts: [{ act: 'changed', position: 'tip', outReason: 'burnedBack', count: 1 }] } },
    ])
  })
  it('Escape goes back before anything is logged', async () => {
    const { user, findByRole, findByText, getByRole, queryByText, sent } = stage(
      <GunPage />,
      { '/gun/stn_00b7': gun() },
      '/gun/stn_00b7',
    )
    await findByRole('heading', { name: 'B7' })
    await user.keyboard('t')
    await findByText(/Why did the old one come out/)
    await user.keyboard('{Escape}')
    await waitFor(() => expect(queryByText(/Why did the old one come out/)).toBeNull())
    expect(getByRole('button', { name: 'Tip changed' })).toBeTruthy()
    expect(sent).toEqual([])
  })
  it('without a link says what is kept and what to do', async () => {
    const { findByRole } = stage(<GunPage />, { '/gun/stn_00b7': 'no link' }, '/gun/stn_00b7')
    expect((await findByRole('alert')).textContent).toContain('Try again when the link is back.')
  })
  it('a shift’s usage is typed in the shop’s unit, and refused in words', async () => {
    const us = shopAnswer({ site: { name: 'x', zone: 'UTC', units: 'us', currency: 'USD', gasMinorPerM3: null } })
    const { user, getByRole, getByLabelText, findByLabelText, findByRole, sent } = stage(<ShiftTotal gun={gun()} />, {
      '/shop': us,
      '/clock/usage': taken,
    })
    await user.click(getByRole('button', { name: 'Enter a shift’s usage' }))
    await user.type(await findByLabelText('lb of wire'), '22')
    await user.type(getByLabelText('arc hours'), '2,5')
    await user.click(getByRole('button', { name: 'Enter' }))
    expect(sent[0]?.body).toMatchObject({ stationId: 'stn_00b7', day: '2026-11-24', shift: null, arcHours: 2.5 })
    expect(sent[0]?.body['kg']).toBeCloseTo(9.979, 3)
    await findByRole('alert')
    expect(getByLabelText('arc hours')).toHaveProperty('value', '2,5')
  })
})

describe('Floor', () => {
  const two = floorOf([
    floorGun('A1', { rank: 0, minutes: 2, wants: [want()] }),
    floorGun('A2'),
    floorGun('A3', { isParked: true }),
  ])
  it('a tap on the break logs right there, in two taps', async () => {
    const { user, findByRole, sent } = stage(<FloorPage />, { '/floor': two, '/logbook': logged() })
    await user.click(await findByRole('button', { name: 'Log on A1' }))
    const row = within(await findByRole('article', { name: 'A1' }))
    await user.click(row.getByRole('button', { name: 'Tip changed' }))
    await user.click(row.getByRole('button', { name: 'Worn' }))
    expect(sent).toMatchObject([
      {
        path: '/logbook',
        body: { acts: [{ stationId: 'stn_00a1', act: 'changed', position: 'tip', outReason: 'worn' }] },
      },
    ])
  })
  it('a column’s name and an area’s name go into the address', async () => {
    const { user, findByRole, where } = stage(<FloorPage />, { '/floor': two })
    await user.click(await findByRole('button', { name: 'liner' }))
    expect(where()).toBe('/?column=liner')
    await user.click(await findByRole('button', { name: 'all columns' }))
    await user.click(await findByRole('button', { name: /Bay A/ }))
    expect(where()).toBe('/?area=a')
    await user.click(await findByRole('button', { name: 'the whole floor' }))
    expect(where()).toBe('/')
  })
  it('in a column guns are ticked and get one act together', async () => {
    const { user, findByRole, findByLabelText, getByRole, sent } = stage(
      <FloorPage />,
      {
        '/floor': two,
        '/logbook': logged(),
      },
      '/?column=tip',
    )
    await user.click(await findByLabelText('A1'))
    await user.click(await findByLabelText('A2'))
    await findByRole('heading', { name: '2 guns, tip' })
    await user.click(getByRole('button', { name: 'Tip changed' }))
    await user.click(getByRole('button', { name: 'Due' }))
    expect((sent[0]?.body['acts'] as { stationId: string }[]).map((a) => a.stationId)).toEqual(['stn_00a1', 'stn_00a2'])
  })
  it('arrows go from gun to gun, and a letter opens that gun with its act begun', async () => {
    const { user, findByRole, where } = stage(<FloorPage />, { '/floor': two })
    await findByRole('article', { name: 'A1' })
    await user.keyboard('{ArrowDown}{ArrowDown}{ArrowDown}')
    expect(document.activeElement?.textContent).toContain('A2')
    await user.keyboard('t')
    await waitFor(() => expect(where()).toBe('/gun/stn_00a2'))
  })
  it('a drag down the strands ticks the guns it passes, not the parked one', async () => {
    const { findByRole, container } = stage(<FloorPage />, { '/floor': two })
    await findByRole('article', { name: 'A1' })
    const svg = container.querySelector('.strands svg') as SVGSVGElement
    svg.getBoundingClientRect = () => ({ top: 0, left: 0, width: 1100, height: 30 }) as DOMRect
    const at = (x: number, y: number) => ({ clientX: x, clientY: y, buttons: 1 })
    fireEvent.pointerDown(svg, at(850, 5))
    fireEvent.pointerMove(svg, at(850, 28))
    fireEvent.pointerUp(svg, at(850, 28))
    await findByRole('heading', { name: '2 guns, tip' })
  })
  it('of a newer server, which this page cannot read, says to load it again', async () => {
    const { findByRole } = stage(<FloorPage />, { '/floor': { floors: 3 } })
    const said = (await findByRole('alert')).textContent
    expect(said).toContain('This page is older than the server.')
    expect(said).toContain('Load it again')
  })
  it('that cannot be read says why', async () => {
    const { findByRole } = stage(<FloorPage />, { '/floor': 'no link' })
    expect((await findByRole('alert')).textContent).toContain('No link to the server.')
  })
})

it('the made-up server knows the made-up places', () =>
  expect(PLACES.places.map((p) => p.name)).toEqual(['A1', 'A2', 'B7']))
