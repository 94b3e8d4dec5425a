import { stage, unstage } from '@web/testing/stage.tsx'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { comingDay, pastDay, writtenDay } from './day.ts'
import { DayField } from './DayField.tsx'

afterEach(unstage)
describe('a day', () => {
  it.each([
    ['2026-11-20', 'metric', '20 Nov 2026'],
    ['2026-11-20', 'us', 'Nov 20, 2026'],
    ['', 'metric', ''],
  ] as const)('%s in a %s shop is written %s', (day, units, text) => expect(writtenDay(day, units)).toBe(text))
  it.each([
    ['20 Nov 2026', 'metric', '2026-11-20'],
    ['20 Nov 2026', 'us', '2026-11-20'],
    ['Nov 20, 2026', 'metric', '2026-11-20'],
    ['20.11.', 'metric', '2026-11-20'],
    ['24.12.', 'metric', '2025-12-24'],
    ['11/20', 'us', '2026-11-20'],
    ['Fri 20 Nov', 'metric', '2026-11-20'],
    ['29 Feb', 'metric', '2024-02-29'],
    ['3rd Nov', 'metric', '2026-11-03'],
  ] as const)('"%s" in a %s shop is %s', (text, units, day) =>
    expect(pastDay(units, '2026-11-23')(text)).toEqual({ ok: true, value: day }),
  )
  it.each([
    ['18 Dec 2026', 'metric', '2026-12-18'],
    ['18 Dec', 'metric', '2026-12-18'],
    ['12 Feb', 'metric', '2027-02-12'],
    ['12/18', 'us', '2026-12-18'],
    ['23.11.2026', 'metric', '2026-11-23'],
    ['', 'metric', ''],
  ] as const)('still to come: "%s" in a %s shop is %s', (text, units, day) =>
    expect(comingDay(units, '2026-11-23')(text)).toEqual({ ok: true, value: day }),
  )
  it.each(['soon', '1 Nov 2026', '31.02.2027'])('still to come: "%s" is refused with a reason', (text) => {
    const read = comingDay('metric', '2026-11-23')(text)
    expect(read.ok).toBe(false)
  })
  it.each(['soon', '', '31.02.2026', '24.12.2026', 'A4'])('"%s" is refused with a reason', (text) => {
    const read = pastDay('metric', '2026-11-23')(text)
    expect(read.ok ? '' : read.why.length).toBeGreaterThan(10)
  })
  it('typed is asked for when it is left; what is no day is said and asks for nothing', async () => {
    const onPick = vi.fn()
    const { user, getByLabelText, findByRole } = stage(
      <DayField label="Day" day="2026-11-20" units="metric" today="2026-11-23" onPick={onPick} />,
    )
    const field = getByLabelText('Day')
    await user.clear(field)
    await user.type(field, 'soon{Enter}')
    expect((await findByRole('alert')).textContent).toBe('That is no day; write 23 Nov 2026.')
    expect(onPick).not.toHaveBeenCalled()
    await user.clear(field)
    await user.type(field, '19.11.{Enter}')
    expect(onPick).toHaveBeenCalledExactlyOnceWith('2026-11-19')
  })
})
