import { anId } from '@core/testing/ids.ts'
import { afterEach, describe, expect, it } from 'vitest'
import { shopAnswer, stage, unstage } from '@web/testing/stage.tsx'
import { type SpoolsAnswer } from '@contract/spools.ts'
import { SpoolsPage } from './SpoolsPage.tsx'

afterEach(unstage)
const NOW = Date.UTC(2026, 10, 23, 9)
const left = { leftKg: 6.4, sdKg: 0.3, fullKg: 15, metres: 1000, how: 'weighed' as const, knownMs: NOW, build: 0.5 }
const spools: SpoolsAnswer = {
  nowMs: NOW,
  zone: 'UTC',
  guns: [
    {
      stationId: anId('station', 'stn_00a1'),
      name: 'A1',
      areaId: anId('area', 'area_1'),
      isParked: false,
      spoolId: anId('spool', 'spool_1'),
      number: 1,
      wireId: anId('wire', 'wire_1'),
      wireName: 'solid 1.0',
      ...left,
      emptyMs: NOW + 3_600_000,
      emptyEarlyMs: NOW + 1_800_000,
      emptyLateMs: NOW + 7_200_000,
      isOverrun: false,
      threadUpS: 24,
      cableKg: 0.02,
    },
  ],
  shelf: [
    {
      spoolId: anId('spool', 'spool_2'),
      number: 2,
      wireId: anId('wire', 'wire_1'),
      wireName: 'solid 1.0',
      lot: 'H-77',
      ...left,
      leftKg: 1.2,
      isShort: true,
      isNew: false,
    },
    {
      spoolId: anId('spool', 'spool_3'),
      number: 3,
      wireId: anId('wire', 'wire_9'),
      wireName: 'aluminium 1.2',
      lot: null,
      ...left,
      isShort: false,
      isNew: true,
    },
  ],
  lost: [],
  thrown: { kg: 0, spools: 0 },
  wires: [{ id: anId('wire', 'wire_1'), name: 'solid 1.0', spoolKg: 15, tareKg: 0.9, canMeasure: true }],
}
const answers = {
  '/spools': spools,
  '/shop': shopAnswer(),
  '/photo': { zone: 'UTC', photos: [] },
}
const done = { numbers: [], leftKg: null, sdKg: null }
const show = (posted: object = done, path = '/spools') =>
  stage(<SpoolsPage />, { ...answers, 'POST /spools': posted }, path)

describe('spools', () => {
  it('says who runs out, what is short, and what is on each', async () => {
    const { findByRole, getByText } = show()
    await findByRole('heading', { name: 'One gun runs out of wire before 13:00: A1.' })
    getByText('One short end on the shelf, 1.2 kg.')
    getByText(/short end, 1000 m/)
  })
  it('a gun opened: weighed, another one on with what was left, wire lost', async () => {
    const { user, findByRole, getByRole, getByLabelText, sent, getByText } = show()
    await user.click(await findByRole('button', { name: /^A1/ }))
    getByText(/New wire should come through in 24 s/)
    await user.type(getByLabelText('on the scale, with the spool (kg)'), '7,3')
    await user.click(getByRole('button', { name: 'Read' }))
    await user.type(getByLabelText(/left on the old one/), '1.5')
    await user.selectOptions(getByLabelText('another one on'), 'spool_3')
    await user.click(getByRole('button', { name: 'Put on' }))
    await user.type(getByLabelText(/wire lost/), '40')
    await user.click(getByRole('button', { name: 'a nest' }))
    expect(sent.map((s) => s.body['what'])).toEqual([
      { act: 'read', stationId: 'stn_00a1', grossKg: 7.3 },
      { act: 'load', stationId: 'stn_00a1', spoolId: 'spool_3', oldLeftKg: 1.5 },
      { act: 'lost', stationId: 'stn_00a1', why: 'nest', metres: 40 },
    ])
  })
  it('a spool of another wire is offered, and told so', async () => {
    const { user, findByRole, getByRole } = show()
    await user.click(await findByRole('button', { name: /^A1/ }))
    getByRole('option', { name: /^3 aluminium 1.2.*another wire/ })
  })
  it('a label scanned opens its spool', async () => {
    const { findByRole } = show(done, '/spools?number=2')
    await findByRole('heading', { name: 'Spool 2' })
  })
  it('booked in, the numbers to write on the flanges are told', async () => {
    const { user, findByLabelText, getByLabelText, getByRole, findByText, sent } = show({ ...done, numbers: [8, 9] })
    await user.selectOptions(await findByLabelText('wire'), 'wire_1')
    await user.clear(getByLabelText('how many'))
    await user.type(getByLabelText('how many'), '2')
    await user.click(getByRole('button', { name: 'Book in' }))
    await findByText('Write 8, 9 on their flanges.')
    expect(sent[0]?.body['what']).toEqual({ act: 'in', wireId: 'wire_1', count: 2 })
  })
})
