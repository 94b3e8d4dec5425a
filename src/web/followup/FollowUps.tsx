import { Link } from 'react-router'
import { FOLLOW_UP_TEXT } from '@core/followup/followup.ts'
import { type FollowUpLine } from '@contract/followup.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { ago } from '@web/format/times.ts'
import { capital } from '@web/format/words.ts'
import { useFollowedUp } from '@web/guide/queries.ts'
import { Trouble } from '@web/shell/Trouble.tsx'

/** What follows from what was done here: each with why, since when, and the one tap that says it is done. */
export function FollowUps({ gun }: { gun: GunAnswer }) {
  const send = useFollowedUp()
  if (gun.followUps.length === 0) return null
  return (
    <section className="follow-ups" aria-label="What follows">
      {gun.followUps.map((f) => (
        <OneFollowUp
          key={f.task}
          line={f}
          gun={gun}
          isSending={send.isPending}
          onDone={() => send.mutate({ stationId: gun.stationId, task: f.task })}
        />
      ))}
      <Trouble problem={send.error} />
    </section>
  )
}

function OneFollowUp(props: { line: FollowUpLine; gun: GunAnswer; isSending: boolean; onDone: () => void }) {
  const { line, gun } = props
  const text = FOLLOW_UP_TEXT[line.task]
  const since = `${line.why}, ${ago(line.sinceMs, gun.nowMs)} ago`
  return (
    <div className={line.isAsked ? 'follow-up' : 'follow-up is-waiting'}>
      <p>
        <strong>{line.isAsked ? text.do : `When it has run a little: ${text.do.toLowerCase()}`}.</strong>{' '}
        <span className="dim">
          {capital(since)}. {text.guide ? <Link to={`/guide?gun=${gun.stationId}&do=${text.guide}`}>How</Link> : null}
        </span>
      </p>
      <button type="button" className="key key-low" disabled={props.isSending} onClick={props.onDone}>
        {text.done}
      </button>
    </div>
  )
}
