import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { AT_THE_BOOTH, AT_THE_DESK, isAtTheBooth } from '../offline/answers.ts'
import { LIVE_KEYS, STILL_KEYS } from './keys.ts'

const root = join(import.meta.dirname, '..')
const sources = readdirSync(root, { recursive: true, encoding: 'utf8' })
  .filter((path) => /\.tsx?$/.test(path) && !path.includes('.test.') && !path.startsWith('testing'))
  .map((path) => readFileSync(join(root, path), 'utf8'))
const found = (pattern: RegExp) =>
  new Set(sources.flatMap((text) => [...text.matchAll(pattern)].map((m) => m[1] ?? '')))

describe('every query of a page', () => {
  const keys = found(/queryKey: \['([a-zA-Z]+)'/g)
  it('is asked again when something changes, or says that it is left still', () => {
    expect(keys.size).toBeGreaterThan(20)
    for (const key of keys)
      expect(
        [...LIVE_KEYS, ...STILL_KEYS].filter((k) => k === key),
        `query key "${key}": put it in live/keys.ts`,
      ).toHaveLength(1)
  })
  it('no list keeps a key that nobody asks by', () => {
    for (const key of STILL_KEYS) expect(keys, key).toContain(key)
  })
})

describe('every answer a page asks for', () => {
  const asked = found(/getJson\(\s*[`'"]\/([a-z]+)/g)
  it('is kept for the booth, or says that it is for the desk', () => {
    expect(asked.size).toBeGreaterThan(10)
    for (const path of asked)
      expect(
        [...AT_THE_BOOTH, ...AT_THE_DESK].filter((p) => p === path || p.startsWith(`${path}/`)).length,
        `/${path}: put it in offline/answers.ts`,
      ).toBeGreaterThan(0)
  })
  it('is told apart by its first words', () => {
    expect(['/api/floor?areaId=x', '/api/gun/stn_1', '/api/people/me'].map(isAtTheBooth)).toEqual([true, true, true])
    expect(['/api/payback', '/api/people', '/api/gunner'].map(isAtTheBooth)).toEqual([false, false, false])
  })
})
