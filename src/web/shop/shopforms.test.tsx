import { afterEach, describe, expect, it } from 'vitest'
import { anId } from '@core/testing/ids.ts'
import { waitFor, within } from '@testing-library/react'
import { ME, shopAnswer, stage, taken, unstage, type Sent, saidOf as said } from '@web/testing/stage.tsx'
import { UNTOLD_PART } from '@core/rightparts/untold.ts'
import { BringIn } from './BringIn.tsx'
import { FirstPlaces } from './FirstPlaces.tsx'
import { PartsList } from './PartsList.tsx'
import { People } from './People.tsx'
import { Places } from './Places.tsx'
import { Rules } from './Rules.tsx'
import { ShopPage } from './ShopPage.tsx'
import { Shifts } from './Shifts.tsx'
import { SiteForm } from './SiteForm.tsx'

afterEach(unstage)

describe('the first guns', () => {
  it('are one line: their numbers, where they stand, what they are', async () => {
    const { user, getByLabelText, getByRole, sent, findByText } = stage(<FirstPlaces />, {
      '/shop/places': { made: [{ stationId: 'stn_00a9', name: 'A9' }], kept: ['A1'] },
    })
    await user.type(getByLabelText('numbers painted on them'), 'A1–A9')
    await user.type(getByLabelText('where they stand'), 'Bay A')
    await user.selectOptions(getByLabelText('they are'), 'robot cells')
    await user.click(getByRole('button', { name: 'Set up 9' }))
    await findByText('1 set up, 1 were there already.')
    expect(said(sent)).toEqual([
      ['/shop/places', { names: 'A1–A9', areaName: 'Bay A', classKey: 'cell', placeWord: 'cell' }],
    ])
  })
  it('that can’t be read say why before anything is sent', async () => {
    const { user, getByLabelText, getByText, getByRole, sent } = stage(<FirstPlaces />)
    await user.type(getByLabelText('numbers painted on them'), 'A9-A1')
    await user.type(getByLabelText('where they stand'), 'Bay A')
    getByText(/backwards/)
    expect(getByRole('button', { name: 'Set them up' })).toHaveProperty('disabled', true)
    expect(sent).toEqual([])
  })
})

describe('places', () => {
  it('are walked in the order they are tapped', async () => {
    const { user, getByRole, sent } = stage(<Places shop={shopAnswer()} />)
    await user.click(getByRole('button', { name: 'draw the walk' }))
    await user.click(getByRole('button', { name: 'A2' }))
    await user.click(getByRole('button', { name: 'A1' }))
    await user.click(getByRole('button', { name: 'this is the walk' }))
    expect(said(sent)).toEqual([['/shop/area', { areaId: 'area_1', walk: ['stn_00a2', 'stn_00a1'] }]])
  })
  it('are built as their area says, and an empty choice takes it back', async () => {
    const { user, getByRole, getByLabelText, sent } = stage(<Places shop={shopAnswer()} />)
    await user.click(getByRole('button', { name: 'how guns here are built' }))
    await user.selectOptions(getByLabelText('wire'), 'not said')
    await user.selectOptions(getByLabelText('mode'), 'pulse')
    await user.selectOptions(getByLabelText('drive rolls'), '4 rolls')
    await user.selectOptions(getByLabelText('contact tip on it'), 'T-10 tip 1.0')
    await user.type(getByLabelText('cable, m'), '4,5')
    await user.click(getByRole('button', { name: 'Save' }))
    expect(said(sent)[0]).toMatchObject([
      '/shop/area',
      { areaId: 'area_1', built: { wireId: null, mode: 'pulse', rollCount: 4, cableM: 4.5, parts: { tip: 'part_1' } } },
    ])
  })
  it('one place: renamed, what it lacks, more like it, and the gun that hangs there', async () => {
    const { user, getByRole, getByLabelText, sent } = stage(<Places shop={shopAnswer()} />)
    await user.click(getByRole('button', { name: 'A1' }))
    const place = within(getByRole('region', { name: 'Place A1' }))
    await user.clear(place.getByLabelText('painted on it'))
    await user.type(place.getByLabelText('painted on it'), 'A10')
    await user.click(place.getByRole('button', { name: 'Save' }))
    await user.click(place.getByLabelText('liner'))
    await user.type(getByLabelText('more like this one'), 'A3–A5')
    await user.click(place.getByRole('button', { name: 'Set them up' }))
    await user.selectOptions(place.getByLabelText(/gun here/), 'A2: gun A2')
    await user.click(place.getByRole('button', { name: /swap the two/ }))
    expect(said(sent)).toEqual([
      ['/shop/station', { stationId: 'stn_00a1', name: 'A10', classKey: 'booth' }],
      ['/shop/station', { stationId: 'stn_00a1', absent: ['liner'] }],
      ['/shop/places', { names: 'A3–A5', areaName: 'Bay A', likeStationId: 'stn_00a1' }],
      ['/shop/move', { stationId: 'stn_00a1', gunOfStationId: 'stn_00a2' }],
    ])
  })
  it('a name that is taken is refused in the server’s words, and what was typed stays', async () => {
    const { user, getByRole, findByRole } = stage(<Places shop={shopAnswer()} />, { '/shop/station': taken })
    await user.click(getByRole('button', { name: 'A1' }))
    const place = within(getByRole('region', { name: 'Place A1' }))
    await user.clear(place.getByLabelText('painted on it'))
    await user.type(place.getByLabelText('painted on it'), 'A2')
    await user.click(place.getByRole('button', { name: 'Save' }))
    expect((await findByRole('alert')).textContent).toContain('Choose another name.')
    expect(place.getByLabelText('painted on it')).toHaveProperty('value', 'A2')
  })
})

