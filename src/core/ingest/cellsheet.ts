import {
  BOOSTERS,
  CONDUIT_LININGS,
  CUTTERS,
  PAYOFFS,
  REACHES,
  type CellFit,
  type ConduitPiece,
} from '@core/rightparts/facts.ts'
import { readQuantity, type QuantityRule, type UnitWorld } from '@core/units/quantity.ts'
import { readWord } from './fitwords.ts'

type Read<T> = { ok: true; value: T } | { ok: false; reason: string }

const PIECE =
  /^(.+?)[\s,:]+(\d+(?:[.,]\d+)?)\s*(m|ft|')?(?:[\s,]+(\d+)\s*(?:bends?|quarter turns?|turns?))?(?:[\s,]+([a-z ]+))?$/i
const HOW = 'write like "drum to post 4 m 2 bends polymer; along the arm 1.6 m 1 bend rollers"'

/** Lengths of conduit in one cell of a sheet, in the order of the wire; metres where no unit stands. @example readConduit('wall to post 3.5 m 1 bend polymer') */
export function readConduit(text: string): Read<ConduitPiece[]> {
  const pieces: ConduitPiece[] = []
  for (const part of text.split(/[;\n]/)) {
    if (part.trim() === '') continue
    const found = PIECE.exec(part.trim())
    if (!found) return { ok: false, reason: `"${part.trim()}" is no length of conduit; ${HOW}` }
    const [, name = '', long = '', unit = 'm', bends = '0', lined = ''] = found
    const lengthM = readQuantity(`${long} ${unit}`, { of: 'cable', above: 0, to: 60 })
    if (!lengthM.ok || lengthM.value === null)
      return { ok: false, reason: `"${part.trim()}": ${lengthM.ok ? HOW : lengthM.why}` }
    const lining =
      lined.trim() === '' ? { ok: true as const, value: 'polymer' as const } : readWord(lined, CONDUIT_LININGS)
    if (!lining.ok) return { ok: false, reason: `"${part.trim()}": lined with what? ${lining.reason}` }
    if (Number(bends) > 20) return { ok: false, reason: `"${part.trim()}": ${bends} bends are more than a length has` }
    pieces.push({ name: name.trim().slice(0, 40), lengthM: lengthM.value, bends: Number(bends), lining: lining.value })
  }
  return pieces.length > 20 ? { ok: false, reason: 'more than 20 lengths' } : { ok: true, value: pieces }
}
/** The same as it reads back. */
export const conduitText = (pieces: readonly ConduitPiece[] | null): string =>
  (pieces ?? [])
    .map((p) => `${p.name} ${p.lengthM} m ${p.bends} ${p.bends === 1 ? 'bend' : 'bends'} ${p.lining}`)
    .join('; ')

/** Columns of a sheet of places that tell how a robot's cell is built, with how each is read and written. */
interface CellColumn<K extends keyof CellFit = keyof CellFit> {
  key: K
  words: string[]
  label: string
  read: (text: string, units: UnitWorld) => Read<CellFit[K]>
  write: (cell: CellFit) => string
}
const number =
  (rule: QuantityRule) =>
  (text: string, units: UnitWorld): Read<number | null> => {
    const read = readQuantity(text, { ...rule, units })
    return read.ok ? { ok: true, value: read.value } : { ok: false, reason: read.why }
  }
const of = <K extends keyof CellFit>(column: CellColumn<K>) => column as unknown as CellColumn
const plain = (value: string | number | null) => (value === null ? '' : String(value))
export const CELL_COLUMNS: readonly CellColumn[] = [
  of({
    ...{ key: 'payoff', words: ['payoff', 'pay off', 'wire comes from'], label: 'payoff (spool, drum)' },
    ...{ read: (t) => readWord(t, PAYOFFS), write: (c) => plain(c.payoff) },
  }),
  of({
    ...{ key: 'booster', words: ['booster'], label: 'booster (none, air, electric)' },
    ...{ read: (t) => readWord(t, BOOSTERS), write: (c) => plain(c.booster) },
  }),
  of({
    ...{ key: 'conduit', words: ['conduit', 'conduits'], label: 'conduit' },
    ...{ read: readConduit, write: (c) => conduitText(c.conduit) },
  }),
  of({
    ...{ key: 'cutter', words: ['cutter', 'wire cutter'], label: 'cutter' },
    ...{ read: (t) => readWord(t, CUTTERS), write: (c) => plain(c.cutter) },
  }),
  of({
    ...{ key: 'reach', words: ['reached', 'spool reached'], label: 'spool reached' },
    ...{ read: (t) => readWord(t, REACHES), write: (c) => plain(c.reach) },
  }),
  of({
    ...{ key: 'centreMm', words: ['tool centre mm', 'tool centre', 'tcp mm'], label: 'tool centre off at most (mm)' },
    ...{ read: number({ of: 'plain', above: 0, to: 10 }), write: (c) => plain(c.centreMm) },
  }),
  of({
    ...{ key: 'cycleArcS', words: ['arc a cycle s', 'arc seconds a cycle', 'cycle arc s'], label: 'arc a cycle (s)' },
    ...{ read: number({ of: 'seconds', above: 0, to: 7200 }), write: (c) => plain(c.cycleArcS) },
  }),
  of({
    ...{ key: 'reamEvery', words: ['ream every', 'cycles a ream', 'ream cycles'], label: 'ream every (cycles)' },
    ...{ read: number({ of: 'plain', isWhole: true, from: 1, to: 1000 }), write: (c) => plain(c.reamEvery) },
  }),
]

/** What one row tells of its cell; a cell that can't be read is told to `bad` and left out. */
export function readCell(
  at: (key: string) => string,
  units: UnitWorld,
  bad: (key: string, why: string) => void,
): Partial<CellFit> {
  const told: Partial<Record<keyof CellFit, unknown>> = {}
  for (const { key, read } of CELL_COLUMNS) {
    const text = at(key)
    if (text === '') continue
    const made = read(text, units)
    if (made.ok) told[key] = made.value
    else bad(key, made.reason)
  }
  return told as Partial<CellFit>
}
