import { type NoteDecision, type NoteGroupLine } from '@contract/ingest.ts'
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
export const firstDecision = (group: NoteGroupLine): NoteDecision => (group.verb === 'unsaid' ? 'changed' : group.verb)

export const countAs = (group: NoteGroupLine, as: NoteDecision) =>
  as === 'out'
    ? 'Left out.'
    : `${capital(group.kindName)} ${DECISION_WORD[as]}: ${as === 'changed' ? group.parts : group.notes}.`