describe('house rules', () => {
  it('take what is typed in the shop’s unit, and refuse what is no number', async () => {
    const shop = shopAnswer({ site: { name: 'x', zone: 'UTC', units: 'us', currency: 'USD', gasMinorPerM3: null } })
    const { user, getByLabelText, getAllByRole, sent } = stage(<Rules shop={shop} />, { '/shop': shop })
    const row = () => within(getByLabelText('liner: change at').closest('tr') as HTMLElement)
    await user.type(getByLabelText('liner: change at'), 'soon')
    await user.click(row().getByRole('button', { name: 'Save' }))
    await row().findByText('"soon" can’t be read: write a number like 1.5 lb.')
    expect(sent).toEqual([])
    await user.clear(getByLabelText('liner: change at'))
    await user.type(getByLabelText('liner: change at'), '100')
    await user.type(getByLabelText('liner: look every'), '30')
    await user.click(row().getByRole('button', { name: 'Save' }))
    const [[path, rule] = []] = said(sent) as [string, Record<string, number>][]
    expect(path).toBe('/shop/rule')
    expect(rule?.['changeLimit']).toBeCloseTo(45.359237, 6)
    expect(rule).toMatchObject({ kindKey: 'liner', classKey: '*', cleanLimit: null, lookDays: 30 })
    expect(getAllByRole('button', { name: 'Save' }).length).toBeGreaterThan(2)
  })
  it('rates are money, kept in cents', async () => {
    const { user, getByLabelText, sent } = stage(<Rules shop={shopAnswer()} />)
    const field = getByLabelText('Booths: standing an hour')
    await user.clear(field)
    await user.type(field, '61,50')
    await user.click(within(field.closest('tr') as HTMLElement).getByRole('button', { name: 'Save' }))
    expect(said(sent)).toEqual([
      ['/shop/class', { classKey: 'booth', labourMinorPerHour: 3800, stopMinorPerHour: 6150, scrapMinorPerPiece: 0 }],
    ])
  })
})

describe('parts, wires, families', () => {
  it('a part is added with its size as people say it, its price, and what is on the shelf', async () => {
    const { user, getByRole, getByLabelText, sent } = stage(<PartsList shop={shopAnswer()} />)
    await user.click(getByRole('button', { name: 'a new part' }))
    await user.type(getByLabelText('code'), 'T-035')
    await user.type(getByLabelText('name', { selector: '#pt-name' }), 'tip .035')
    await user.type(getByLabelText('for wire'), '.035')
    await user.selectOptions(getByLabelText('fit family'), 'Kite')
    await user.type(getByLabelText('price, EUR'), '0,64')
    await user.type(getByLabelText('counted now'), '40')
    await user.click(
      within(getByLabelText('code').closest('form') as HTMLElement).getByRole('button', { name: 'Save' }),
    )
    expect(said(sent)).toEqual([
      [
        '/shop/part',
        {
          code: 'T-035',
          name: 'tip .035',
          kindKey: 'tip',
          familyId: 'fam_1',
          wireSize: '.035',
          fit: UNTOLD_PART,
          priceMinor: 64,
          onHand: 40,
        },
      ],
    ])
  })
  it('the list is found by code, name or kind', async () => {
    const { user, getByLabelText, queryByText } = stage(<PartsList shop={shopAnswer()} />)
    await user.type(getByLabelText('find'), 'nozz')
    expect(queryByText('T-10')).toBeNull()
    await user.clear(getByLabelText('find'))
    await user.type(getByLabelText('find'), 't-1')
    expect(queryByText('T-10')).not.toBeNull()
  })
})

