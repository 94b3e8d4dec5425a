/**
 * A number as people type it: `1 234.5`, `1.234,5`, `3,2`, `4 kg`. A single comma or point with one or two digits after
 * it (or any other than exactly three) is the decimal mark; the last of both kinds is.
 */
export function parseNumber(text: string): number | null {
  const plain = text
    .trim()
    .replace(/\s|'|’/g, '')
    .replace(/[a-zA-Z²³]+$/, '')
  if (!/^-?[\d.,]+$/.test(plain)) return null
  const comma = plain.lastIndexOf(',')
  const point = plain.lastIndexOf('.')
  let standard = plain
  if (comma >= 0 && point >= 0)
    standard = comma > point ? plain.replace(/\./g, '').replace(',', '.') : plain.replace(/,/g, '')
  else if (comma >= 0) standard = plain.split(',').length > 2 ? plain.replace(/,/g, '') : plain.replace(',', '.')
  const value = Number(standard)
  return Number.isFinite(value) ? value : null
}
