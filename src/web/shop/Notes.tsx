import { Plain } from '@web/kit/Keys.tsx'
import { NOTE_DECISIONS, type ImportPreview, type NoteDecision } from '@contract/ingest.ts'
import { countAs, DECISION_WORD, groupQuestion, rowName } from './sheetwords.ts'

/** Notes by group: one question each, answered once for all of them. What can't be read is listed, not guessed. */
export function Notes(props: {
  preview: ImportPreview
  decisions: Record<string, NoteDecision>
  onDecide: (key: string, as: NoteDecision) => void
}) {
  const { groups, unread, rowNames } = props.preview
  return (
    <section className="note-groups" aria-label="What the notes say">
      {groups.map((g) => {
        const now = props.decisions[g.key] ?? 'out'
        return (
          <fieldset key={g.key} className="note-group">
            <legend>{groupQuestion(g)}</legend>
            <p className="small-print">{g.examples.map((e) => `“${e}”`).join(' · ')}</p>
            <div className="note-keys">
              {NOTE_DECISIONS.filter((d) => d !== 'cleaned' || g.canClean).map((d) => (
                <Plain
                  key={d}
                  className={d === now ? 'btn is-on' : 'btn'}
                  aria-pressed={d === now}
                  onClick={() => props.onDecide(g.key, d)}
                >
                  {DECISION_WORD[d]}
                </Plain>
              ))}
              <span className="dim">{countAs(g, now)}</span>
            </div>
          </fieldset>
        )
      })}
      {unread.length > 0 ? (
        <details>
          <summary>
            {unread.length === 1 ? 'One note has' : `${unread.length} notes have`} words that can’t be read; they are
            kept with the line where a part is named
          </summary>
          <ul className="plain">
            {unread.map((u) => (
              <li key={`${u.row} ${u.text}`}>
                <span className="dim">row {rowName(u.row, rowNames)}</span> {u.text || 'nothing written'}
              </li>
            ))}
          </ul>
        </details>
      ) : null}
    </section>
  )
}