describe('shifts', () => {
  it('are drawn with days and breaks, and days off one a line', async () => {
    const { user, getByRole, getByLabelText, sent, findByText } = stage(<Shifts shop={shopAnswer()} />)
    await user.click(getByRole('button', { name: 'one more shift' }))
    await user.click(getByRole('button', { name: 'Sat' }))
    await user.click(getByRole('button', { name: 'Mon' }))
    await user.click(getByRole('button', { name: 'a break' }))
    await user.type(getByLabelText(/days off/), '2026-12-25 off{enter}2027-01-01')
    await user.click(getByRole('button', { name: 'Save the shifts' }))
    await findByText('Saved.')
    expect(said(sent)).toEqual([
      [
        '/shop/shifts',
        {
          areaId: null,
          shifts: [
            {
              name: 'day',
              weekdays: [2, 3, 4, 5, 6],
              start: '06:00',
              end: '14:00',
              breaks: [{ start: '10:00', minutes: 15 }],
            },
          ],
          holidays: [
            { day: '2026-12-25', name: 'off' },
            { day: '2027-01-01', name: '' },
          ],
        },
      ],
    ])
  })
})

describe('people and devices', () => {
  it('are added, leave and come back; a device gets a link once', async () => {
    const { user, getByRole, getByLabelText, sent, findByText, findByLabelText } = stage(
      <People shop={shopAnswer()} />,
      {
        '/people/device-link': { deviceId: 'dev_1', path: '/link/abc', expiresMs: Date.UTC(2026, 10, 25) },
      },
    )
    await user.type(await findByLabelText('name, or a code'), 'K4')
    await user.click(getByRole('button', { name: 'Add' }))
    await user.click(getByRole('button', { name: 'has left' }))
    await user.type(getByLabelText('what it is called'), 'hall tablet')
    await user.click(getByRole('button', { name: 'Make a link for it' }))
    await findByText(/\/link\/abc/)
    expect(said(sent).map(([path, body]) => [path, (body as { name: string }).name])).toEqual([
      ['/people/person', 'K4'],
      ['/people/person', 'Oda'],
      ['/people/device-link', 'hall tablet'],
    ])
  })
  it('a short password is not sent, nor a lead without one', async () => {
    const { user, getByRole, getByLabelText, findByText, findByLabelText, sent } = stage(<People shop={shopAnswer()} />)
    await user.type(await findByLabelText('name, or a code'), 'K4')
    await user.type(getByLabelText(/password/), 'short')
    await user.click(getByRole('button', { name: 'Add' }))
    await findByText('At least 10 letters; 5 so far.')
    await user.clear(getByLabelText(/password/))
    await user.selectOptions(getByLabelText('role'), 'lead')
    await user.click(getByRole('button', { name: 'Add' }))
    await findByText('A lead signs in: 10 letters or more.')
    expect(sent).toEqual([])
  })
  it('a device without a name is asked for one', async () => {
    const { user, findByRole, findByText, sent } = stage(<People shop={shopAnswer()} />)
    await user.click(await findByRole('button', { name: 'Make a link for it' }))
    await findByText(/Write what it is called/)
    expect(sent).toEqual([])
  })
  it('are only seen by an instructor, and so is no file of the whole shop', async () => {
    const me = { ...ME, person: { ...ME.person, id: anId('person', 'per_2'), name: 'Una', role: 'instructor' } }
    const { findByText, queryByRole } = stage(<People shop={shopAnswer()} />, { '/people/me': me })
    await findByText('A lead adds people and devices, and takes them off.')
    expect(queryByRole('button')).toBeNull()
    unstage()
    const site = stage(<SiteForm shop={shopAnswer()} />, { '/people/me': me })
    await site.findByLabelText('the shop is called')
    expect(site.queryByRole('link', { name: 'everything as one file' })).toBeNull()
  })
})

