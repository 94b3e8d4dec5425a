import { render } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { Unbroken } from './Unbroken.tsx'

describe('a sentence with codes', () => {
  it('says the same, each word with a hyphen as one', () => {
    const said = 'Two run out: GUIDE-S now; TA-T12 about 2 Dec, and three more.'
    const { container } = render(<Unbroken text={said} />)
    expect(container.textContent).toBe(said)
    expect([...container.querySelectorAll('.unbroken')].map((s) => s.textContent)).toEqual(['GUIDE-S', 'TA-T12'])
  })
  it('without any is left alone', () => {
    const { container } = render(<Unbroken text="Nothing runs out." />)
    expect(container.innerHTML).toBe('Nothing runs out.')
  })
})
