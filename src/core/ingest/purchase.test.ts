import { anId } from '@core/testing/ids.ts'
import { describe, expect, it } from 'vitest'
import { KIND_DEFAULTS } from '@core/path/kinds.ts'
import { readAmount, readItem, type Item, type Known } from './purchase.ts'

const known: Known = {
  kinds: KIND_DEFAULTS,
  parts: [{ id: anId('part', 'part_1'), code: 'QX-T10', name: 'Quill tip 1.0', kindKey: 'tip' }],
  wires: [{ id: anId('wire', 'wire_1'), name: 'solid steel 1.0', spoolKg: 15 }],
}

describe('what an item means', () => {
  it.each([
    ['qx-t10', { kind: 'part', partId: 'part_1', kindKey: 'tip' }],
    ['Quill  Tip 1.0', { kind: 'part', partId: 'part_1', kindKey: 'tip' }],
    ['Contact tips 1.2 mm', { kind: 'partKind', kindKey: 'tip' }],
    ['liner for 1.2 wire', { kind: 'partKind', kindKey: 'liner' }],
    ['Solid Steel 1.0', { kind: 'wire', wireId: 'wire_1', spoolKg: 15 }],
    ['solid steel 1.0, spool', { kind: 'wire', wireId: 'wire_1', spoolKg: 15 }],
    ['MIG wire', { kind: 'wire', wireId: null, spoolKg: null }],
  ])('"%s"', (text, item) => expect(readItem(text, known)).toEqual(item))
  it('two kinds at once, or none, are not guessed', () => {
    expect(readItem('tip + nozzle', known)).toBeNull()
    expect(readItem('coffee', known)).toBeNull()
  })
})

const tip: Item = { kind: 'partKind', kindKey: 'tip' }
const steel: Item = { kind: 'wire', wireId: anId('wire', 'w'), spoolKg: 15 }
const anyWire: Item = { kind: 'wire', wireId: null, spoolKg: null }

describe('how much', () => {
  it.each([
    ['120', '', tip, 120],
    ['1 200', 'pcs', tip, 1200],
    ['3', 'box of 50', tip, 150],
    ['3 boxes of 50', '', tip, 150],
    ['2', 'pack 25', tip, 50],
    ['1,5', 't', anyWire, 1500],
    ['780', 'kg', anyWire, 780],
    ['1.500', 'kg', anyWire, 1500],
    ['1.250', 't', anyWire, 1250],
    ['1,200', '', tip, 1200],
    ['6', 'spools', steel, 90],
    ['6', 'spool of 18', steel, 108],
    ['4', '250 kg drums', anyWire, 1000],
    ['100', 'lb', anyWire, 45.359237],
  ] as const)('%s %s', (text, unit, item, quantity) => {
    const read = readAmount(text, unit, item)
    expect(read).toMatchObject({ ok: true })
    expect(read.ok ? read.quantity : NaN).toBeCloseTo(quantity, 9)
  })
  it.each([
    ['many', '', tip, 'not a number'],
    ['-3', '', tip, 'less than nothing'],
    ['3', 'box', tip, 'how many are in one'],
    ['3', 'kg', tip, 'these are kg'],
    ['3', 'spools', anyWire, 'how many kg'],
  ] as const)('%s %s is asked about', (text, unit, item, why) => {
    const read = readAmount(text, unit, item)
    expect(read.ok ? '' : read.reason).toContain(why)
  })
})
