import { describe, expect, it } from 'vitest'
import { LINER_KINDS } from '@core/rightparts/facts.ts'
import { readFaces, readWireRange, readWord } from './fitwords.ts'

describe('words of a sheet', () => {
  it('are one of a list, also by a part that only one has', () => {
    expect(readWord('Polymer', LINER_KINDS)).toEqual({ ok: true, value: 'polymer' })
    expect(readWord('graphite', LINER_KINDS)).toEqual({ ok: true, value: 'graphite-filled' })
    expect(readWord('steel', LINER_KINDS).ok).toBe(false)
    expect(readWord('', LINER_KINDS).ok).toBe(false)
  })
  it.each([
    ['0.8–1.0', [0.8, 1]],
    ['.030 to .035', [0.8, 0.9]],
    ['1.2', [1.2, 1.2]],
    ['0.9 - 1.2 mm', [0.9, 1.2]],
    ['0.8-1.0', [0.8, 1]],
  ])('a range of wire: %s', (text, value) => expect(readWireRange(text)).toEqual({ ok: true, value }))
  it('and what is none is refused in words', () =>
    expect(readWireRange('thick')).toMatchObject({ ok: false, reason: expect.stringContaining('no') as string }))
})

describe('faces of a roll', () => {
  it.each([
    ['0.9 V / 1.0 V', ['V', 0.9, 'V', 1]],
    ['U 1.2/1.6', ['U', 1.2, 'U', 1.6]],
    ['knurled 1.2, knurled 1.6', ['knurled V', 1.2, 'knurled V', 1.6]],
    ['V 0.9', ['V', 0.9, 'V', 0.9]],
    ['.035 V / .045 knurled', ['V', 0.9, 'knurled V', 1.2]],
  ])('%s', (text, [shapeA, a, shapeB, b]) =>
    expect(readFaces(text)).toEqual({
      ok: true,
      value: [
        { shape: shapeA, sizeMm: a },
        { shape: shapeB, sizeMm: b },
      ],
    }),
  )
  it('without a number or a groove are refused', () => {
    expect(readFaces('V / 1.0 V')).toMatchObject({ ok: false, reason: expect.stringContaining('no number') as string })
    expect(readFaces('0.9')).toMatchObject({ ok: false, reason: expect.stringContaining('say the groove') as string })
    expect(readFaces('V 1 / V 2 / V 3').ok).toBe(false)
  })
})
