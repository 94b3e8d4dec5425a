import { describe, expect, it } from 'vitest'
import { KIND_DEFAULTS } from '@core/path/kinds.ts'
import { codedActs, codePath, CODE_PAGES, PAGE_SLUG, readCode } from './actcode.ts'

const read = (text: string) => readCode(text, KIND_DEFAULTS)

describe('act codes', () => {
  it('every act comes back from its own code, for any painted name', () => {
    for (const place of ['B7', 'Cell 2', 'A/4', '14%', 'Bøth 3'])
      for (const act of codedActs(KIND_DEFAULTS))
        expect(read(`https://shop.local:8460${codePath(place, act.slug)}`)).toEqual({ kind: 'act', place, act })
  })
  it('no two acts share a code', () => {
    const slugs = codedActs(KIND_DEFAULTS).map((a) => a.slug)
    expect(new Set(slugs).size).toBe(slugs.length)
  })
  it('the host before it does not matter, nor what a phone hangs on', () => {
    expect(read('http://127.0.0.1:8460/go/B7/tip-changed')).toMatchObject({ kind: 'act', place: 'B7' })
    expect(read('/go/B7/tip-changed?from=camera#x')).toMatchObject({ kind: 'act', place: 'B7' })
    expect(read('/go/B7/TIP-CHANGED/')).toMatchObject({ kind: 'act', act: { position: 'tip' } })
  })
  it('a gun alone is opened; "x2" says the last act was two', () => {
    expect(read('/go/B7')).toEqual({ kind: 'gun', place: 'B7' })
    expect(read('/go/B7/x2')).toEqual({ kind: 'again', place: 'B7', count: 2 })
  })
  it('pages of a booth have codes of their own, and none is an act’s', () => {
    for (const page of CODE_PAGES)
      expect(read(codePath('T4', PAGE_SLUG[page]))).toEqual({ kind: 'page', place: 'T4', page })
    const slugs = new Set(codedActs(KIND_DEFAULTS).map((a) => a.slug))
    expect(CODE_PAGES.filter((p) => slugs.has(PAGE_SLUG[p]))).toEqual([])
  })
  it.each([
    'B7 tip',
    'https://elsewhere.example/x',
    '/go/',
    '/go/B7/tea-made',
    '/go/B7/x1',
    '/go/a/b/c',
    '/go/%E0%A4%A/',
  ])('"%s" is not taken for an act', (text) => expect(read(text)?.kind ?? 'gun').toBe('gun'))
  it('gas lines are not cleaned', () => expect(read('/go/B7/gas-cleaned')).toBeNull())
})
