import {
  flexRender,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type ColumnDef,
  type Row,
} from '@tanstack/react-table'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useMemo, useRef, type ReactNode } from 'react'
import { Table } from 'react-bootstrap'
import { TextField } from './Field.tsx'
import { Bare } from './Keys.tsx'
import { useAddress } from './useAddress.ts'
import { Sideways } from './Sideways.tsx'

/** A column of a long table: what it is sorted by, and what stands in it. */
export interface Column<T> {
  key: string
  head: string
  /** Null stands last, whichever way it is sorted. */
  by: (row: T) => string | number | null
  cell: (row: T) => ReactNode
  isNumber?: boolean
}
interface Props<T> {
  id: string
  rows: readonly T[]
  columns: readonly Column<T>[]
  keyOf: (row: T) => string
  /** What a search finds it by. */
  wordsOf: (row: T) => string
  findLabel: string
  /** What can be done with a row, at its end. */
  actions?: (row: T) => ReactNode
  /** Beside the search. */
  children?: ReactNode
  none: string
}

/** Over so many only those in sight are drawn, within a frame of its own. */
const MANY = 80
const ROW_PX = 49

/** A table that may be long: sorted by a tap on its head, searched by words; both stand in the address, so that a link shows the same. */
export function LongTable<T>(props: Props<T>) {
  const { rows, columns, keyOf, wordsOf } = props
  const { get, put } = useAddress()
  const [sort, isDown, find] = [get('sort'), get('down') === '1', get('find')]
  const table = useReactTable({
    data: useMemo(() => [...rows], [rows]),
    columns: useMemo(() => columns.map(defOf), [columns]),
    getRowId: keyOf,
    state: { sorting: useMemo(() => (sort ? [{ id: sort, desc: isDown }] : []), [sort, isDown]), globalFilter: find },
    // There are no pages here: the table would set its page anew at each drawing, and draw itself anew for that, without end.
    autoResetPageIndex: false,
    globalFilterFn: (row: Row<T>, _, words: string) => hasAll(wordsOf(row.original), words),
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  })
  // Next: up, down, as it came.
  const turn = (key: string) =>
    put(sort !== key ? { sort: key, down: null } : isDown ? { sort: null, down: null } : { down: '1' })
  const shown = table.getRowModel().rows
  return (
    <>
      <div className="long-find">
        <TextField
          id={`${props.id}-find`}
          label={props.findLabel}
          type="search"
          value={find}
          onChange={(e) => put({ find: e.target.value })}
        />
        {props.children}
      </div>
      <Rows rows={shown} isLong={shown.length > MANY}>
        {({ some, before, after, seen }) => (
          <Table className="long-table">
            <thead>
              <tr>
                {columns.map((c) => (
                  <th
                    key={c.key}
                    className={c.isNumber ? 'text-end' : undefined}
                    aria-sort={sort === c.key ? (isDown ? 'descending' : 'ascending') : 'none'}
                  >
                    <Bare onClick={() => turn(c.key)}>
                      {c.head}
                      {sort === c.key ? (isDown ? ' ↓' : ' ↑') : ''}
                    </Bare>
                  </th>
                ))}
                {props.actions ? <td /> : null}
              </tr>
            </thead>
            <tbody>
              {before > 0 ? <tr style={{ height: before }} /> : null}
              {some.map(({ row, index }) => (
                <tr key={row.id} ref={seen} data-index={index}>
                  {row.getVisibleCells().map((cell, i) => (
                    <td key={cell.id} className={columns[i]?.isNumber ? 'text-end' : undefined}>
                      {flexRender(cell.column.columnDef.cell, cell.getContext())}
                    </td>
                  ))}
                  {props.actions ? <td className="text-end">{props.actions(row.original)}</td> : null}
                </tr>
              ))}
              {after > 0 ? <tr style={{ height: after }} /> : null}
            </tbody>
          </Table>
        )}
      </Rows>
      {shown.length === 0 ? <p className="said dim">{find ? `None has "${find}" in it.` : props.none}</p> : null}
    </>
  )
}

const defOf = <T,>(c: Column<T>): ColumnDef<T> => ({
  id: c.key,
  accessorFn: (row) => c.by(row) ?? undefined,
  cell: ({ row }) => c.cell(row.original),
  sortingFn: (a, b, id) => compare(a.getValue(id), b.getValue(id)),
  sortUndefined: 'last',
})
const compare = (a: unknown, b: unknown): number =>
  typeof a === 'number' && typeof b === 'number'
    ? a - b
    : String(a).localeCompare(String(b), undefined, { numeric: true, sensitivity: 'base' })

/** Every word that was typed stands somewhere in it. */
export const hasAll = (text: string, typed: string): boolean => {
  const within = text.toLowerCase()
  return typed
    .toLowerCase()
    .split(/\s+/)
    .every((word) => within.includes(word))
}

interface Shown<T> {
  some: { row: Row<T>; index: number }[]
  /** Room kept for the rows before and after. */
  before: number
  after: number
  /** Measures a row that is drawn: how high it really is. */
  seen: (row: HTMLTableRowElement | null) => void
}
const UNSEEN = () => undefined
/** All rows, or of many those in sight with room kept for the others. */
function Rows<T>(props: { rows: Row<T>[]; isLong: boolean; children: (shown: Shown<T>) => ReactNode }) {
  const { rows, isLong } = props
  const frame = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: isLong ? rows.length : 0,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW_PX,
    overscan: 12,
  })
  if (!isLong) {
    const some = rows.map((row, index) => ({ row, index }))
    return <Sideways>{props.children({ some, before: 0, after: 0, seen: UNSEEN })}</Sideways>
  }
  const items = virtual.getVirtualItems()
  const [first, last] = [items[0], items.at(-1)]
  return (
    <div ref={frame} tabIndex={0} className="table-responsive long-frame">
      {props.children({
        some: items.flatMap(({ index }) => {
          const row = rows[index]
          return row ? [{ row, index }] : []
        }),
        before: first?.start ?? 0,
        after: last ? virtual.getTotalSize() - last.end : virtual.getTotalSize(),
        seen: virtual.measureElement,
      })}
    </div>
  )
}
