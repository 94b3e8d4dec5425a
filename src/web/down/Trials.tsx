import { ownUnit, shownQuantity } from '@core/units/quantity.ts'
import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import {
  nextTrial,
  SAWS,
  trialFault,
  TUNED,
  valuesAfter,
  type Saw,
  type Trial,
  type Tuned,
  type TunedValues,
  type TuneGuard,
} from '@core/diagnose/tune.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type TuneAnswer } from '@contract/tune.ts'
import { newKey } from '@web/api/client.ts'
import { useUndo } from '@web/log/queries.ts'
import { when } from '@web/format/times.ts'
import { type Units } from '@web/format/numbers.ts'
import { capital } from '@web/format/words.ts'
import { quantity, useReadForm } from '@web/kit/readform.ts'
import { QuantityField } from '@web/kit/TypedField.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useKeepTune, useTrial } from './queries.ts'
import { CautionLines } from '@web/guide/CautionLines.tsx'
import { nextWords, settingsWords, trialWords, TUNED_WORD, tunedRule, valueWords } from '@web/logbook/tunewords.ts'

/** Null: it waits on this device for a link. */
export type LoggedTrial = Trial & { eventId: string | null }
interface Props {
  gun: GunAnswer
  tune: TuneAnswer
  units: Units
  symptom: string | null
  guard: TuneGuard
  trials: readonly LoggedTrial[]
  onTrial: (trial: LoggedTrial) => void
  onBack: () => void
  onDone: () => void
}
const SAW_KEY: Record<Saw, string> = { better: 'Better: it stays', same: 'The same: back', worse: 'Worse: back' }

/** A row of beads for each change; the log of them, and what stands now. */
export function Trials({ gun, tune, units, symptom, guard, trials, onTrial, onBack, onDone }: Props) {
  const start = startOf(tune)
  const values = valuesAfter(start, trials)
  const next = nextTrial(trials, symptom, hasOf(gun.mode))
  const [picked, setPicked] = useState<Tuned | null>(null)
  const name = picked ?? next?.name ?? 'wireSpeed'
  const keep = useKeepTune()
  return (
    <div className="tune-body">
      <section className="down-now" aria-label="The next change">
        {next ? <p className="step-look">{nextWords(next)}</p> : <p className="step-look">All of it was tried.</p>}
        <div className="tune-names" role="group" aria-label="Which value">
          {hasOf(gun.mode).map((n) => (
            <Key key={n} size="low" aria-pressed={n === name} onClick={() => setPicked(n)}>
              {capital(TUNED_WORD[n])} <span className="dim">{valueWords(n, values[n] ?? null, units)}</span>
            </Key>
          ))}
        </div>
        <OneTrial
          key={`${name} ${trials.length}`}
          of={{ name, from: values[name] ?? null, units, stationId: gun.stationId, symptom, guard }}
          onTrial={(trial) => {
            setPicked(null)
            onTrial(trial)
          }}
        />
      </section>
      <aside className="tune-log" aria-label="Log">
        <h2>{trials.length === 0 ? 'No change yet' : 'So far'}</h2>
        <ol>
          {trials.map((t, i) => (
            <li key={i}>{trialWords(t, units)}</li>
          ))}
        </ol>
        <TakeBack last={trials.at(-1)} onBack={onBack} />
        <Told tune={tune} units={units} />
        <div className="walk-keys">
          <Key
            tone="chalk"
            disabled={Object.keys(values).length === 0 || keep.isPending}
            onClick={() => keep.mutate({ stationId: gun.stationId, symptom, values }, { onSuccess: onDone })}
          >
            It works so: keep
          </Key>
          <Key onClick={onDone}>Leave</Key>
        </div>
        <Trouble problem={keep.error} />
      </aside>
    </div>
  )
}

/** Pulse is trimmed; everything else is set in volts. */
const hasOf = (mode: string | null): readonly Tuned[] =>
  TUNED.filter((n) => (mode === 'pulse' ? n !== 'volts' : n !== 'trim'))
