import { afterEach, describe, expect, it } from 'vitest'
import { anId } from '@core/testing/ids.ts'
import { ME, stage, unstage } from '@web/testing/stage.tsx'
import { LateLine } from './LateLine.tsx'

afterEach(() => {
  unstage()
  localStorage.clear()
})
const NOW = Date.UTC(2026, 10, 23, 9)
const late = {
  ...{ nowMs: NOW, zone: 'UTC' },
  late: [
    {
      ...{ code: 'T-12', name: 'tip 1.2', supplierName: 'By post', dueMs: NOW - 86_400_000, onHand: 4 },
      ...{ outDays: 1, stands: ['Cell 1'] },
    },
  ],
}

describe('an order that is late, on Floor', () => {
  it('is told where a gun will wait; a lead is led to Parts', async () => {
    const { findByText, getByRole } = stage(<LateLine />, { '/parts/late': late })
    await findByText(/T-12 \(tip 1.2\) should have come from By post on 22 Nov; 4 are left, for about 1 day/)
    getByRole('link', { name: 'Parts' })
  })
  it('stands there from the first picture on where this device heard it before', async () => {
    const first = stage(<LateLine />, { '/parts/late': late })
    await first.findByText(/T-12/)
    unstage()
    const { queryByText } = stage(<LateLine />, { '/parts/late': () => new Promise(() => undefined) })
    expect(queryByText(/T-12/)).not.toBeNull()
  })
  it('a hand is told, and led nowhere; what was kept and can’t be read is nothing; nothing late is nothing said', async () => {
    const hand = { ...ME, person: { id: anId('person', 'per_3'), name: 'Bo', role: 'hand' as const } }
    const told = stage(<LateLine />, { '/parts/late': late, '/people/me': hand })
    await told.findByText(/T-12/)
    expect(told.queryByRole('link')).toBeNull()
    unstage()
    localStorage.setItem('idle-spool-late', 'half a l')
    const none = stage(<LateLine />, { '/parts/late': { ...late, late: [] } })
    expect(none.queryByText(/should have come/)).toBeNull()
  })
})
