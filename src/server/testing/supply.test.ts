import { readFileSync } from 'node:fs'
import { expect, it } from 'vitest'

/** What the program is made of may be given on, and runs nothing unlooked-at when it is installed. */
interface Package {
  name: string
  version: string
  licence: string | null
  runs: boolean
  isForWork: boolean
}
const { packagesIn, isAllowed, objections } = (await import(
  new URL('../../../scripts/supply.mjs', import.meta.url).href
)) as {
  packagesIn: (lock: unknown) => Package[]
  isAllowed: (licence: string | null) => boolean
  objections: (packages: readonly Package[]) => string[]
}

it('nothing is in it that somebody would have to look at first', () => {
  const packages = packagesIn(JSON.parse(readFileSync(new URL('../../../package-lock.json', import.meta.url), 'utf8')))
  expect(packages.length).toBeGreaterThan(500)
  expect(objections(packages)).toEqual([])
})
it.each([
  ['MIT', true],
  ['(MIT OR GPL-2.0)', true],
  ['MIT AND GPL-2.0', false],
  ['SSPL-1.0', false],
  [null, false],
])('licence %s: %s', (licence, is) => expect(isAllowed(licence)).toBe(is))
it('a package that runs something new is named', () =>
  expect(objections([{ name: 'x', version: '1', licence: 'MIT', runs: true, isForWork: false }])).toEqual([
    'x 1: runs something when it is installed',
  ]))
