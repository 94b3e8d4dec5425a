/** What stands in a column of an order as a supplier wants it. */
export const SHEET_FIELDS = ['theirCode', 'code', 'name', 'quantity', 'packs', 'each', 'total'] as const
export type SheetField = (typeof SHEET_FIELDS)[number]
export interface SheetColumn {
  head: string
  is: SheetField
}
export interface SheetLine {
  theirCode: string | null
  code: string
  name: string
  quantity: number
  packOf: number
  eachMinor: number | null
}

/** Ours, where a supplier asks for none of their own. */
export const OWN_COLUMNS: readonly SheetColumn[] = [
  { head: 'their number', is: 'theirCode' },
  { head: 'our number', is: 'code' },
  { head: 'part', is: 'name' },
  { head: 'how many', is: 'quantity' },
  { head: 'packs', is: 'packs' },
  { head: 'price each', is: 'each' },
  { head: 'price', is: 'total' },
]

const money = (minor: number | null): string => (minor === null ? '' : (minor / 100).toFixed(2))

/** One cell of a line; their number where there is one, else ours. */
export function cellOf(line: SheetLine, is: SheetField): string {
  switch (is) {
    case 'theirCode':
      return line.theirCode ?? line.code
    case 'code':
      return line.code
    case 'name':
      return line.name
    case 'quantity':
      return String(line.quantity)
    case 'packs':
      return String(Math.ceil(line.quantity / line.packOf))
    case 'each':
      return money(line.eachMinor)
    case 'total':
      return money(line.eachMinor === null ? null : line.eachMinor * line.quantity)
  }
}

/** Heads and lines of an order in somebody's columns. */
export const sheetOf = (lines: readonly SheetLine[], columns: readonly SheetColumn[] = OWN_COLUMNS): string[][] => [
  columns.map((c) => c.head),
  ...lines.map((line) => columns.map((c) => cellOf(line, c.is))),
]