/** Begins where it worked before with this wire and mode; else nobody knows. */
const startOf = (tune: TuneAnswer): TunedValues => tune.kept.find((k) => k.isSame)?.values ?? {}

interface OfTrial {
  name: Tuned
  from: number | null
  units: Units
  stationId: string
  symptom: string | null
  guard: TuneGuard
}
/** One value: what it stands at, what it is changed to, and what a row of beads shows. */
function OneTrial({ of, onTrial }: { of: OfTrial; onTrial: (trial: LoggedTrial) => void }) {
  const rule = tunedRule(of.name, of.units)
  const form = useReadForm(
    { from: quantity({ ...rule, kept: of.from }), to: quantity(rule) },
    { from: shownQuantity(of.from, rule), to: '' },
  )
  const send = useTrial()
  const read = form.now()
  const made = { name: of.name, from: read?.from ?? null, to: read?.to ?? null }
  const fault = made.to === null ? null : trialFault({ ...made, to: made.to })
  const say = (saw: Saw) => {
    if (made.to === null || fault) return
    const trial = { name: of.name, from: made.from, to: made.to, saw }
    const { stationId, symptom, guard } = of
    send.mutate(
      { ...trial, stationId, symptom, guard },
      { onSuccess: (answer) => onTrial({ ...trial, eventId: answer?.eventId ?? null }) },
    )
  }
  return (
    <>
      <div className="walk-which">
        <QuantityField
          form={form}
          name="from"
          id="tune-from"
          label={`${capital(TUNED_WORD[of.name])} stands at, ${ownUnit(rule)}`}
        />
        <QuantityField form={form} name="to" id="tune-to" label={`changed to, ${ownUnit(rule)}`} />
      </div>
      {fault ? (
        <p role="alert" className="step-look">
          {fault === 'same'
            ? 'That is where it stands: change it, by a little.'
            : 'No machine is set to that: another unit?'}
        </p>
      ) : null}
      <p className="step-look">Nothing else is touched. Then a row of short beads, side by side.</p>
      <CautionLines className="step-hazard" hazards={['arc', 'clothing']} />
      <div className="walk-keys is-saw" role="group" aria-label="What the beads show">
        {SAWS.map((saw) => (
          <Key key={saw} disabled={made.to === null || fault !== null || send.isPending} onClick={() => say(saw)}>
            {SAW_KEY[saw]}
          </Key>
        ))}
      </div>
      <Trouble problem={send.error} />
    </>
  )
}

/** The last change was none, or was typed wrong. */
function TakeBack({ last, onBack }: { last: LoggedTrial | undefined; onBack: () => void }) {
  const undo = useUndo()
  const eventId = last?.eventId
  if (!eventId) return null
  return (
    <>
      <Key
        size="low"
        disabled={undo.isPending}
        onClick={() => undo.mutate({ key: newKey(), eventIds: [eventId] }, { onSuccess: onBack })}
      >
        take the last one back
      </Key>
      <Trouble problem={undo.error} />
    </>
  )
}

/** What the procedure says, and what worked here before. */
function Told({ tune, units }: { tune: TuneAnswer; units: Units }) {
  const { procedure, kept } = tune
  const span = (name: Tuned, of: readonly [number, number] | null) =>
    of ? `${TUNED_WORD[name]} ${valueWords(name, of[0], units)} to ${valueWords(name, of[1], units)}` : null
  const written = procedure
    ? (['wireSpeed', 'volts', 'stickOut', 'flow'] as const)
        .map((of) => span(of, procedure[of]))
        .filter(Boolean)
        .join(', ')
    : ''
  return (
    <>
      {written && procedure ? (
        <p className="dim">
          {procedure.name}: {written}.
        </p>
      ) : null}
      {kept.map((k) => (
        <p key={k.eventId} className="dim">
          Worked {when(k.atMs, tune.nowMs, tune.zone)}
          {k.isSame ? '' : ` with ${k.wireName ?? 'another wire'}${k.mode ? `, ${k.mode}` : ''}`}:{' '}
          {settingsWords(k.values, units)}.
        </p>
      ))}
    </>
  )
}
