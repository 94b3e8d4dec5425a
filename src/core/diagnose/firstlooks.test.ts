import { describe, expect, it } from 'vitest'
import { indexOf } from './belief.ts'
import { firstLooks } from './firstlooks.ts'
import { SHIPPED } from './shipped/knowledge.ts'

const k = indexOf(SHIPPED)

describe('what a card shows first', () => {
  it('is looks, none twice, as many as asked for, of every symptom that has as many', () => {
    for (const s of SHIPPED.symptoms) {
      const looks = firstLooks(k, { symptom: s.key, most: 4 })
      expect(looks.length + (s.told?.length ?? 0), s.key).toBeGreaterThan(0)
      expect(new Set(looks.map((l) => l.key)).size, s.key).toBe(looks.length)
    }
    expect(firstLooks(k, { symptom: 'nest', most: 3 })).toHaveLength(3)
  })
  it('follows the shop’s own stops', () => {
    const shares = new Map([
      ['workClamp', 0.9],
      ['tipWorn', 0.05],
    ])
    expect(firstLooks(k, { symptom: 'stumbles', shares, most: 1 })[0]?.key).toBe('clamp')
  })
})
