import { expect, it } from 'vitest'
import { harmless } from './csv.ts'

it.each([
  ['=1+1', "'=1+1"],
  ['＝1+1', "'＝1+1"],
  ['＋A1', "'＋A1"],
  ['－A1', "'－A1"],
  ['＠A1', "'＠A1"],
  ['@x', "'@x"],
  ['\tx', "'\tx"],
  ['tip = 0.9', 'tip = 0.9'],
  ['', ''],
])('a cell %o goes out as %o', (text, out) => expect(harmless(text)).toBe(out))
