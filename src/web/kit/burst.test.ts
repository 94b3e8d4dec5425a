import { describe, expect, it } from 'vitest'
import { burstStep, GAP_MS, isScanning, QUIET } from './burst.ts'

function type(text: string, gapMs: number) {
  let burst = QUIET
  const scanned: string[] = []
  let scanning = false
  ;[...text].forEach((letter, i) => {
    const step = burstStep(burst, letter === '\n' ? 'Enter' : letter, 1000 + i * gapMs)
    burst = step.burst
    scanning ||= isScanning(burst)
    if (step.scanned !== null) scanned.push(step.scanned)
  })
  return { scanned, scanning }
}

describe('a scanner is told from fingers', () => {
  it('a code typed in a flash and ended with Enter is a scan', () =>
    expect(type('/go/B7/tip-changed\n', 4).scanned).toEqual(['/go/B7/tip-changed']))
  it('the same typed by hand is not, and each key is its own', () =>
    expect(type('/go/B7/tip-changed\n', 120)).toEqual({ scanned: [], scanning: false }))
  it('at the gap it is still one code, just over it no more', () => {
    expect(type('/go/B7\n', GAP_MS).scanned).toHaveLength(1)
    expect(type('/go/B7\n', GAP_MS + 1).scanned).toHaveLength(0)
  })
  it('two codes in a row are two', () => expect(type('/go/B7\n/go/B8\n', 5).scanned).toEqual(['/go/B7', '/go/B8']))
  it('a bare Enter, and one after a letter or two, is nobody’s code', () => {
    expect(type('\n', 5).scanned).toEqual([])
    expect(type('ab\n', 5).scanned).toEqual([])
  })
  it('shift and other named keys in a burst do not break it', () => {
    let burst = QUIET
    for (const [i, key] of ['/', 'g', 'o', '/', 'Shift', 'B', '7'].entries()) burst = burstStep(burst, key, i * 5).burst
    expect(burstStep(burst, 'Enter', 40).scanned).toBe('/go/B7')
  })
})
