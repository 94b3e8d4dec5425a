import { type PartId, type WireId } from '@core/ids/id.ts'
import { type KindKey } from '@core/path/columns.ts'
import { lbToKg } from '@core/units/convert.ts'
import { parseNumber } from '@core/units/number.ts'
import { readNote } from './notes.ts'

/** What a line of a purchase list bought: a known part, a kind of part by its words, or wire. */
export type Item =
  | { kind: 'part'; partId: PartId; kindKey: KindKey }
  | { kind: 'partKind'; kindKey: KindKey }
  | { kind: 'wire'; wireId: WireId | null; spoolKg: number | null }
export interface Known {
  kinds: readonly { key: KindKey; name: string; synonyms: readonly string[] }[]
  parts: readonly { id: PartId; code: string; name: string; kindKey: KindKey }[]
  wires: readonly { id: WireId; name: string; spoolKg: number }[]
}

const plain = (text: string) => text.toLowerCase().replace(/\s+/g, ' ').trim()
const WIRE = /\b(wires?|welding wire|mig wire)\b/

/**
 * What an item's words mean: a part by code or name, a wire by name, one kind of part named in it ("contact tips 1.0, box"),
 * or wire. Two kinds in one line ("tip + nozzle set") are nobody's to guess: null.
 * @example readItem('Contact tip 1.0 mm', known) // { kind: 'partKind', kindKey: 'tip' }
 */
export function readItem(text: string, known: Known): Item | null {
  const wanted = plain(text)
  const part = known.parts.find((p) => plain(p.code) === wanted || plain(p.name) === wanted)
  if (part) return { kind: 'part', partId: part.id, kindKey: part.kindKey }
  const wire = known.wires.find((w) => plain(w.name) === wanted)
  if (wire) return { kind: 'wire', wireId: wire.id, spoolKg: wire.spoolKg }
  const kinds = [...new Set(readNote(text, known.kinds).acts.map((a) => a.kindKey))]
  const [only] = kinds
  if (kinds.length === 1 && only) return { kind: 'partKind', kindKey: only }
  if (kinds.length > 1) return null
  const inside = known.wires.find((w) => wanted.includes(plain(w.name)))
  if (inside) return { kind: 'wire', wireId: inside.id, spoolKg: inside.spoolKg }
  return WIRE.test(wanted) ? { kind: 'wire', wireId: null, spoolKg: null } : null
}

const TONNES = /\b(t|to|tons?|tonnes?)\b/
export type Amount = { ok: true; quantity: number } | { ok: false; reason: string }

/**
 * How much: pieces of a part, kg of wire. The unit stands in a column of its own ("box of 50", "t", "spool") or behind the
 * number ("3 boxes of 50"); nothing said means pieces, and kg for wire.
 * @example readAmount('3', 'box of 50', { kind: 'partKind', kindKey: 'tip' }) // { ok: true, quantity: 150 }
 */
export function readAmount(text: string, unit: string, item: Item): Amount {
  const said = plain(`${text} ${unit}`)
  const number = /^-?[\d.,'’ ]*\d/.exec(text.trim())?.[0]
  const value = number === undefined ? null : amountIn(number, said)
  if (value === null) return { ok: false, reason: 'that is not a number' }
  if (value < 0) return { ok: false, reason: 'less than nothing can’t be bought; leave returns out' }
  return item.kind === 'wire' ? kgOf(value, said, item.spoolKg) : piecesOf(value, said)
}

/** "1.500" bought is fifteen hundred, but of tonnes one and a half: nobody buys by the thousandth of a kilo. */
function amountIn(number: string, said: string): number | null {
  const isGrouped = /^\d{1,3}([.,]\d{3})+$/.test(number) && !TONNES.test(said)
  return parseNumber(isGrouped ? number.replace(/[.,]/g, '') : number)
}

function kgOf(value: number, said: string, spoolKg: number | null): Amount {
  if (TONNES.test(said)) return { ok: true, quantity: value * 1000 }
  if (/\b(lbs?|pounds?)\b/.test(said)) return { ok: true, quantity: lbToKg(value) }
  const each =
    /(\d+(?:[.,]\d+)?)\s*kg\s*(?:spools?|drums?|reels?)|(?:spools?|drums?|reels?) (?:of|à|a) (\d+(?:[.,]\d+)?)/.exec(
      said,
    )
  const eachKg = each ? parseNumber(each[1] ?? each[2] ?? '') : null
  if (/\b(spools?|drums?|reels?|rolls?)\b/.test(said)) {
    const kg = eachKg ?? spoolKg
    return kg === null
      ? { ok: false, reason: 'how many kg one holds is not known; write "spool of 15"' }
      : { ok: true, quantity: value * kg }
  }
  return { ok: true, quantity: value }
}

function piecesOf(value: number, said: string): Amount {
  if (/\bkg\b/.test(said)) return { ok: false, reason: 'these are kg; parts are bought by the piece or box' }
  const pack = /\b(?:box(?:es)?|packs?|packets?|bags?|pk)\b(?:\s*(?:of|à|a|x|with)?\s*(\d+))?/.exec(said)
  if (!pack) return { ok: true, quantity: value }
  return pack[1]
    ? { ok: true, quantity: value * Number(pack[1]) }
    : { ok: false, reason: 'how many are in one? write "box of 50"' }
}
