import { afterEach, expect, it, vi } from 'vitest'
import { anId } from '@core/testing/ids.ts'
import { type LoggedAct } from '@contract/logbook.ts'
import { stage, taken, unstage, saidOf as said } from '@web/testing/stage.tsx'
import { MoveAct } from './MoveAct.tsx'

afterEach(unstage)
const logged: LoggedAct = {
  ...{ eventId: anId('event', 'ev_0001'), stationId: anId('station', 'stn_00a1'), stationName: 'A1', position: 'tip' },
  ...{ didAmount: null, unit: null, isEstimated: false, usualAmount: null, usualN: null },
}

it('offers every gun but the one it was not, and sends a correction of that line', async () => {
  const onDone = vi.fn()
  const { user, findByRole, queryByRole, getByLabelText, sent } = stage(<MoveAct logged={logged} onDone={onDone} />, {
    '/logbook/correct': { eventIds: ['ev_0002'] },
  })
  await findByRole('button', { name: /^A2/ })
  expect(queryByRole('button', { name: /^A1/ })).toBeNull()
  await user.type(getByLabelText('Which gun was it'), 'b7')
  expect(queryByRole('button', { name: /^A2/ })).toBeNull()
  await user.click(await findByRole('button', { name: /^B7/ }))
  expect(said(sent)).toEqual([['/logbook/correct', { eventId: 'ev_0001', stationId: 'stn_00b7' }]])
  expect(onDone).toHaveBeenCalledOnce()
})
it('that is refused says why and stays open', async () => {
  const onDone = vi.fn()
  const view = stage(<MoveAct logged={logged} onDone={onDone} />, { '/logbook/correct': taken })
  await view.user.click(await view.findByRole('button', { name: /^A2/ }))
  await view.findByText('There is one with that name already.')
  expect(onDone).not.toHaveBeenCalled()
})
