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
  const read = rows.slice(0, LOOK_AT).map((row, i) => {
    const own = row.map((c) => c.trim())
    const joined = withBand(rows[i - 1], own)
    // A title over one cell is no band, and a row with figures is no heading: only taken together where that finds more.
    return isHeadingLike(own) && score(joined) > score(own) ? joined : own
  })
  let at = 0
  read.forEach((row, i) => {
    if (score(row) > score(read[at] ?? [])) at = i
  })
  return score(read[at] ?? []) === 0
    ? { headings: (rows[0] ?? []).map((c) => c.trim()), dataFrom: 1 }
    : { headings: read[at] ?? [], dataFrom: at + 1 }
}

/** Dates and the numbers of guns stand in data; in the lower half of a heading there are only words. */
const isHeadingLike = (row: readonly string[]) => row.some(isText) && !row.some((cell) => /\d/.test(cell))

function withBand(upper: readonly string[] | undefined, own: readonly string[]): string[] {
  const above = bandOf(upper)
  return Array.from({ length: Math.max(own.length, above.length) }, (_, i) => join(above[i] ?? '', own[i] ?? ''))
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
