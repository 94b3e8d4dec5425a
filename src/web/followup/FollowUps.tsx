import { Key } from '@web/kit/Keys.tsx'
import { Link } from 'react-router'
import { FOLLOW_UP_TEXT } from '@core/followup/followup.ts'
import { type FollowUpLine } from '@contract/followup.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { ago } from '@web/format/times.ts'
import { capital } from '@web/format/words.ts'
import { useFollowedUp } from '@web/guide/queries.ts'
import { Trouble } from '@web/kit/Trouble.tsx'

/** What follows from what was done here: why, since when, what is to be done, and one tap each that says it is done. */
export function FollowUps({ gun }: { gun: GunAnswer }) {
  const send = useFollowedUp()
  const { followUps } = gun
  if (followUps.length === 0) return null
  return (
    <section className="follow-ups" aria-label="What follows">
      <p>
        <strong>{orders(followUps)}</strong>{' '}
        <span className="dim">
          {whySentence(followUps, gun.nowMs)} <Link to={howPath(followUps, gun.stationId)}>How it is done</Link>
        </span>
      </p>
      <div className="follow-keys">
        {followUps.map((f) => (
          <Key
            key={f.task}
            size="low"
            className={f.isAsked ? undefined : 'is-waiting'}
            disabled={send.isPending}
            onClick={() => send.mutate({ stationId: gun.stationId, task: f.task })}
          >
            {FOLLOW_UP_TEXT[f.task].done}
          </Key>
        ))}
      </div>
      <Trouble problem={send.error} />
    </section>
  )
}

/** "Set the tension. When it has run a little: look again that the gun is home." */
function orders(list: readonly FollowUpLine[]): string {
  const said = (f: FollowUpLine) => FOLLOW_UP_TEXT[f.task].do
  const now = list.filter((f) => f.isAsked).map((f) => `${said(f)}.`)
  const later = list.filter((f) => !f.isAsked).map((f) => said(f).toLowerCase())
  return [...now, ...(later.length > 0 ? [`When it has run a little: ${later.join('; ')}.`] : [])].join(' ')
}

/** Each reason once, with the newest time. */
function whySentence(list: readonly FollowUpLine[], nowMs: number): string {
  const newest = new Map<string, number>()
  for (const f of list) newest.set(f.why, Math.max(newest.get(f.why) ?? 0, f.sinceMs))
  return `${capital([...newest].map(([why, ms]) => `${why}, ${ago(ms, nowMs)} ago`).join('; '))}.`
}

/** The guide of the only one that has one, else the list of them. */
function howPath(list: readonly FollowUpLine[], stationId: string): string {
  const guides = [...new Set(list.flatMap((f) => FOLLOW_UP_TEXT[f.task].guide ?? []))]
  return `/guide?gun=${stationId}${guides.length === 1 ? `&do=${guides[0] ?? ''}` : ''}`
}