describe('the shop itself', () => {
  it('has a name, a zone, units and a currency of three letters', async () => {
    const { user, findByText, getByLabelText, getByRole, sent } = stage(<SiteForm shop={shopAnswer()} />)
    await user.clear(getByLabelText('currency, three letters'))
    await user.type(getByLabelText('currency, three letters'), 'no')
    await user.click(getByRole('button', { name: 'Save' }))
    await findByText('Three letters, like EUR or USD.')
    expect(sent).toEqual([])
    await user.type(getByLabelText('currency, three letters'), 'k')
    await user.selectOptions(getByLabelText('units'), 'inch, lb')
    await user.click(getByRole('button', { name: 'Save' }))
    expect(said(sent)).toEqual([
      ['/shop/site', { name: 'Kettle Lane', zone: 'UTC', units: 'us', currency: 'NOK', gasMinorPerM3: null }],
    ])
  })
  it('is looked at by everybody and changed by leads: a hand’s fields are shut', async () => {
    const hand = { person: { id: 'per_2', name: 'Kaja', role: 'hand' }, device: null, isNew: false, isDemo: false }
    const { findByText, container } = stage(<ShopPage />, {
      '/people/me': { ...hand, shopName: 'x', zone: 'UTC', units: 'metric', currency: 'EUR' },
    })
    await findByText(/A lead signs in to change it/)
    expect(container.querySelector('fieldset')?.disabled).toBe(true)
  })
  it('its parts are words that live in the address', async () => {
    const { user, findByRole, where } = stage(<ShopPage />)
    await user.click(await findByRole('button', { name: 'limits' }))
    expect(where()).toBe('/?part=rules')
    await findByRole('heading', { name: /What standing costs/ })
  })
})

