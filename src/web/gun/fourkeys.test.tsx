import { act, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { gun, want } from '@web/testing/samples.ts'
import { useFourKeys } from './useFourKeys.ts'

beforeEach(() => vi.useFakeTimers())
afterEach(() => vi.useRealTimers())
const idle = { state: { step: 'choosing' as const } }
const linerFirst = gun({ wants: [want({ position: 'liner', act: 'change' })] })
const tipFirst = gun({ wants: [want({ position: 'tip', act: 'change' })] })
const first = (keys: ReturnType<typeof useFourKeys>) => `${keys[0]?.act} ${keys[0]?.position}`

describe('the four keys under a hand', () => {
  const show = () => renderHook(({ of }) => useFourKeys(of, idle), { initialProps: { of: linerFirst } })
  it('stay where they are for a while after what they say is done, then follow what is wanted', () => {
    const { result, rerender } = show()
    rerender({ of: tipFirst })
    act(() => void vi.advanceTimersByTime(15_000))
    expect(first(result.current)).toBe('changed liner')
    act(() => void vi.advanceTimersByTime(10_000))
    expect(first(result.current)).toBe('changed tip')
  })
  it('are those of another gun at once', () => {
    const { result, rerender } = show()
    rerender({ of: { ...tipFirst, stationId: 'stn_00c9' as typeof tipFirst.stationId } })
    expect(first(result.current)).toBe('changed tip')
  })
})
