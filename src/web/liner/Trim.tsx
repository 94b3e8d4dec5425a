import { Bare, Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { AGREE_MM } from '@core/liner/trim.ts'
import { feederTarget } from '@core/liner/rule.ts'
import {
  beginAnew,
  NOT_BEGUN,
  slipOfFirst,
  slipOfSecond,
  trimStage,
  type Trimming,
  type TrimStage,
} from '@core/liner/trimjob.ts'
import { bareLeftMm } from '@core/liner/rule.ts'
import { newKey } from '@web/api/client.ts'
import { type GuideStep } from '@contract/guide.ts'
import { Drawing } from '@web/guide/Drawing.tsx'
import { StepCautions, StepDo, StepRule } from '@web/guide/StepWalk.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { answered } from './answered.ts'
import { LengthField } from './LengthField.tsx'
import { type GateProps } from './LinerGate.tsx'
import { ruleLength } from '@web/format/lengths.ts'
import { useSpoiled } from './queries.ts'

/** Two cuts from two measurements, one thing a screen. */
export function Trim(props: GateProps) {
  const { job, onJob, liner, at } = props
  const known = at.step.gate === 'trim' && (liner.by === 'A' || liner.by === 'B') ? liner.neededMm : null
  const t: Trimming = { ...job.trim, neededMm: job.trim.neededMm ?? known }
  const set = (trim: Partial<Trimming>) => onJob({ ...job, trim: { ...t, ...trim } })
  const stage = trimStage(t)
  return (
    <div className="gate-form">
      {MEASURES.has(stage.is) ? <StepDo step={at.step} /> : null}
      <CutSoFar t={t} {...props} />
      <Stage {...props} stage={stage} t={t} set={set} />
      {MEASURES.has(stage.is) ? <MeasureHelp step={at.step} /> : <StepCautions step={at.step} />}
    </div>
  )
}

const MEASURES: ReadonlySet<TrimStage['is']> = new Set(['needed', 'measure'])

/** How it is measured, under the figure: read once, then only the figure matters. */
function MeasureHelp({ step }: { step: GuideStep }) {
  return (
    <>
      <StepCautions step={step} />
      {step.drawing ? <Drawing of={step.drawing} /> : null}
      {step.look ? <p>{step.look}</p> : null}
      <StepRule step={step} />
    </>
  )
}

interface StageProps extends GateProps {
  stage: TrimStage
  t: Trimming
  set: (trim: Partial<Trimming>) => void
}

function Stage(props: StageProps) {
  const { stage, units, set, t } = props
  switch (stage.is) {
    case 'needed':
      return <Needed {...props} />
    case 'measure':
      return (
        <LengthField
          key="first"
          id="stands-out"
          label={MEASURED[props.liner.by]}
          units={units}
          word="That is what it measures"
          slipOf={(mm) => slipOfFirst(mm, stage.neededMm)}
          onSay={(mm) => set({ standsOutMm: mm })}
        />
      )
    case 'cutFirst':
      return (
        <Cut
          {...props}
          cutMm={stage.cutMm}
          leavesMm={stage.leavesMm}
          onCut={() => set({ firstCutMm: stage.cutMm })}
          onWrong={() => set({ standsOutMm: null })}
        />
      )
    case 'measureAgain':
      return (
        <>
          <p className="step-do">
            {stage.isUncut
              ? 'So little is cut once: measure it a second time first.'
              : 'Press it home and measure again.'}
          </p>
          <LengthField
            key="second"
            id="stands-out-now"
            label={`now; about ${ruleLength(stage.expectedMm, units)} is expected`}
            units={units}
            word="That is what it measures"
            slipOf={(mm) => slipOfSecond(mm, stage.expectedMm)}
            onSay={(mm) => set({ nowMm: mm })}
          />
        </>
      )
    case 'disagree':
      return <Disagree {...props} stage={stage} />
    case 'cutRest':
      return (
        <Cut
          {...props}
          cutMm={stage.cutMm}
          leavesMm={null}
          onCut={() => set({ secondCutMm: stage.cutMm })}
          onWrong={() => set({ nowMm: null })}
        />
      )
    case 'tooShort':
      return <TooShort {...props} stage={stage} />
    case 'right':
      return <Right {...props} leftMm={stage.leftMm} wasCut={t.firstCutMm !== null || t.secondCutMm !== null} />
  }
}

const MEASURED: Record<GateProps['liner']['by'], string> = {
  A: 'stands out of the neck, pressed home',
  B: 'stands out of the tip holder, lying free',
  C: 'whole length of the new one',
  feeder: 'stands out of the guide’s seat',
  notTold: 'stands out',
}

/** What must be left, where the family does not tell it: the old one's length, or how far the rolls are. */
function Needed({ job, liner, units, set, at }: StageProps) {
  const isFeeder = at.step.gate === 'trimFeeder'
  const old = job.old.lengthMm
  if (!isFeeder && old !== null && !job.old.found.includes('cutShort'))
    return (
      <div className="step-keys is-gate">
        <Key tone="chalk" onClick={() => set({ neededMm: old })}>
          The old one was {ruleLength(old, units)}: cut to that
        </Key>
      </div>
    )
  if (!isFeeder && job.old.found.includes('cutShort'))
    return (
      <p className="step-do">
        The old one had been cut short: a copy would be short again. Ask the lead which length is right.
      </p>
    )
  if (isFeeder) return <SeatToNip liner={liner} units={units} onSay={(mm) => set({ neededMm: feederNeeded(mm) })} />
  return (
    <LengthField
      id="needed"
      label="whole length of the old one"
      units={units}
      word="That is what it measures"
      slipOf={(mm) => slipOfFirst(mm, liner.cableMm ?? 0)}
      onSay={(mm) => set({ neededMm: mm })}
    />
  )
}

/** How far the rolls are is measured twice, or once where it is what it was last time: everything that is cut goes by it. */
function SeatToNip(props: { liner: GateProps['liner']; units: GateProps['units']; onSay: (mm: number) => void }) {
  const { liner, units, onSay } = props
  const last = liner.seatToNipMm
  const [first, setFirst] = useState<number | null>(null)
  const [apart, setApart] = useState<{ was: number; now: number } | null>(null)
  const say = (mm: number) => {
    const against = first ?? (apart ? null : last)
    if (against === null) return setFirst(mm)
    if (Math.abs(mm - against) <= AGREE_MM) return onSay(mm)
    setApart({ was: against, now: mm })
    // What it was last time may have changed; of two taken now neither is believed.
    setFirst(first === null ? mm : null)
  }
  const when =
    first !== null ? '; a second time' : last !== null && !apart ? `; ${ruleLength(last, units)} last time` : ''
  return (
    <>
      {apart ? (
        <p className="step-look">
          {ruleLength(apart.was, units)} and {ruleLength(apart.now, units)}: they do not agree. Measure it again.
        </p>
      ) : null}
      <LengthField
        key={`${first ?? ''} ${apart?.now ?? ''}`}
        id="needed"
        label={`from the guide’s seat to where the rolls meet${when}`}
        units={units}
        word="That is what it measures"
        slipOf={(mm) => slipOfFirst(mm, LEAST_NIP_MM)}
        onSay={say}
      />
    </>
  )
}
const LEAST_NIP_MM = 2
const feederNeeded = (seatToNipMm: number) => (seatToNipMm > LEAST_NIP_MM ? feederTarget({ seatToNipMm }).neededMm : 0)

function CutSoFar({ t, liner, units }: GateProps & { t: Trimming }) {
  if (t.neededMm === null) return null
  const said = [`${ruleLength(t.neededMm, units)} must be left`]
  if (t.standsOutMm !== null) said.push(`${ruleLength(t.standsOutMm, units)} measured`)
  if (t.firstCutMm !== null) said.push(`${ruleLength(t.firstCutMm, units)} cut off`)
  if (t.nowMm !== null) said.push(`${ruleLength(t.nowMm, units)} measured then`)
  if (t.secondCutMm !== null) said.push(`${ruleLength(t.secondCutMm, units)} cut off`)
  return (
    <p className="cut-so-far dim">
      {said.join(', ')}.{' '}
      {t.firstCutMm === null
        ? `Each quarter bend in the cable puts it off by about ${ruleLength(liner.quarterBend.mm, units)} (${ruleLength(liner.quarterBend.fromMm, units)} to ${ruleLength(liner.quarterBend.toMm, units)}, a guess).`
        : ''}
    </p>
  )
}

function Cut(props: StageProps & { cutMm: number; leavesMm: number | null; onCut: () => void; onWrong: () => void }) {
  const { liner, units, cutMm, leavesMm } = props
  const bare = bareWords(props)
  return (
    <>
      <p className="step-do cut-figure">Cut {ruleLength(cutMm, units)} off, no more.</p>
      <p className="step-look">
        With the {liner.cutter}.{' '}
        {leavesMm === null
          ? 'That is the last cut.'
          : `It leaves ${ruleLength(leavesMm, units)} too much on purpose: what is off does not come back.`}
      </p>
      {bare ? <p className="step-hazard">{bare}</p> : null}
      {leavesMm === null ? null : <StagedPicture leavesMm={leavesMm} units={units} />}
      <div className="step-keys is-gate">
        <Key tone="chalk" onClick={props.onCut}>
          {ruleLength(cutMm, units)} are off
        </Key>
      </div>
      <Bare onClick={props.onWrong}>not cut: it was measured wrong</Bare>
    </>
  )
}

/** Why not all at once: the first cut is meant to be too long. */
function StagedPicture({ leavesMm, units }: { leavesMm: number; units: GateProps['units'] }) {
  return (
    <svg
      className="staged-cut"
      viewBox="0 0 320 70"
      role="img"
      aria-label={`Cut at the second mark, ${ruleLength(leavesMm, units)} beyond the first, where it is right`}
    >
      <path className="ink-cut" d="M0 12H70V26H0ZM0 58H70V44H0Z" />
      <path className="ink-body" d="M0 26H310V44H0Z" />
      <path className="ink-line" d="M150 14V56" />
      <path className="ink-measure" d="M190 6V64" />
      <text x="96" y="66">
        right
      </text>
      <text x="196" y="62">
        cut here
      </text>
    </svg>
  )
}

/** Jacket that would end up in the neck's heat melts there. */
function bareWords({ liner, units, cutMm, at }: StageProps & { cutMm: number }): string | null {
  if (liner.bareFrontMm === null || liner.neckMm === null || at.step.gate !== 'trim') return null
  const left = bareLeftMm({ bareFrontMm: liner.bareFrontMm, cutMm, neckMm: liner.neckMm })
  return left < 0
    ? `After this cut the jacket reaches ${ruleLength(-left, units)} into the neck: it melts and sticks there. Bare it that far first.`
    : null
}

function Disagree({
  stage,
  units,
  set,
  t,
  onJob,
  job,
}: StageProps & { stage: Extract<TrimStage, { is: 'disagree' }> }) {
  return (
    <>
      <p className="step-do">
        Stop: {ruleLength(stage.expectedMm, units)} was expected, {ruleLength(stage.nowMm, units)} measured. Nothing
        more is cut.
      </p>
      <p className="step-look">
        {stage.byMm > 0
          ? 'More stands out than should: it is not pressed home now, or less was cut than said.'
          : 'Less stands out than should: it was not pressed home, or the cable was bent, when it was first measured.'}{' '}
        Lay the cable straight, press the liner home, measure again.
      </p>
      <div className="step-keys">
        <Key tone="chalk" onClick={() => set({ nowMm: null })}>
          Measure again
        </Key>
        <Key onClick={() => onJob({ ...job, trim: beginAnew(t) })}>This one is right: begin from it</Key>
      </div>
    </>
  )
}

function TooShort(props: StageProps & { stage: Extract<TrimStage, { is: 'tooShort' }> }) {
  const { stage, units, liner, onJob, job, t, onAnother } = props
  const spoiled = useSpoiled()
  const [key] = useState(newKey)
  const isCut = stage.wasCut || t.firstCutMm !== null
  return (
    <>
      <p className="step-do">{ruleLength(stage.byMm, units)} too short already: nothing is cut.</p>
      <p className="step-look">
        {props.at.step.gate === 'trimFeeder'
          ? 'It ends too far from the rolls: the wire buckles and nests in the gap.'
          : 'It ends before its seat: the wire hunts in the gap, catches there and nests.'}{' '}
        Is its nut home, the cable straight, the liner pressed in? Then measure again. If it stays so, this liner does
        not go in{isCut ? ': it was cut short' : ' this gun: it is too short for it'}.
      </p>
      <div className="step-keys">
        <Key
          tone="chalk"
          onClick={() =>
            onJob({ ...job, trim: isCut ? { ...t, nowMm: null } : { ...NOT_BEGUN, neededMm: t.neededMm } })
          }
        >
          Measure again
        </Key>
        <Key
          disabled={spoiled.isPending}
          onClick={() =>
            isCut
              ? spoiled.mutate({ key, stationId: liner.stationId, why: 'cutShort' }, { onSuccess: onAnother })
              : onAnother()
          }
        >
          {isCut ? 'Cut short: another liner' : 'Another, longer liner'}
        </Key>
      </div>
      <Trouble problem={spoiled.error} />
    </>
  )
}

/** The last look before it is closed: round, no burr; and its length, for next time. */
function Right({ liner, units, job, onJob, leftMm, wasCut, at }: StageProps & { leftMm: number; wasCut: boolean }) {
  const isFeeder = at.step.gate === 'trimFeeder'
  const cutMm = (job.trim.firstCutMm ?? 0) + (job.trim.secondCutMm ?? 0)
  const bought = liner.putLengthMm === null ? null : liner.putLengthMm - cutMm
  const whole = liner.by === 'C' ? leftMm : bought
  return (
    <>
      <p className="step-do">
        {wasCut ? 'Right.' : 'It fits as it is.'} {isFeeder ? '' : `${ruleLength(leftMm, units)} left.`} Is its end
        square and round, no burr, nothing sharp?
      </p>
      <Drawing of={isFeeder ? 'feederEnd' : 'linerEnd'} />
      <div className="step-keys is-gate">
        <Key tone="chalk" onClick={() => onJob(answered(job, liner.steps, { lengthMm: whole }))}>
          Square, no burr
        </Key>
      </div>
    </>
  )
}
