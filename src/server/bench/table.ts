import { createHash } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'

/**
 * What was measured, each with its target and beside this machine's own speed. A time means nothing on another machine; a time over what a fixed piece of
 * work takes there does, so a row is behind where that ratio is well over the one that was kept.
 */
export interface Measured {
  what: string
  /** No more than (or, of rows a second, no less than). */
  target: number | null
  unit: 'ms' | 's' | 'MB' | 'kB' | 'rows/s' | '×'
  p50: number
  p95: number
  max: number
  /** The first time, with nothing kept; null: it is the same. */
  cold: number | null
}
const RATE = 'rows/s'
/** Beyond this much over the ratio that was kept a row has fallen behind: on a machine shared with others two runs of the same differ by a half. */
const BEHIND = 2
const TIMES: readonly Measured['unit'][] = ['ms', 's']

const at = (sorted: readonly number[], share: number) =>
  sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? NaN
/** Of times as they came, the first of them apart where it was cold. */
export function measured(
  what: string,
  of: { target: number | null; unit?: Measured['unit']; times: readonly number[]; cold?: number | null },
): Measured {
  const sorted = [...of.times].sort((a, b) => a - b)
  const { target, unit = 'ms', cold = null } = of
  return { what, target, unit, p50: at(sorted, 0.5), p95: at(sorted, 0.95), max: at(sorted, 1), cold }
}

const ROWS = 100_000
/** Milliseconds that this machine takes to hash a fixed text and to read and sort a fixed heap of rows: the middle of five. */
export function machineMs(): number {
  const block = Buffer.alloc(1 << 16, 7)
  const text = JSON.stringify(Array.from({ length: ROWS }, (_, i) => ({ id: `row ${(i * 7919) % ROWS}`, n: i })))
  const once = () => {
    const fromMs = performance.now()
    const hash = createHash('sha256')
    for (let i = 0; i < 1024; i++) hash.update(block)
    hash.digest()
    const rows = JSON.parse(text) as { id: string; n: number }[]
    rows.sort((a, b) => (a.id < b.id ? -1 : 1))
    return performance.now() - fromMs
  }
  return at(
    Array.from({ length: 5 }, once).sort((a, b) => a - b),
    0.5,
  )
}

export interface Baseline {
  /** Of this many places and years. */
  size: string
  ratios: Record<string, number>
}
const inMs = (row: Measured) => row.p95 * (row.unit === 's' ? 1000 : 1)
const ratioOf = (row: Measured, machine: number) => (TIMES.includes(row.unit) ? inMs(row) / machine : null)
const shown = (n: number, unit: Measured['unit']) =>
  Number.isFinite(n) ? `${unit === 's' || n < 10 ? n.toFixed(1) : n.toFixed(0)} ${unit}` : ''
const isMet = (row: Measured) =>
  row.target === null || (row.unit === RATE ? row.p95 >= row.target : row.p95 <= row.target)

/** Prints the table; answers the rows that have fallen behind what was kept. */
export function printTable(rows: readonly Measured[], of: { machine: number; baseline: Baseline | null }): string[] {
  const { machine, baseline } = of
  const behind: string[] = []
  const lines = rows.map((row) => {
    const ratio = ratioOf(row, machine)
    const before = baseline?.ratios[row.what]
    const isBehind = ratio !== null && before !== undefined && ratio > before * BEHIND
    if (isBehind) behind.push(row.what)
    return {
      what: row.what,
      target: row.target === null ? '' : `${row.unit === RATE ? '≥' : '<'} ${row.target} ${row.unit}`,
      p50: shown(row.p50, row.unit),
      p95: shown(row.p95, row.unit),
      max: shown(row.max, row.unit),
      cold: row.cold === null ? '' : shown(row.cold, row.unit),
      'of target': row.target === null ? '' : `${((row.p95 / row.target) * 100).toFixed(0)} %`,
      'of the loop': ratio === null ? '' : ratio.toFixed(2),
      kept: before === undefined ? '' : before.toFixed(2),
      '': isBehind ? 'BEHIND' : isMet(row) ? '' : 'missed',
    }
  })
  console.table(lines)
  console.log(
    `This machine: ${machine.toFixed(0)} ms for a fixed loop (64 MB hashed, 100,000 rows read and sorted), at its slower end. "of the loop" is p95 over it.`,
  )
  return behind
}

export const readBaseline = (file: string, size: string): Baseline | null => {
  if (!existsSync(file)) return null
  const kept = JSON.parse(readFileSync(file, 'utf8')) as Baseline
  return kept.size === size ? kept : null
}
export function keepBaseline(file: string, size: string, of: { rows: readonly Measured[]; machine: number }): void {
  const ratios = Object.fromEntries(
    of.rows.flatMap((row) => {
      const ratio = ratioOf(row, of.machine)
      return ratio === null ? [] : [[row.what, Math.round(ratio * 1000) / 1000]]
    }),
  )
  writeFileSync(file, `${JSON.stringify({ size, ratios } satisfies Baseline, null, 2)}\n`)
}
