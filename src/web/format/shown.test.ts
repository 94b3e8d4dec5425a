import { describe, expect, it } from 'vitest'
import { TAG_TEXT } from '@core/changeover/tags.ts'
import { FOLLOW_UP_TEXT } from '@core/followup/followup.ts'
import { CAUTIONS } from '@core/guide/cautions.ts'
import { GUIDES } from '@core/guide/guides.ts'
import { QUESTIONS } from '@core/houserule/schools.ts'
import { KIND_DEFAULTS } from '@core/path/kinds.ts'
import { READING } from '@core/reading/specs.ts'
import { RULES } from '@core/rightparts/finding.ts'

/** Every table of words that a screen reads by a key of the program: what it says is said to a person, so no key may stand in it. */
const modules = import.meta.glob<Record<string, unknown>>('../**/*{words,sentence,verdict}.ts', { eager: true })
const tables = Object.entries(modules).flatMap(([file, exported]) =>
  Object.entries(exported)
    .filter(([name, value]) => /^[A-Z_]+$/.test(name) && typeof value === 'object' && value !== null)
    .map(([name, value]) => [`${file} ${name}`, value as object] as const),
)
const CORE: Record<string, object> = { TAG_TEXT, FOLLOW_UP_TEXT, CAUTIONS, RULES }
/** Fields of a row that are said; others (a position, a guide's key) are read by the program. */
const SAID = new Set(['says', 'back', 'do', 'done', 'what', 'why', 'words', 'source', 'name', 'ask', 'reason'])
const said = (table: object): string[] =>
  Object.values(table).flatMap((row: unknown) => {
    if (typeof row === 'string') return [row]
    if (typeof row !== 'object' || row === null) return []
    return Object.entries(row).flatMap(([key, value]) => (SAID.has(key) && typeof value === 'string' ? [value] : []))
  })
const isKey = (text: string) => /\b[a-z]+[A-Z][a-zA-Z]*\b/.test(text)

describe('what is shown to people', () => {
  it('is found', () => expect(tables.length).toBeGreaterThan(12))
  it.each([...tables, ...Object.entries(CORE)])('%s has words for each, and none is a key', (_, table) => {
    for (const text of said(table)) {
      if (text === '') continue
      expect(isKey(text), text).toBe(false)
    }
  })
  it('readings, guides, kinds and questions are told by name', () => {
    const names = [
      ...Object.values(READING).flatMap((r) => [
        r.name,
        r.asksFor,
        ...r.methods.flatMap((m) => [m.name, m.do, ...m.grades.map((g) => g.says)]),
      ]),
      ...Object.values(GUIDES).map((g) => g.name),
      ...KIND_DEFAULTS.map((k) => k.name),
      ...QUESTIONS.flatMap((q) => [q.ask, q.why, ...q.schools.flatMap((s) => [s.name, s.reason])]),
    ]
    for (const text of names) expect(isKey(text), text).toBe(false)
  })
})
