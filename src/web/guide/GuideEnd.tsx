import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { TAG_TEXT, type Tag } from '@core/changeover/tags.ts'
import { isLoading, type GuideKey } from '@core/guide/keys.ts'
import { OVERRUNS, type Overrun } from '@core/ledger/event.ts'
import { type OutReason, type KindKey } from '@core/path/columns.ts'
import { type GuideAnswer, type GuideStep } from '@contract/guide.ts'
import { BY_KEY } from '@core/photo/photo.ts'
import { PhotoPick } from '@web/photo/Photos.tsx'
import { keepPhoto } from '@web/photo/queries.ts'
import { newKey } from '@web/api/client.ts'
import { capital, partName, REASON_WORD } from '@web/format/words.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { OVERRUN_WORD } from './guidewords.ts'
import { useGuideDone } from './queries.ts'
import { endOf, workedIn, type WalkState } from './walk.ts'

/** Something comes out in the hand: what it looks like tells why (P118). */
const CAME_OUT: ReadonlySet<string> = new Set<GuideKey>([
  ...(['tip', 'nozzle', 'insulator', 'diffuser', 'liner', 'rolls', 'guides', 'orings', 'nest'] as const),
])

/** The end of a guide: what became of the part and why it came out, in one tap; what held it up, where something did. */
export function GuideEnd(props: { guide: GuideAnswer; state: WalkState; beginMs: number; onDone: () => void }) {
  const { guide, state, beginMs } = props
  const send = useGuideDone()
  const [key] = useState(newKey)
  const [held, setHeld] = useState<Overrun | null>(null)
  const [photo, setPhoto] = useState<File | null>(null)
  const end = endOf(guide.steps, state)
  const worked = workedIn(guide.steps, state, { beginMs, reason: held })
  const log = (did: 'changed' | 'cleaned' | 'looked' | 'done', outReason: OutReason = 'notSaid') =>
    send.mutate(
      {
        ...{ key },
        stationId: guide.stationId ?? '',
        guide: guide.guide ?? 'tip',
        did,
        outReason,
        minutes: worked.minutes,
        overrun: held,
        settled: end.settled,
        stillTied: end.stillTied,
        note: end.asked.length > 0 ? `not yet: ${end.asked.join(' ')}`.slice(0, 200) : null,
      },
      {
        onSuccess: (kept) => {
          if (photo) void keepPhoto({ type: 'event', key: kept?.eventId ?? `${BY_KEY}${key}` }, photo)
          props.onDone()
        },
      },
    )
  return (
    <div className="step-words guide-end">
      <Standing end={end} />
      {worked.isLong ? <WhatHeld held={held} onHeld={setHeld} /> : null}
      {guide.stationId === null ? (
        <Key tone="chalk" onClick={props.onDone}>
          Read through
        </Key>
      ) : (
        <>
          {!CAME_OUT.has(guide.guide ?? '') ? null : photo ? (
            <p className="dim">The photo goes with it.</p>
          ) : (
            <PhotoPick word="a photo of what came out" accept="image/*" isKeeping={false} onFile={setPhoto} />
          )}
          <HowItEnded guide={guide} isSending={send.isPending} onLog={log} />
        </>
      )}
      <Trouble problem={send.error} />
    </div>
  )
}

/** What is still tied and not yet so. */
export function Standing({ end }: { end: ReturnType<typeof endOf> }) {
  return (
    <>
      {end.stillTied.length > 0 ? (
        <p className="step-look">
          Stays tied as a reminder: {end.stillTied.map((t) => TAG_TEXT[t as Tag].says).join(', ')}.
        </p>
      ) : null}
      {end.skipped.length > 0 ? (
        <p className="step-look">Not swapped: {end.skipped.map(partName).join(', ')}.</p>
      ) : null}
      {end.asked.length > 0 ? <p className="step-look">Not yet: {end.asked.join(' ')}</p> : null}
    </>
  )
}

export function WhatHeld({ held, onHeld }: { held: Overrun | null; onHeld: (held: Overrun | null) => void }) {
  return (
    <>
      <p className="step-look">That took long. What held it up? Without a word a pause counts as a pause.</p>
      <div className="guide-list">
        {OVERRUNS.map((o) => (
          <Key key={o} size="low" aria-pressed={held === o} onClick={() => onHeld(held === o ? null : o)}>
            {OVERRUN_WORD[o]}
          </Key>
        ))}
      </div>
    </>
  )
}

function HowItEnded(props: {
  guide: GuideAnswer
  isSending: boolean
  onLog: (did: 'changed' | 'cleaned' | 'looked' | 'done', outReason?: OutReason) => void
}) {
  const { guide, isSending, onLog } = props
  const { kindKey } = guide
  const plain = (did: 'changed' | 'done', words: string) => (
    <Key tone="chalk" disabled={isSending} onClick={() => onLog(did)}>
      {words}
    </Key>
  )
  if (guide.guide && isLoading(guide.guide)) return plain('changed', 'New spool is on: log it')
  if (!kindKey || !isPartGuide(guide.steps, kindKey)) return plain('done', 'Done: log it')
  return (
    <>
      <p className="step-do">{capital(partName(kindKey))}: why did the old one come out?</p>
      <div className="guide-reasons">
        {guide.reasons.map((r) => (
          <Key key={r} disabled={isSending} onClick={() => onLog('changed', r)}>
            {REASON_WORD[r]}
          </Key>
        ))}
        <Key disabled={isSending} onClick={() => onLog('changed')}>
          not said
        </Key>
        <Key tone="chalk" disabled={isSending} onClick={() => onLog(guide.canClean ? 'cleaned' : 'looked')}>
          {guide.canClean ? 'It stayed: cleaned' : 'It stayed: looked at'}
        </Key>
      </div>
    </>
  )
}

/** A guide about a part ends with what became of it; one about supply or start does not. */
const isPartGuide = (steps: readonly GuideStep[], kindKey: KindKey) => kindKey !== 'gas' && steps.length > 0
