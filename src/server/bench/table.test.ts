import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { keepBaseline, machineMs, measured, printTable, readBaseline } from './table.ts'

let folder: string
let table: ReturnType<typeof vi.spyOn>
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'idle-bench-'))
  table = vi.spyOn(console, 'table').mockImplementation(() => {})
  vi.spyOn(console, 'log').mockImplementation(() => {})
})
afterEach(() => {
  vi.restoreAllMocks()
  rmSync(folder, { recursive: true })
})

const rows = (ms: number) => [
  measured('Floor', { target: 150, times: [ms, ms, ms] }),
  measured('rows', { target: 5000, unit: 'rows/s', times: [5500] }),
]

describe('what was measured', () => {
  it('is told by its middle, its slow twentieth and its slowest', () => {
    const hundred = Array.from({ length: 100 }, (_, i) => i + 1)
    expect(measured('x', { target: null, times: hundred })).toMatchObject({ p50: 51, p95: 96, max: 100 })
  })
  it('falls behind by its ratio to the machine, not by the clock', () => {
    const file = join(folder, 'baseline.json')
    keepBaseline(file, '60 × 1', { rows: rows(100), machine: 50 })
    const baseline = readBaseline(file, '60 × 1')
    expect(baseline?.ratios).toEqual({ Floor: 2 })
    expect(printTable(rows(300), { machine: 150, baseline })).toEqual([])
    expect(printTable(rows(230), { machine: 50, baseline })).toEqual(['Floor'])
  })
  it('of another size is compared with nothing', () => {
    const file = join(folder, 'baseline.json')
    keepBaseline(file, '60 × 1', { rows: rows(100), machine: 50 })
    expect(readBaseline(file, '500 × 5')).toBeNull()
    expect(readBaseline(join(folder, 'none.json'), '60 × 1')).toBeNull()
  })
  it('says which target is missed, and fewer rows a second than wanted is missed too', () => {
    printTable([...rows(151), measured('slow', { target: 10, unit: 'rows/s', times: [9] })], {
      machine: 1,
      baseline: null,
    })
    const told = table.mock.calls[0]?.[0] as Record<string, string>[]
    expect(told.map((t) => t[''])).toEqual(['missed', '', 'missed'])
    expect(told[0]?.['of target']).toBe('101 %')
  })
  it('the machine itself takes some time', () => {
    expect(machineMs()).toBeGreaterThan(1)
  })
})
