/** A workbook with a tab a bay, read as one sheet. */

/** All tabs are asked for by this name. */
export const ALL_TABS = '*'
/** The heading that tabs get when they are read one under the other. */
export const TAB_HEADINGS = ['tab', 'tab row'] as const
/** Whether a sheet's rows are those of several tabs. */
export const isTabbed = ([first]: readonly (readonly string[])[]) => TAB_HEADINGS.every((h, i) => first?.[i] === h)

const LOOK_AT = 12
const plain = (row: readonly string[]) =>
  row
    .map((c) => c.trim().toLowerCase())
    .join('\t')
    .trim()

/**
 * A tab a bay, all with the same heading: it stands once, and before each row its tab and its number there. The heading is the row that all tabs share
 * among their first; without one each tab's rows come as they are.
 */
export function oneUnderTheOther(tabs: readonly { name: string; rows: string[][] }[]): string[][] {
  const [first, ...others] = tabs
  const heads = (first?.rows ?? []).slice(0, LOOK_AT).filter((row) => row.filter((c) => c.trim()).length > 1)
  const at = (rows: string[][], head: string) => rows.slice(0, LOOK_AT).findIndex((row) => plain(row) === head)
  const shared = heads.find((row) => others.every((tab) => at(tab.rows, plain(row)) >= 0))
  const under = tabs.flatMap(({ name, rows }) => {
    const from = shared ? at(rows, plain(shared)) + 1 : 0
    return rows.slice(from).flatMap((row, i) => (plain(row) ? [[name, String(from + i + 1), ...row]] : []))
  })
  return [[...TAB_HEADINGS, ...(shared ?? [])], ...under]
}
