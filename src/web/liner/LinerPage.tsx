import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { type DrawingKey } from '@core/drawings/drawing.ts'
import { type LinerAnswer } from '@contract/liner.ts'
import { newKey } from '@web/api/client.ts'
import { type Units } from '@web/format/numbers.ts'
import { Drawing } from '@web/guide/Drawing.tsx'
import { StepWalk } from '@web/guide/StepWalk.tsx'
import { minutesSentence } from '@web/guide/guidewords.ts'
import { useMe } from '@web/people/queries.ts'
import { Waiting } from '@web/kit/Waiting.tsx'
import { WhichGun } from '@web/places/WhichGun.tsx'
import { anotherLiner, keepJob, keptJob, newJob, type LinerJob } from './job.ts'
import { LinerEnd } from './LinerEnd.tsx'
import { LinerGate } from './LinerGate.tsx'
import { tapeLength } from '@web/format/lengths.ts'
import {
  autopsySentence,
  othersSentence,
  lastSentence,
  orderSentence,
  PERSON_WORD,
  ruleSentence,
  spoiledSentence,
} from './linerwords.ts'
import { useLiner, useLinersDue } from './queries.ts'

/** A liner job: what it wants before a tool is picked up, then step by step, with two cuts from two measurements. */
export function LinerPage() {
  const [params, setParams] = useSearchParams()
  const stationId = params.get('gun') ?? ''
  const liner = useLiner(stationId)
  const me = useMe()
  const [job, setJob] = useState(() => keptJob(stationId, Date.now()))
  const units = me.data?.units ?? 'metric'
  const keep = (next: LinerJob | null) => {
    setJob(next)
    keepJob(stationId, next)
  }
  const walk = (isOn: boolean) => setParams(isOn ? { gun: stationId, at: 'walk' } : { gun: stationId })
  if (stationId === '') return <WhichGun />
  if (!liner.data)
    return (
      <main className="guide" aria-busy={liner.isPending}>
        <Waiting says="Reading the liner" problem={liner.error} />
      </main>
    )
  if (params.get('at') === 'walk' && job)
    return <Walked liner={liner.data} units={units} job={job} onJob={keep} onLeave={() => walk(false)} />
  return (
    <BeforeTools
      liner={liner.data}
      units={units}
      job={job}
      onBegin={(isAnew) => {
        if (isAnew || !job) keep(newJob(newKey(), Date.now()))
        walk(true)
      }}
    />
  )
}

function BeforeTools(props: {
  liner: LinerAnswer
  units: Units
  job: LinerJob | null
  onBegin: (isAnew: boolean) => void
}) {
  const { liner, units, job } = props
  const isReady = liner.by !== 'notTold'
  const tooShort =
    liner.put && liner.orderMm !== null && liner.putLengthMm !== null && liner.putLengthMm < liner.orderMm
  return (
    <main className="guide">
      <div className="guide-head">
        <div>
          <h1 className="sentence">
            Liner of {liner.name}, {liner.put ? liner.put.code : 'none on the shelf that fits'}.
          </h1>
          <p className="dim">
            {minutesSentence(liner.minutes)} {spoiledSentence(liner)}
          </p>
        </div>
        <div className="guide-keys">
          <Key size="low" tone="chalk" disabled={!isReady} onClick={() => props.onBegin(job === null)}>
            {job ? `Go on, step ${job.walk.done.length + 1}` : 'Begin'}
          </Key>
          {job ? (
            <Key size="low" onClick={() => props.onBegin(true)}>
              Begin anew
            </Key>
          ) : null}
          <Link className="key key-low" to={`/guide?gun=${liner.stationId}&do=liner`}>
            The whole sheet
          </Link>
        </div>
      </div>
      <dl className="liner-needs">
        <dt>The liner</dt>
        <dd className={tooShort ? 'is-short' : ''}>
          {liner.put ? (
            <>
              {liner.put.name} ({liner.put.code})
              {liner.put.onHand === null
                ? ''
                : liner.put.onHand > 0
                  ? `, ${liner.put.onHand} on the shelf. `
                  : ', none on the shelf. '}
            </>
          ) : null}
          {orderSentence(liner, units)}
        </dd>
        <dt>Room</dt>
        <dd>Clear floor or bench of {tapeLength(liner.clearFloorMm, units)}: the gun lies dead straight.</dd>
        <dt>Hands</dt>
        <dd>
          {liner.secondPerson.length === 0
            ? 'One pair does.'
            : `A second person to lift the cable: ${liner.secondPerson.map((w) => PERSON_WORD[w]).join('; ')}.`}
        </dd>
        <dt>The cut</dt>
        <dd className={isReady ? '' : 'is-short'}>
          {ruleSentence(liner, units)} With the {liner.cutter}.
        </dd>
        <Before liner={liner} units={units} />
        <OthersToo stationId={liner.stationId} />
      </dl>
      <div className="liner-drawings">
        <Drawing of="cableStraight" />
        <Drawing of={TRIM_DRAWING[liner.by]} />
        <Drawing of="linerEnd" />
      </div>
    </main>
  )
}

const TRIM_DRAWING: Record<LinerAnswer['by'], DrawingKey> = {
  A: 'standOutA',
  B: 'standOutB',
  C: 'lengthC',
  feeder: 'feederEnd',
  notTold: 'kink',
}

/** Liners that want changing elsewhere: one clear floor, one set of tools, one session (P029). */
function OthersToo({ stationId }: { stationId: string }) {
  const due = useLinersDue()
  const others = (due.data?.guns ?? []).flatMap((g) => {
    const want = g.wants.find((w) => w.position === 'liner' && w.act === 'change')
    return want && g.stationId !== stationId ? [{ name: g.name, minutes: want.minutes }] : []
  })
  if (others.length === 0) return null
  return (
    <>
      <dt>In one session</dt>
      <dd>{othersSentence(others)}</dd>
    </>
  )
}

/** What this gun's liners showed before. */
function Before({ liner, units }: { liner: LinerAnswer; units: Units }) {
  const last = lastSentence(liner, units)
  const stuck = liner.stuckBefore.map((s) => tapeLength(s.atMm, units))
  const [old] = liner.autopsies
  if (!last && stuck.length === 0 && !old) return null
  return (
    <>
      <dt>Before</dt>
      <dd>
        {last} {stuck.length > 0 ? `Liners stuck here at ${stuck.join(', ')} from the feeder.` : ''}{' '}
        {old ? autopsySentence(old, liner, units) : ''}
      </dd>
    </>
  )
}

function Walked(props: {
  liner: LinerAnswer
  units: Units
  job: LinerJob
  onJob: (job: LinerJob | null) => void
  onLeave: () => void
}) {
  const { liner, units, job, onJob } = props
  const go = useNavigate()
  return (
    <StepWalk
      name={liner.name}
      title="liner"
      steps={liner.steps}
      stationId={liner.stationId}
      kept={{ state: job.walk, onState: (walk) => onJob({ ...job, walk }) }}
      onLeave={props.onLeave}
      gate={(at) =>
        at.step.gate ? (
          <LinerGate
            key={at.step.key}
            at={at}
            liner={liner}
            units={units}
            job={job}
            onJob={onJob}
            onAnother={() => onJob(anotherLiner(job, liner.steps))}
          />
        ) : null
      }
      ended={() => (
        <LinerEnd
          liner={liner}
          job={job}
          onDone={() => {
            onJob(null)
            void go(`/gun/${liner.stationId}`)
          }}
        />
      )}
    />
  )
}
