import { describe, expect, it } from 'vitest'
import { matchKinds, partsCalled } from './find.ts'
describe('a part by any word it goes by', () => {
  const kinds = [
    { key: 'nozzle' as const, name: 'nozzle', words: ['cup', 'shroud'], synonyms: ['cup', 'shroud'] },
    { key: 'tip' as const, name: 'contact tip', words: ['tip', 'lance'], synonyms: ['tip', 'lance'] },
  ]
  const parts = [
    { code: 'N-22', name: 'conical', kindKey: 'nozzle' as const },
    { code: 'T-9', name: 'tip 0.9', kindKey: 'tip' as const },
    { code: 'T-10', name: 'tip 1.0', kindKey: 'tip' as const },
  ]
  it.each([
    ['shroud', ['nozzle']],
    ['Cu', ['nozzle']],
    ['lance', ['tip']],
    ['t', []],
    ['', []],
    ['sombrero', []],
  ])('"%s" finds %j', (typed, keys) => expect(matchKinds(kinds, typed).map((k) => k.key)).toEqual(keys))
  it.each([
    ['shroud', ['N-22']],
    ['lance', ['T-9', 'T-10']],
    ['t-10', ['T-10']],
    ['1.0', ['T-10']],
    ['', ['N-22', 'T-9', 'T-10']],
    ['sombrero', []],
  ])('"%s" on the shelf is %j', (typed, codes) =>
    expect(partsCalled(parts, kinds, typed).map((p) => p.code)).toEqual(codes),
  )
})
