import { describe, expect, it } from 'vitest'
import { hourly, stepBetween, type FeederRow } from './telemetry.ts'
import { thinOf } from './thin.ts'

const rows = (n: number, over: Partial<FeederRow> = {}): FeederRow[] =>
  Array.from({ length: n }, (_, i) => ({
    ...{ bootId: 'a', seq: i, atMs: i * 100, wireFedM: i * 0.015, arcOnS: i * 0.1, arcStarts: Math.floor(i / 50) },
    ...over,
  }))
const stay = (all: readonly FeederRow[], kept: Parameters<typeof thinOf>[1] = []) => {
  const going = new Set(thinOf(all, kept))
  return all.filter((r) => !going.has(r))
}
const used = (all: readonly FeederRow[]) => {
  const steps = all.slice(1).map((r, i) => stepBetween(all[i] ?? null, r))
  return hourly(steps).reduce((s, h) => s + h.wireFedM, 0)
}

describe('rows that are past', () => {
  it('go but for one in ten seconds and the last; what was used stays the same', () => {
    const all = rows(3000)
    const left = stay(all)
    expect(left).toHaveLength(31)
    expect(left.at(-1)).toBe(all.at(-1))
    expect(used(left)).toBeCloseTo(used(all), 9)
  })
  it('around a stop all stay', () => {
    const left = stay(rows(3000), [{ fromMs: 60_000, toMs: 130_000 }])
    expect(left.filter((r) => r.atMs >= 60_000 && r.atMs <= 130_000)).toHaveLength(701)
  })
  it('the last of a boot and the first of the next stay', () => {
    const all = [...rows(105), ...rows(50).map((r) => ({ ...r, bootId: 'b', atMs: r.atMs + 10_500 }))]
    expect(stay(all).map((r) => `${r.bootId}${r.seq}`)).toEqual(['a0', 'a100', 'a104', 'b0', 'b49'])
  })
  it('thinned again changes nothing', () => {
    const left = stay(rows(500))
    expect(thinOf(left, [])).toEqual([])
  })
})
