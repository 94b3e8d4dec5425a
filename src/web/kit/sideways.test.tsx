import '../testing/stage.tsx'
import { cleanup, render, screen } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { Sideways } from './Sideways.tsx'

afterEach(() => {
  cleanup()
  vi.restoreAllMocks()
})

describe('a wide table', () => {
  it.each([
    ['wider than its page, is reached by Tab and moved with the arrow keys', 900, '0'],
    ['that fits is no stop on the way of Tab', 300, null],
  ])('%s', (_, widthPx, stop) => {
    vi.spyOn(HTMLElement.prototype, 'scrollWidth', 'get').mockReturnValue(widthPx)
    vi.spyOn(HTMLElement.prototype, 'clientWidth', 'get').mockReturnValue(300)
    render(
      <Sideways as="section" aria-label="How often">
        <p>of every gun</p>
      </Sideways>,
    )
    expect(screen.getByRole('region', { name: 'How often' }).getAttribute('tabindex')).toBe(stop)
  })
})
