export type NameRange = { ok: true; names: string[] } | { ok: false; reason: string }
const MOST_AT_ONCE = 200

/**
 * Place names from what a lead types: `A1–A24`, `B1-20`, `A1-A4, A7, Cell 1–3`. Leading noughts are kept (`01–12`).
 * Refuses a range that runs backwards, mixes letters, repeats a name or makes more than 200 at once.
 * @example parseNameRange('A1–A3, C7') // { ok: true, names: ['A1', 'A2', 'A3', 'C7'] }
 */
export function parseNameRange(text: string): NameRange {
  const names: string[] = []
  for (const piece of text
    .split(/[,;\n]/)
    .map((p) => p.trim())
    .filter(Boolean)) {
    const made = expand(piece)
    if (!made.ok) return made
    names.push(...made.names)
    if (names.length > MOST_AT_ONCE)
      return { ok: false, reason: `that is more than ${MOST_AT_ONCE} places at once; do one area at a time` }
  }
  if (names.length === 0) return { ok: false, reason: 'say how many there are: A1–A24' }
  const twice = names.find((name, i) => names.indexOf(name) !== i)
  return twice ? { ok: false, reason: `${twice} is in there twice` } : { ok: true, names }
}

function expand(piece: string): NameRange {
  const match = /^(.*?)(\d+)\s*(?:[-–—]|to|\.\.)\s*(.*?)(\d+)$/i.exec(piece)
  if (!match)
    return piece.length <= 24
      ? { ok: true, names: [piece] }
      : { ok: false, reason: `"${piece}" is too long for a name (24 letters)` }
  const [, prefix = '', first = '', prefix2 = '', last = ''] = match
  if (prefix2 && prefix2.trim() !== prefix.trim())
    return {
      ok: false,
      reason: `"${piece}" starts with ${prefix.trim() || 'a number'} and ends with ${prefix2.trim()}`,
    }
  const from = Number(first)
  const to = Number(last)
  if (to < from) return { ok: false, reason: `"${piece}" runs backwards` }
  if (to - from >= MOST_AT_ONCE)
    return { ok: false, reason: `"${piece}" makes ${to - from + 1} places; do at most ${MOST_AT_ONCE} at once` }
  const width = first.startsWith('0') ? first.length : 0
  return {
    ok: true,
    names: Array.from({ length: to - from + 1 }, (_, i) => `${prefix}${String(from + i).padStart(width, '0')}`),
  }
}
