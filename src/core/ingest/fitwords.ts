import { GROOVE_SHAPES, type Groove, type Span } from '@core/rightparts/facts.ts'
import { parseWireSize } from '@core/units/wiresize.ts'

type Read<T> = { ok: true; value: T } | { ok: false; reason: string }

/** One of a list, as people write it: same letters, or the beginning of one word only. */
export function readWord<W extends string>(text: string, words: readonly W[]): Read<W> {
  const wanted = text.trim().toLowerCase()
  const exact = words.find((w) => w.toLowerCase() === wanted)
  if (exact) return { ok: true, value: exact }
  const near = words.filter((w) => w.toLowerCase().startsWith(wanted) || w.toLowerCase().includes(wanted))
  const [only] = near
  return near.length === 1 && only && wanted !== ''
    ? { ok: true, value: only }
    : { ok: false, reason: `write ${words.join(', ')}` }
}

/** A range of wire, "0.8–1.0", ".030 to .035", or one size. */
export function readWireRange(text: string): Read<Span> {
  const ends = text.split(/\s*(?:–|—|\bto\b|\.\.|\s-\s|(?<=\d)-(?=[\d.]))\s*/)
  const sizes = ends.map((end) => parseWireSize(end))
  const bad = sizes.find((s) => !s.ok)
  if (bad && !bad.ok) return { ok: false, reason: bad.reason }
  const mm = sizes.flatMap((s) => (s.ok ? [s.diameterMm] : []))
  if (mm.length === 0 || mm.length > 2) return { ok: false, reason: 'write it like 0.8–1.0' }
  return { ok: true, value: [Math.min(...mm), Math.max(...mm)] }
}

/**
 * The two faces of a roll, "0.9 V, 1.0 V" or "knurled 1.2 / knurled 1.6"; one face said is both. Every face needs its number.
 * @example readFaces('U 1.2/1.6') // both U, 1.2 and 1.6
 */
export function readFaces(text: string): Read<[Groove, Groove]> {
  const faces = text.split(/[/,;+]/).map((f) => f.trim())
  if (faces.length > 2) return { ok: false, reason: 'a roll has two faces; write it like "0.9 V / 1.0 V"' }
  const [first = '', second = first] = faces
  const shape = shapeIn(first) ?? shapeIn(second)
  if (!shape) return { ok: false, reason: `say the groove: ${GROOVE_SHAPES.join(', ')}` }
  const grooves: Groove[] = []
  for (const face of [first, second]) {
    const number = /\d*\.?\d+\s*(?:mm|in)?/.exec(face.replace(',', '.'))?.[0]
    if (!number) return { ok: false, reason: `"${face}" has no number: a face is told by the size on it` }
    const size = parseWireSize(number)
    if (!size.ok) return { ok: false, reason: size.reason }
    grooves.push({ shape: shapeIn(face) ?? shape, sizeMm: size.diameterMm })
  }
  const [a, b] = grooves
  return a && b ? { ok: true, value: [a, b] } : { ok: false, reason: 'write it like "0.9 V / 1.0 V"' }
}

function shapeIn(text: string): Groove['shape'] | null {
  if (/knurl|teeth|serrat/i.test(text)) return 'knurled V'
  if (/\bu\b/i.test(text)) return 'U'
  return /\bv\b/i.test(text) ? 'V' : null
}
