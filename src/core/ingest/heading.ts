import { guessColumns, type Wanted } from './columns.ts'

const LOOK_AT = 12
const isText = (cell: string) => /[a-z]/i.test(cell) && !/^\d{1,4}[./-]\d{1,2}([./-]\d{1,4})?$/.test(cell.trim())

/**
 * Where a sheet's own heading stands. People put a title, a logo line and a merged band above it: of the first rows the one
 * whose cells name most wanted columns is the heading. Cells it leaves empty take what a merged band above says, and a
 * heading cut over two rows is joined ("Wire" over "kg" reads "Wire kg").
 * @returns the heading, how many rows above and with it are not data, and the first data row's number as a spreadsheet counts
 */
export function findHeading(
  rows: readonly (readonly string[])[],
  wanted: readonly Wanted[],
): { headings: string[]; dataFrom: number } {
  const score = (row: readonly string[]) => Object.keys(guessColumns(row, wanted)).length
  let at = 0
  let best = -1
  rows.slice(0, LOOK_AT).forEach((row, i) => {
    const named = score(row)
    if (named > best) [at, best] = [i, named]
  })
  if (best <= 0) return { headings: [...(rows[0] ?? [])].map((c) => c.trim()), dataFrom: 1 }
  const above = bandOf(rows[at - 1])
  const own = rows[at] ?? []
  const width = Math.max(own.length, above.length)
  const joined = Array.from({ length: width }, (_, i) => join(above[i] ?? '', own[i] ?? ''))
  // A title over one cell is no band: it is only taken in where that finds more columns.
  const headings = score(joined) > score(own) ? joined : [...own].map((c) => c.trim())
  return { headings, dataFrom: at + 1 }
}

/** A merged cell holds its text in its first place only; it goes for the empty places right of it. */
function bandOf(row: readonly string[] | undefined): string[] {
  let last = ''
  return (row ?? []).map((cell) => {
    if (cell.trim()) last = isText(cell) ? cell.trim() : ''
    return last
  })
}
const join = (above: string, own: string) => (own.trim() && above ? `${above} ${own.trim()}` : own.trim() || above)
