import { type ImportKind, type ImportPreview, type NoteDecision, type NoteGroupLine } from '@contract/ingest.ts'
import { capital } from '@web/format/words.ts'

export const counts = (did: Record<string, number>) =>
  Object.entries(did)
    .filter(([, n]) => n > 0)
    .map(([what, n]) => `${n} ${what}`)
    .join(', ') || 'nothing'

const SAID: Record<NoteGroupLine['verb'], string> = {
  changed: 'changed',
  cleaned: 'cleaned',
  seen: 'looked at',
  unsaid: '',
}

/** "214 notes say contact tip, not what was done": the question a group of notes asks. */
export function groupQuestion(group: NoteGroupLine): string {
  const notes = group.notes === 1 ? 'One note says' : `${group.notes} notes say`
  const parts = group.parts > group.notes ? ` (${group.parts} of them)` : ''
  const what = SAID[group.verb]
  return what ? `${notes} ${group.kindName} ${what}${parts}` : `${notes} ${group.kindName}${parts}, not what was done`
}

export const DECISION_WORD: Record<NoteDecision, string> = {
  changed: 'changed',
  cleaned: 'cleaned',
  seen: 'looked at',
  out: 'leave out',
}
/** What a group is counted as until somebody says otherwise; named without a verb, it asks, with "changed" ready to be taken. */
export const firstDecision = ({ verb, canClean }: NoteGroupLine): NoteDecision =>
  verb === 'unsaid' ? 'changed' : verb === 'cleaned' && !canClean ? 'seen' : verb

/** What past work comes to as it is decided now. */
export function notesWould(
  groups: readonly NoteGroupLine[],
  decisions: Record<string, NoteDecision>,
): Record<string, number> {
  const sum = (as: NoteDecision, of: (g: NoteGroupLine) => number) =>
    groups.filter((g) => decisions[g.key] === as).reduce((all, g) => all + of(g), 0)
  return {
    'parts put on': sum('changed', (g) => g.parts),
    cleanings: sum('cleaned', (g) => g.notes),
    looks: sum('seen', (g) => g.notes),
    'acts left out': sum('out', (g) => g.notes),
  }
}

export const countAs = (group: NoteGroupLine, as: NoteDecision) =>
  as === 'out'
    ? 'Left out.'
    : `${capital(group.kindName)} ${DECISION_WORD[as]}: ${as === 'changed' ? group.parts : group.notes}.`

export const inRows = (n: number) => (n === 1 ? 'in one row' : `in ${n} rows`)

const HOLDS: Record<ImportKind, string> = {
  places: 'places and the parts on them',
  usage: 'how much was welded',
  history: 'past work',
  purchases: 'what was bought',
  parts: 'parts',
  families: 'families of guns',
}
const LAY: Record<NonNullable<ImportPreview['lies']>, string> = {
  partsAcross: ': a line a gun, a part a column',
  daysAcross: ': a line a gun, a day a column',
  diary: ', from a diary',
}
/** "Read as past work, from a diary. Not read: Name." What the sheet was taken for, and what in it nobody asked for. */
export function readAs({ kind, lies, notTaken }: ImportPreview): string {
  const not = notTaken.length === 0 ? '' : ` Not read, and not kept: ${notTaken.join(', ')}.`
  const also =
    kind === 'parts' && notTaken.some((h) => /qty|quantity|how many|pieces/i.test(h))
      ? ' To count what was bought as well, take the parts in and then choose purchases.'
      : ''
  return `Read as ${HOLDS[kind]}${lies ? LAY[lies] : ''}.${not}${also}`
}

/** What can hold for a whole sheet that has no column for it. */
export const FILLABLE: ReadonlySet<string> = new Set(['area', 'date', 'month', 'family', 'wire', 'shift', 'unit'])
/** A row by the number a spreadsheet shows beside it, and in a workbook by its tab. */
export const rowName = (row: number, names: ImportPreview['rowNames']) => names[String(row)] ?? String(row)
