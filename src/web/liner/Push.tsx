import { Bare, Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { Link } from 'react-router'
import { readLength } from '@core/units/length.ts'
import { USUAL_CABLE_M } from '@core/guide/feed.ts'
import { judgePush } from '@core/liner/resistance.ts'
import { type LinerAnswer, type StuckAnswer } from '@contract/liner.ts'
import { newKey } from '@web/api/client.ts'
import { when } from '@web/format/times.ts'
import { field, TextField } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { type GateProps } from './LinerGate.tsx'
import { PlaceKeys } from './PlaceKeys.tsx'
import { unitOf } from '@web/format/lengths.ts'
import { useStuck } from './queries.ts'

/** In it goes, or it sticks: where, and is it kinked. Kinked is scrap, and no key here says otherwise. */
export function Push(props: GateProps) {
  const { at } = props
  const [isStuck, setStuck] = useState(false)
  const stuck = useStuck()
  if (stuck.isSuccess)
    return (
      <Verdict {...props} said={stuck.data ?? saidHere(props.liner, stuck.variables)} onAgain={() => stuck.reset()} />
    )
  if (!isStuck)
    return (
      <div className="step-keys">
        <Key tone="chalk" onClick={at.done}>
          It glided in
        </Key>
        <Key onClick={() => setStuck(true)}>It sticks</Key>
      </div>
    )
  return <Where {...props} stuck={stuck} onBack={() => setStuck(false)} />
}

function Where(props: GateProps & { stuck: ReturnType<typeof useStuck>; onBack: () => void }) {
  const { liner, units, stuck } = props
  const [key] = useState(newKey)
  const [atMm, setAt] = useState<number | null>(null)
  const [text, setText] = useState('')
  const read = text.trim() ? readLength(text, unitOf(units)) : null
  const place = read?.ok ? read.mm : atMm
  const say = (isKinked: boolean) => stuck.mutate({ key, stationId: liner.stationId, atMm: place, isKinked })
  return (
    <div className="gate-form">
      <p className="step-look">Where, from the feeder end?</p>
      <div className="gate-keys">
        <PlaceKeys
          cableMm={liner.cableMm}
          atMm={read ? null : atMm}
          onPick={(mm) => {
            setText('')
            setAt(mm)
          }}
        />
      </div>
      <TextField id="stuck-at" label={`or measured, ${unitOf(units)}`} inputMode="decimal" {...field(text, setText)} />
      {read && !read.ok ? <p className="step-look">{read.reason}.</p> : null}
      <p className="step-look">Draw it out a little and look: is it kinked?</p>
      <div className="step-keys">
        <Key tone="chalk" disabled={stuck.isPending || read?.ok === false} onClick={() => say(false)}>
          No kink
        </Key>
        <Key disabled={stuck.isPending || read?.ok === false} onClick={() => say(true)}>
          Kinked
        </Key>
      </div>
      <Bare onClick={props.onBack}>it does not stick after all</Bare>
      <Trouble problem={stuck.error} />
    </div>
  )
}

/** Without a link the device says it, by what it knows of this gun. */
function saidHere(liner: LinerAnswer, push: { atMm: number | null; isKinked: boolean }): StuckAnswer {
  const { cableMm, neckMm, stuckBefore: before } = liner
  const sizes = { cableMm: cableMm ?? USUAL_CABLE_M * 1000, neckMm: neckMm ?? 0 }
  const verdict = judgePush({ metAtMm: push.atMm, isKinked: push.isKinked, ...sizes, before })
  return { is: verdict.is, beforeMs: verdict.is === 'cable' ? verdict.before.atMs : null }
}

const ADVICE: Record<StuckAnswer['is'], string> = {
  scrap:
    'Kinked is scrap: it looks straight again and the coils inside stay bunched. It is off the shelf. Take another.',
  cable:
    'Another liner stuck at the same place before: it is the cable’s own tube. No liner will feed well through it.',
  neck: 'That is the bend of the neck: very short pushes, a jiggle, or somebody lifts the cable in line with it.',
  straighten: 'The cable is not straight there, or turned: lay it out dead straight and try again, by hand.',
  glides: 'Then it was nothing: push on, by hand.',
}

function Verdict(props: GateProps & { said: StuckAnswer; onAgain: () => void }) {
  const { said, liner } = props
  return (
    <div className="gate-form">
      <p className="step-do">{ADVICE[said.is]}</p>
      {said.beforeMs === null ? null : (
        <p className="step-look">The other one stuck there {when(said.beforeMs, liner.nowMs, liner.zone)}.</p>
      )}
      <div className="step-keys">
        {said.is === 'scrap' ? (
          <Key tone="chalk" onClick={props.onAnother}>
            Another liner
          </Key>
        ) : (
          <>
            <Key tone="chalk" onClick={props.at.done}>
              Now it is in
            </Key>
            <Key onClick={props.onAgain}>It sticks again</Key>
          </>
        )}
      </div>
      {said.is === 'cable' ? (
        <Link className="key key-low" to={`/gun/${liner.stationId}?open=swap`}>
          Leave it: another gun goes on
        </Link>
      ) : null}
    </div>
  )
}
