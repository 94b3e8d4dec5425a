import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { GLOSSARY, helpFor, PAGE_HELP, type Word } from './pagehelp.ts'
import { SECTIONS } from './sections.ts'

const main = readFileSync(join(import.meta.dirname, '../main.tsx'), 'utf8')

describe('sections', () => {
  it.each(SECTIONS.filter((s) => s.to !== '/').map((s) => [s.name, s.to.slice(1)]))('%s has its page', (_, path) =>
    expect(main).toMatch(new RegExp(`path: '${path}'`)),
  )
  it('stand each once', () => expect(new Set(SECTIONS.map((s) => s.to)).size).toBe(SECTIONS.length))
})

describe('what ? says', () => {
  const routes = [...main.matchAll(/path: '([^'*/:]+)/g)].flatMap(([, path]) => path ?? [])
  it('there is for every page, and for no other', () => {
    expect(routes.length).toBeGreaterThan(20)
    expect(
      Object.keys(PAGE_HELP)
        .filter((p) => p !== '')
        .sort(),
    ).toEqual([...new Set(routes)].sort())
  })
  it.each(Object.entries(PAGE_HELP))('on /%s is one or two plain sentences', (_, { title, answers }) => {
    expect(title).toMatch(/^[A-Z]/)
    expect(answers).toMatch(/^[A-Z].*\.$/)
    expect(answers.length).toBeLessThan(140)
  })
  it('finds the page of an address', () => {
    expect(helpFor('/').title).toBe('Floor')
    expect(helpFor('/gun/stn_00a1').title).toBe('A gun')
    expect(helpFor('/nowhere').answers).toContain('Nothing')
  })
  it('explains no word that no page uses', () => {
    const used = new Set(Object.values(PAGE_HELP).flatMap((p) => p.words))
    expect(Object.keys(GLOSSARY).filter((w) => !used.has(w as Word))).toEqual([])
  })
})
