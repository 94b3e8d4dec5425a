import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { SECTIONS } from './sections.ts'

const main = readFileSync(join(import.meta.dirname, '../main.tsx'), 'utf8')

describe('sections', () => {
  it.each(SECTIONS.filter((s) => s.to !== '/').map((s) => [s.name, s.to.slice(1)]))('%s has its page', (_, path) =>
    expect(main).toMatch(new RegExp(`path: '${path}'`)),
  )
  it('stand each once', () => expect(new Set(SECTIONS.map((s) => s.to)).size).toBe(SECTIONS.length))
})
