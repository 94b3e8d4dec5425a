import { describe, expect, it } from 'vitest'
import { COLUMNS, isPosition, KIND_KEYS, kindOfPosition, LANES, laneOfPosition, PATH_PLACES } from './columns.ts'
import { columnOf, KIND_DEFAULTS, kindFromWord } from './kinds.ts'

describe('the kinds of the path', () => {
  it('each have what a shop starts with, in path order', () => {
    expect(KIND_DEFAULTS.map((k) => k.key)).toEqual([...KIND_KEYS])
    const columns = KIND_DEFAULTS.map((k) => COLUMNS.indexOf(k.column))
    expect([...columns].sort((a, b) => a - b)).toEqual(columns)
  })
  it('go by no other’s name', () => {
    for (const kind of KIND_DEFAULTS)
      for (const word of [kind.key, kind.name, ...kind.synonyms])
        expect(kindFromWord(word, KIND_DEFAULTS)?.key, word).toBe(kind.key)
  })
})

describe('a position', () => {
  it('is a kind, or a kind and a lane', () => {
    expect(laneOfPosition('tip')).toEqual({ kind: 'tip', lane: 1 })
    expect(laneOfPosition('tip#2')).toEqual({ kind: 'tip', lane: 2 })
    for (const kind of KIND_KEYS) for (const lane of LANES) expect(kindOfPosition(`${kind}${lane}`)).toBe(kind)
  })
  it.each(['sail', 'tip#1', 'tip#10', '#2', 'tip ', 'Tip', ''])('"%s" is none', (text) =>
    expect(isPosition(text)).toBe(false),
  )
})

describe('where a cause lies', () => {
  it('is told by a column of the path', () => {
    expect([columnOf('orings'), columnOf('insulator'), columnOf('spool'), columnOf('off')]).toEqual([
      'pin',
      'nozzle',
      'spool',
      'off',
    ])
    for (const kind of KIND_KEYS) expect(PATH_PLACES).toContain(columnOf(kind))
  })
})
