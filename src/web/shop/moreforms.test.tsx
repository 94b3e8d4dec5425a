import { anId } from '@core/testing/ids.ts'
import { shopAnswer, stage, unstage } from '@web/testing/stage.tsx'
import { afterEach, describe, expect, it } from 'vitest'
import { type NoteGroupLine } from '@contract/ingest.ts'
import { SignInPage } from '@web/people/SignIn.tsx'
import { FeederToken } from './FeederToken.tsx'
import { Shifts } from './Shifts.tsx'
import { countAs, counts, firstDecision, groupQuestion } from './sheetwords.ts'

afterEach(unstage)
const group = (over: Partial<NoteGroupLine> = {}): NoteGroupLine => ({
  key: 'tip unsaid',
  kindName: 'contact tip',
  verb: 'unsaid',
  notes: 214,
  parts: 214,
  examples: [],
  canClean: true,
  ...over,
})

describe('a group of notes', () => {
  it('asks in words, with how many parts where they are more than notes', () => {
    expect(groupQuestion(group())).toBe('214 notes say contact tip, not what was done')
    expect(groupQuestion(group({ parts: 260 }))).toBe('214 notes say contact tip (260 of them), not what was done')
    expect(groupQuestion(group({ notes: 1, parts: 1, verb: 'cleaned' }))).toBe('One note says contact tip cleaned')
  })
  it('counts parts for changes and notes for the rest', () => {
    const g = group({ parts: 260 })
    expect((['changed', 'cleaned', 'seen', 'out'] as const).map((as) => countAs(g, as))).toEqual([
      'Contact tip changed: 260.',
      'Contact tip cleaned: 214.',
      'Contact tip looked at: 214.',
      'Left out.',
    ])
  })
  it('is first taken as it says, and as changed where it does not say', () =>
    expect((['unsaid', 'cleaned', 'seen', 'changed'] as const).map((verb) => firstDecision(group({ verb })))).toEqual([
      'changed',
      'cleaned',
      'seen',
      'changed',
    ]))
  it('what was done is told without noughts', () => {
    expect(counts({ 'parts put on': 4, looks: 0, 'rows left out': 1 })).toBe('4 parts put on, 1 rows left out')
    expect(counts({ looks: 0 })).toBe('nothing')
  })
})

describe('a feeder that sends its own counts', () => {
  const place = () => {
    const [first] = shopAnswer().stations
    if (!first) throw new Error('expected a place')
    return first
  }
  it('gets a token that is told once, with where to send', async () => {
    const { user, getByLabelText, getByRole, findByText, sent } = stage(<FeederToken place={place()} />, {
      '/shop/feeder': { equipmentId: 'WF-9', token: 'abc123' },
    })
    expect(getByRole('button', { name: 'Make a token for it' })).toHaveProperty('disabled', true)
    await user.type(getByLabelText(/serial or name/), 'WF-9')
    await user.click(getByRole('button', { name: 'Make a token for it' }))
    await findByText('Authorization: Bearer abc123')
    await findByText(/\/api\/ingest$/)
    expect(sent).toMatchObject([
      { path: '/shop/feeder', body: { stationId: anId('station', 'stn_00a1'), equipmentId: 'WF-9' } },
    ])
  })
  it('that stands nowhere is refused in words', async () => {
    const none = { problem: { code: 'not-found', message: 'No feeder stands at that place.', details: [] } }
    const { user, getByLabelText, getByRole, findByRole } = stage(<FeederToken place={place()} />, {
      '/shop/feeder': none,
    })
    await user.type(getByLabelText(/serial or name/), 'WF-9')
    await user.click(getByRole('button', { name: 'Make a token for it' }))
    expect((await findByRole('alert')).textContent).toContain('No feeder stands at that place.')
  })
})

describe('an empty shop', () => {
  const nobody = {
    person: null,
    device: null,
    isNew: true,
    isDemo: false,
    shopName: '',
    zone: 'UTC',
    units: 'metric',
    currency: 'EUR',
  }
  it('takes a whole one back from its file', async () => {
    const { user, findByLabelText, findByText, sent } = stage(<SignInPage />, {
      '/people/me': nobody,
      '/shop/whole': { rows: 1234 },
    })
    await user.upload(await findByLabelText('the file it was saved as'), new File(['{}'], 'shop.jsonl'))
    await findByText('1234 rows are back. Sign in as you did there.')
    expect(sent.map((s) => s.path)).toEqual(['/shop/whole'])
  })
  it('refuses a cut file in the server’s words and stays as it was', async () => {
    const cut = {
      problem: {
        code: 'sheet-refused',
        message: 'That file is cut: it should hold 5 rows of part and holds 4.',
        details: [],
      },
    }
    const { user, findByLabelText, findByRole, getByLabelText } = stage(<SignInPage />, {
      '/people/me': nobody,
      '/shop/whole': cut,
    })
    await user.upload(await findByLabelText('the file it was saved as'), new File(['{}'], 'shop.jsonl'))
    expect((await findByRole('alert')).textContent).toContain('That file is cut')
    expect(getByLabelText('Shop')).toBeTruthy()
  })
})

describe('shifts of an area', () => {
  const early = {
    areaId: anId('area', 'area_1'),
    name: 'early',
    weekdays: [1, 2, 3, 4, 5],
    start: '06:00',
    end: '14:00',
    breaks: [
      { start: '09:15', minutes: 15 },
      { start: '11:30', minutes: 30 },
    ],
  }
  it('are changed one by one: another start, a break less, a shift dropped', async () => {
    const { user, getByLabelText, getAllByRole, getByRole, sent } = stage(
      <Shifts shop={shopAnswer({ shifts: [early, { ...early, name: 'late' }] })} />,
    )
    await user.selectOptions(getByLabelText('for'), 'Bay A')
    await user.click(getAllByRole('button', { name: 'No such break' })[1] as HTMLElement)
    await user.click(getAllByRole('button', { name: 'no such shift' })[1] as HTMLElement)
    await user.clear(getByLabelText('Name of the shift'))
    await user.type(getByLabelText('Name of the shift'), 'first')
    await user.click(getByRole('button', { name: 'Save the shifts' }))
    expect(sent[0]?.body).toMatchObject({
      areaId: anId('area', 'area_1'),
      shifts: [{ name: 'first', start: '06:00', breaks: [{ start: '09:15', minutes: 15 }] }],
    })
  })
})