describe('a sheet', () => {
  const preview = (over: object = {}) => ({
    kind: 'usage',
    lies: null,
    words: [],
    names: [],
    notTaken: [],
    rowNames: {},
    headings: ['booth', 'when', ''],
    columns: { place: 0 },
    wanted: [
      { key: 'place', label: 'place', isNeeded: true },
      { key: 'date', label: 'date', isNeeded: true },
    ],
    rows: 2,
    sample: [['A1', '2026-11-20', 'x']],
    bad: [{ row: 3, column: 'when', value: 'soon', why: 'that is no date' }],
    leftOut: [],
    groups: [],
    unread: [],
    would: { 'usage rows new': 2 },
    canTake: false,
    ...over,
  })
  it('says what is wrong cell by cell, takes another column when told, and is taken in when right', async () => {
    const answers = (last: Sent | undefined) =>
      last?.body['columns'] ? preview({ bad: [], canTake: true, columns: { place: 0, date: 1 } }) : preview()
    const { user, getByLabelText, getByRole, findByText, sent } = stage(<BringIn shop={shopAnswer()} />, {
      '/ingest/preview': answers,
      '/ingest/take': { did: { 'usage rows new': 2 }, isRepeat: false },
    })
    await user.selectOptions(getByLabelText('the sheet holds'), 'usage per shift or day')
    await user.click(getByLabelText('or paste it here'))
    await user.paste('booth,when,\nA1,2026-11-20,x\nA2,soon,y')
    await user.click(getByRole('button', { name: 'Read it' }))
    await findByText('One cell to mend; nothing is taken before that.')
    await findByText('“soon”')
    expect(getByRole('button', { name: 'Take it in' })).toHaveProperty('disabled', true)
    await user.selectOptions(getByLabelText('date'), 'when')
    await findByText(/All 2 rows can be read/)
    await user.click(getByRole('button', { name: 'Take it in' }))
    await findByText('Taken in: 2 usage rows new.')
    const last = sent.at(-1)
    expect(last).toMatchObject({ path: '/ingest/take', body: { kind: 'usage', columns: { place: 0, date: 1 } } })
  })
  it('a column chosen after something was said of every row leaves that said, and points at none that is not there', async () => {
    const { user, findByLabelText, getByLabelText, getByRole, sent } = stage(<BringIn shop={shopAnswer()} />, {
      // What is said of every row stands behind the sheet's own columns in what the server read.
      '/ingest/preview': (last: Sent | undefined) =>
        preview(last?.body['fill'] ? { columns: { place: 0, date: 3 }, headings: ['booth', 'when', '', 'date'] } : {}),
    })
    await user.click(getByLabelText('or paste it here'))
    await user.paste('booth,when,\nA1,2026-11-20,x')
    await user.click(getByRole('button', { name: 'Read it' }))
    await user.type(await findByLabelText('date, the same in every row'), '2026-11-20')
    await user.tab()
    await waitFor(() => expect(sent.at(-1)?.body).toMatchObject({ fill: { date: '2026-11-20' } }))
    await user.selectOptions(getByLabelText('place'), 'when')
    await waitFor(() =>
      expect(sent.at(-1)?.body).toMatchObject({ fill: { date: '2026-11-20' }, columns: { place: 1 } }),
    )
    expect(sent.at(-1)?.body['columns']).toEqual({ place: 1 })
  })
  it('from a file is read at once; the same one again says so', async () => {
    const { user, getByLabelText, getByRole, findByText } = stage(<BringIn shop={shopAnswer()} />, {
      '/ingest/preview': preview({ bad: [], canTake: true }),
      '/ingest/take': { did: {}, isRepeat: true },
      '/ingest/file': {
        text: 'booth,when\nA1,2026-11-20',
        notes: ['read the sheet "Bay A"'],
        sheets: ['Bay A', 'Bay B'],
        sheet: 'Bay A',
      },
    })
    await user.upload(getByLabelText('a file: CSV or XLSX'), new File(['x'], 'a.xlsx'))
    await findByText('read the sheet "Bay A".')
    await findByText(/All 2 rows/)
    await user.click(getByRole('button', { name: 'Take it in' }))
    await waitFor(() => findByText('This very sheet was taken in before; nothing changed.'))
  })
  const group = (key: string, over: object = {}) => ({
    key,
    kindName: 'contact tip',
    verb: 'unsaid',
    notes: 214,
    parts: 230,
    examples: ['tip', 'tip x2'],
    canClean: true,
    ...over,
  })
  it('of past work asks one question per group of notes, and sends the answers', async () => {
    const { user, getByLabelText, getByRole, findByText, findByRole, sent } = stage(<BringIn shop={shopAnswer()} />, {
      '/ingest/preview': preview({
        canTake: true,
        groups: [
          group('tip unsaid'),
          group('liner changed', { kindName: 'liner', verb: 'changed', notes: 1, parts: 1, canClean: false }),
        ],
        unread: [{ row: 7, text: 'asked Per' }],
      }),
      '/ingest/take': { did: { 'parts put on': 1 }, isRepeat: false },
    })
    await user.selectOptions(getByLabelText('the sheet holds'), 'past work, in your own words')
    await user.click(getByLabelText('or paste it here'))
    await user.paste('gun,date,what\nA1,2026-11-20,tip')
    await user.click(getByRole('button', { name: 'Read it' }))
    const tips = within(
      await findByRole('group', { name: '214 notes say contact tip (230 of them), not what was done' }),
    )
    tips.getByText('Contact tip changed: 230.')
    await user.click(tips.getByRole('button', { name: 'leave out' }))
    tips.getByText('Left out.')
    const liner = within(getByRole('group', { name: 'One note says liner changed' }))
    expect(liner.queryByRole('button', { name: 'cleaned' })).toBeNull()
    await findByText(/One note has/)
    await user.click(getByRole('button', { name: 'Take in the rest, leave 1 out' }))
    await findByText('Taken in: 1 parts put on.')
    expect(sent.at(-1)).toMatchObject({
      path: '/ingest/take',
      body: { kind: 'history', leaveOutBad: true, decisions: { 'tip unsaid': 'out', 'liner changed': 'changed' } },
    })
  })
  it('that takes long says how far it is and can be stopped', async () => {
    let finish: (answer: object) => void = () => {}
    const { user, getByLabelText, getByRole, findByText, findByRole, sent } = stage(<BringIn shop={shopAnswer()} />, {
      '/ingest/preview': preview({ bad: [], canTake: true }),
      '/ingest/take': new Promise((done) => (finish = done)),
      '/ingest/progress': { stage: 'writing the lines', done: 4000, of: 20_000 },
    })
    await user.click(getByLabelText('or paste it here'))
    await user.paste('booth,when\nA1,2026-11-20')
    await user.click(getByRole('button', { name: 'Read it' }))
    await findByText(/All 2 rows/)
    await user.click(getByRole('button', { name: 'Take it in' }))
    await findByText('writing the lines: 4000 of 20000')
    await user.click(getByRole('button', { name: 'take nothing in' }))
    const run = sent.find((s) => s.path === '/ingest/take')?.body['runKey']
    expect(sent.at(-1)).toMatchObject({ path: '/ingest/cancel', body: { runKey: run } })
    finish({
      problem: { code: 'stopped-by-you', message: 'Stopped. Nothing of that sheet was taken in.', details: [] },
    })
    expect((await findByRole('alert')).textContent).toContain('Nothing of that sheet was taken in.')
  })
})
