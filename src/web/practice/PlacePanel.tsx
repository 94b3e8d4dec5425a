import { useEffect, useRef, useState, type RefObject } from 'react'
import { type Index } from '@core/diagnose/belief.ts'
import { minutesOf, type Check } from '@core/diagnose/knowledge.ts'
import { CLOSE_MIN } from '@core/diagnose/moves.ts'
import { mannerOfFix, mannerOfLook, type Manner } from '@core/practice/manners.ts'
import { type DrillAct, type DrillState, type Scenario } from '@core/practice/drill.ts'
import { fixesAt, looksAt, PLACE_WORDS, type BoothPlace, type Offer } from '@core/practice/places.ts'
import { type Meter } from '@core/practice/meters.ts'
import { shuffled, makeRandom } from '@core/random/random.ts'
import { spanWords } from '@web/down/downwords.ts'
import { type Hazard } from '@core/guide/cautions.ts'
import { CautionLines } from '@web/guide/CautionLines.tsx'
import { DrawnAnswer } from '@web/guide/Drawing.tsx'
import { type Units } from '@web/format/numbers.ts'
import { capital } from '@web/format/words.ts'
import { Bare, Key } from '@web/kit/Keys.tsx'
import { type AskBooth } from './useBoothWorker.ts'
import { meterWords } from './practicewords.ts'

interface PanelProps {
  knowledge: Index
  scenario: Scenario
  state: DrillState
  place: BoothPlace
  units: Units
  ask: AskBooth
  onAct: (act: DrillAct) => void
}
/** How it is done is asked before it is. */
interface Asked {
  act: DrillAct & { key: string }
  manner: Manner
  hazards: readonly Hazard[]
}
const FEW = 5

/** Narrower than this, px, all of it stands in one column. */
const ONE_COLUMN = 900
/** On a phone it stands below the picture: it comes into sight by itself. */
function useIntoSight(top: RefObject<HTMLElement | null>): void {
  useEffect(() => {
    if (innerWidth < ONE_COLUMN) top.current?.scrollIntoView({ block: 'nearest' })
  }, [top])
}

/** One place of the booth: what can be looked at there and what it showed, and what can be done. */
export function PlacePanel(props: PanelProps) {
  const { knowledge, scenario, state, place, onAct } = props
  const [asked, setAsked] = useState<Asked | null>(null)
  const [isAll, setAll] = useState(false)
  const top = useRef<HTMLElement>(null)
  useIntoSight(top)
  const { complaint } = scenario
  const seen = new Map(state.steps.flatMap((s) => (s.act.do === 'look' && s.outcome ? [[s.act.key, s.outcome]] : [])))
  const looks = looksAt(knowledge, { place, complaint, done: new Set(seen.keys()) })
  const offers = fixesAt(knowledge, { place, complaint, setup: scenario.setup })
  const shown = isAll ? offers : offers.slice(0, Math.max(FEW, offers.filter((o) => o.isListed).length))
  const take = ({ manner, ...of }: Omit<Asked, 'manner'> & { manner: Manner | null }) =>
    manner ? setAsked({ manner, ...of }) : onAct(of.act)
  if (asked)
    return (
      <HowDone
        {...asked}
        seed={scenario.seed}
        onWay={(way) => {
          setAsked(null)
          onAct({ ...asked.act, way } as DrillAct)
        }}
        onLeave={() => setAsked(null)}
      />
    )
  return (
    <section ref={top} className="booth-panel" aria-label={PLACE_WORDS[place]}>
      <h2>{capital(PLACE_WORDS[place])}</h2>
      <div className="booth-looks" role="group" aria-label="Look">
        {looks.map((check) => (
          <Look
            key={check.key}
            {...props}
            check={check}
            outcome={seen.get(check.key)}
            onLook={() =>
              take({ act: { do: 'look', key: check.key }, manner: mannerOfLook(check), hazards: check.hazards })
            }
          />
        ))}
        {looks.length === 0 ? <p className="dim">Nothing to look at here with this.</p> : null}
      </div>
      <h3>Put right</h3>
      <div className="booth-fixes" role="group" aria-label="Put right">
        {shown.map((o) => (
          <Fix
            key={o.group.key}
            offer={o}
            state={state}
            onFix={() =>
              take({
                act: { do: 'fix', key: o.group.key },
                manner: mannerOfFix(o.group),
                hazards: o.cause.fix.hazards,
              })
            }
          />
        ))}
      </div>
      {shown.length < offers.length ? (
        <Bare onClick={() => setAll(true)}>{offers.length - shown.length} more</Bare>
      ) : null}
    </section>
  )
}

function Look(
  props: PanelProps & { check: Check; outcome: Check['outcomes'][number] | undefined; onLook: () => void },
) {
  const { check, outcome, onLook } = props
  const [meters, setMeters] = useState<readonly Meter[]>([])
  const isSeen = outcome !== undefined
  useEffect(() => {
    if (isSeen)
      void props.ask('meters', { scenario: props.scenario, left: props.state.left, check: check.key }).then(setMeters)
    // As it read when it was looked at.
  }, [isSeen])
  if (!outcome)
    return (
      <Key onClick={onLook}>
        {check.do} <small>{spanWords(minutesOf(check))}</small>
      </Key>
    )
  return (
    <div className={`booth-seen${outcome.points.length > 0 ? ' is-found' : ''}`} role="status">
      {check.drawing && outcome.panel !== undefined ? <DrawnAnswer of={check.drawing} panel={outcome.panel} /> : null}
      <p>
        <span className="dim">{check.do}</span>
        <br />
        <strong>{outcome.says}</strong>
        {meters.map((m) => (
          <span key={m.what} className="booth-meter">
            {capital(meterWords(m, props.units))}.
          </span>
        ))}
      </p>
    </div>
  )
}

function Fix({ offer, state, onFix }: { offer: Offer; state: DrillState; onFix: () => void }) {
  const { cause, group } = offer
  const times = state.steps.filter((s) => s.act.do === 'fix' && s.act.key === group.key).length
  return (
    <Key onClick={onFix}>
      {cause.fix.do}{' '}
      <small>
        {spanWords(group.minutes + CLOSE_MIN)}
        {cause.fix.act === 'changed' ? ', a part' : ''}
        {times > 0 ? ', done once' : ''}
      </small>
    </Key>
  )
}

/** How it is done: asked where doing it wrong has its own consequence. The right way does not always stand first. */
function HowDone(props: Asked & { seed: number; onWay: (way: string) => void; onLeave: () => void }) {
  const { manner, hazards, seed, onWay, onLeave } = props
  const top = useRef<HTMLElement>(null)
  useIntoSight(top)
  const ways = shuffled(manner.ways, makeRandom(seed + manner.key.length))
  return (
    <section ref={top} className="booth-panel" aria-label="How">
      <h2>{manner.asks}</h2>
      <CautionLines className="step-hazard" hazards={hazards} />
      <div className="booth-looks">
        {ways.map((w) => (
          <Key key={w.key} onClick={() => onWay(w.key)}>
            {w.says}
          </Key>
        ))}
      </div>
      <Bare onClick={onLeave}>leave it</Bare>
    </section>
  )
}
