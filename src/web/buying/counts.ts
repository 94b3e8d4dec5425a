import { useState, type ChangeEvent } from 'react'
import { isCount } from './buyingwords.ts'

/** A list of parts with how many of each: as proposed until somebody types another number; what is no whole number is not read. */
export function useCounts<R extends { partId: string }>(rows: readonly R[], proposed: (row: R) => number) {
  const [typed, setTyped] = useState<Record<string, string>>({})
  const textOf = (row: R) => typed[row.partId] ?? String(proposed(row))
  const unread = rows.filter((row) => !isCount(textOf(row)))
  return {
    unread,
    /** Rows with more than none. */
    counted: rows.map((row) => ({ row, quantity: Number(textOf(row)) })).filter((c) => c.quantity > 0),
    /** What the field of a row is given. */
    field: (row: R, label: string) => ({
      ...({ inputMode: 'numeric', 'aria-label': label } as const),
      value: textOf(row),
      isInvalid: unread.includes(row),
      onChange: (e: ChangeEvent<HTMLInputElement>) => setTyped({ ...typed, [row.partId]: e.target.value }),
    }),
  }
}
