import { describe, expect, it } from 'vitest'
import { stillPacked, stillWanted } from './packed.ts'

const line = { partId: 'part_1', quantity: 4, guns: ['A1', 'A2', 'A3'] }
describe('a packed kit', () => {
  it('holds what did not go on its guns since', () => {
    const on: Record<string, number> = { A1: 50, A2: 150 }
    const left = stillPacked(line, 100, (gun) => on[gun] ?? null)
    expect(left).toEqual({ partId: 'part_1', quantity: 3, guns: ['A1', 'A3'] })
    expect(stillPacked({ ...line, quantity: 1 }, 100, () => 200)).toMatchObject({ quantity: 0, guns: [] })
  })
  it('serves its guns: the next kit takes nothing along for them, but for others', () => {
    const wanted = { partId: 'part_1', quantity: 3, guns: ['A2', 'A3', 'B1'] }
    expect(stillWanted(wanted, [line])).toEqual({ partId: 'part_1', quantity: 1, guns: ['B1'] })
    expect(stillWanted({ ...wanted, guns: ['A2'], quantity: 1 }, [line])).toBeNull()
    expect(stillWanted({ ...wanted, partId: 'part_2' }, [line])).toMatchObject({ quantity: 3 })
    // Beyond its guns, as a class may take: those stay wanted.
    expect(stillWanted({ ...wanted, guns: ['A2'], quantity: 6 }, [line])).toMatchObject({ quantity: 5, guns: [] })
  })
})
