import { TracePicture } from './Trace.tsx'
import { AtCell } from '@web/kit/atcell.ts'
import { Key } from '@web/kit/Keys.tsx'
import { columnOf } from '@core/path/kinds.ts'
import { placeName } from '@web/format/words.ts'
import { useEffect, useState } from 'react'
import { useNavigate } from 'react-router'
import { chancesOf } from '@core/diagnose/belief.ts'
import { fixKey, type FixGroup } from '@core/diagnose/moves.ts'
import { signsFor } from '@core/diagnose/ratio.ts'
import { cleanOrChange, type CleanOrChange } from '@core/diagnose/cleanorchange.ts'
import { fixMinutes, minutesOf, type Cause, type Check } from '@core/diagnose/knowledge.ts'
import { isSwapOffered } from '@core/diagnose/swap.ts'
import { type PathPlace } from '@core/path/columns.ts'
import { type DownAnswer } from '@contract/down.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { GunBeside } from '@web/logbook/GunBeside.tsx'
import { useMe } from '@web/people/queries.ts'
import { useSwap } from '@web/gunnow/queries.ts'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { ago } from '@web/format/times.ts'
import { minutes, type Units } from '@web/format/numbers.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { Beads } from './Beads.tsx'
import { Closing } from './Closing.tsx'
import { type ReliedCheck } from '@core/diagnose/relied.ts'
import {
  becauseSentence,
  estimateWords,
  knownSentence,
  linerApartWords,
  linerRuleWords,
  orderWords,
  spanWords,
} from './downwords.ts'
import { KnownAlready } from './Known.tsx'
import { LastPage } from './LastPage.tsx'
import { Photos } from '@web/photo/Photos.tsx'
import { PickKnown, PickSymptom, PickTouched } from './Picks.tsx'
import { beadsOf, touchedBefore } from './reckoned.ts'
import { SeenAsWell } from './SeenAsWell.tsx'
import { AlreadyTried } from './Tried.tsx'
import { Beside } from './Beside.tsx'
import { CheckView, FixView } from './Steps.tsx'
import { useSearch } from './useSearch.ts'

type Found = NonNullable<ReturnType<typeof useSearch>['found']>
interface At {
  gun: GunAnswer
  down: DownAnswer
  search: ReturnType<typeof useSearch>
}

/** What first, at one gun: one look a screen, or what somebody knows; a closing test at the end. */
export function DownSearch({ gun, down }: { gun: GunAnswer; down: DownAnswer }) {
  const go = useNavigate()
  const search = useSearch(gun, down, () => go(`/gun/${gun.stationId}`))
  const [place, setPlace] = useState<PathPlace | null>(null)
  const isPhone = useIsPhone()
  const units = useMe().data?.units ?? 'metric'
  const { state, tell, found } = search
  const first = found?.plan[0]?.expectedMin
  const seen = down.knowledge.symptoms.find((s) => s.key === state.symptom)
  const needsTouched = seen !== undefined && touchedBefore(seen, gun, state) === null
  const [isTelling, setTelling] = useState(false)
  // Each step begins at its head, wherever the last one was scrolled to.
  const at = [state.symptom, state.touched, state.known, state.isClosing, state.said.length, isTelling, place].join()
  useEffect(() => void window.scrollTo(0, 0), [at])
  return (
    <AtCell value={down.isCell}>
      <main className={isPhone ? 'step-walk walk-mode down' : 'down is-desk'}>
        <Head gun={gun} search={search} leftMin={first ?? null} />
        {found && !needsTouched && !state.isClosing ? (
          <Beads beads={beadsOf(found)} isNarrow={isPhone} onPick={(column) => setPlace(column)} />
        ) : null}
        <div className="down-body">
          <section className="down-now">
            {state.symptom === null || !found ? (
              <PickSymptom
                symptoms={down.knowledge.symptoms.filter((s) => down.isCell || s.only !== 'cell')}
                onPick={search.see}
              />
            ) : needsTouched ? (
              <PickTouched onPick={(touched) => tell({ type: 'touched', touched })} />
            ) : place ? (
              <PickKnown
                place={placeName(place)}
                causes={chancesOf(found.reckoned.belief)
                  .filter((c) => columnOf(c.cause.at) === place)
                  .slice(0, 8)
                  .map((c) => c.cause)}
                onPick={(cause) => {
                  setPlace(null)
                  tell({ type: 'known', cause })
                }}
                onBack={() => setPlace(null)}
              />
            ) : state.isClosing ? (
              <AtClosing gun={gun} down={down} search={search} found={found} />
            ) : isTelling ? (
              <KnownAlready
                found={found}
                said={state.said}
                onSaid={(said) => tell({ type: 'said', said })}
                onBack={() => setTelling(false)}
              />
            ) : (
              <Now gun={gun} down={down} search={search} found={found} onTelling={() => setTelling(true)} />
            )}
            {state.symptom === null ? (
              <TracePicture stationId={gun.stationId} isDown={gun.downSinceMs !== null} units={units} />
            ) : null}
            {state.seen ? (
              <Photos of={{ type: 'event', key: state.seen }} word="photo of it" clipWord="clip of it" />
            ) : null}
            <Trouble problem={search.problem} />
          </section>
          {isPhone ? null : (
            <div className="down-beside">
              {found && !needsTouched ? <Beside down={down} found={found} said={state.said} /> : null}
              <GunBeside gun={gun} units={units} />
            </div>
          )}
        </div>
        <Foot search={search} isStep={found !== null && !needsTouched && !isTelling} isPhone={isPhone} />
      </main>
    </AtCell>
  )
}

function Head({ gun, search, leftMin }: { gun: GunAnswer; search: At['search']; leftMin: number | null }) {
  const { isDown, send, isSending } = search
  return (
    <header className="down-head">
      <h1>
        {gun.name}
        {isDown ? ' down' : ''}
      </h1>
      {isDown ? (
        <p>
          <strong>{gun.downMinutes === null ? ago(gun.downSinceMs ?? 0, gun.nowMs) : minutes(gun.downMinutes)}</strong>
          <br />
          <span className="dim">{leftMin === null ? '' : estimateWords(leftMin)}</span>
        </p>
      ) : (
        <Key size="low" disabled={isSending} onClick={() => send([{ stationId: gun.stationId, act: 'down' }])}>
          It’s down: let minutes run
        </Key>
      )}
    </header>
  )
}

/** The step there is now: a fix somebody named, a check, a fix; a ready gun where that is quicker. */
function Now({ gun, down, search, found, onTelling }: At & { found: Found; onTelling: () => void }) {
  const { state, answer, still, tell, causeOf } = search
  const known = causeOf(state.known)
  const next = found.plan[0]?.step ?? null
  const cause = known ?? (next?.kind === 'fix' ? next.cause : null)
  const units = useMe().data?.units ?? 'metric'
  const ruled = known ? '' : linerRuleWords(found.liner)
  if (cause) {
    const group = found.plan.find((p) => p.step.kind === 'fix' && p.step.group.key === fixKey(cause))?.step
    return (
      <>
        <FixView
          cause={cause}
          stationId={gun.stationId}
          minutes={fixMinutes(cause)}
          because={[ruled, group ? becauseSentence(group, found.reckoned, found.hints) : ''].filter(Boolean).join(' ')}
          isAgain={(found.reckoned.fixedTimes.get(fixKey(cause)) ?? 0) > 0}
          found={foundHere(cause, { gun, found, units })}
          onNotSo={() => tell({ type: 'said', said: { type: 'notSo', key: cause.key } })}
          choice={choiceOf(cause, { gun, down, found, isKnown: known !== null })}
          isOneSign={!known && found.liner.did === null && group?.kind === 'fix' && isDearOneSign(found, group.group)}
          onRuns={() => tell({ type: 'runs', fixing: cause.key })}
          onStill={() => still(cause)}
        />
        <ReadyGun gun={gun} down={down} search={search} found={found} />
      </>
    )
  }
  if (next?.kind !== 'check')
    return (
      <>
        <LastPage found={found} said={state.said} onKnown={(c) => tell({ type: 'known', cause: c.key })} />
        <ReadyGun gun={gun} down={down} search={search} found={found} />
      </>
    )
  const { check } = next
  // What has to be done before all else is no time for questions.
  const isOpening = found.index.symptoms.find((s) => s.key === state.symptom)?.first === check.key
  return (
    <>
      <CheckView
        key={check.key}
        check={check}
        minutes={minutesOf(check)}
        because={[ruled, becauseSentence(next, found.reckoned, found.hints)].filter(Boolean).join(' ')}
        isProof={found.reckoned.proof === check.key}
        isTraining={down.isTraining}
        stationId={gun.stationId}
        forced={forcedWords(check, down)}
        onAnswer={(outcome) => answer(check, outcome)}
      />
      {isOpening ? null : (
        <div className="down-tried">
          <Key size="low" onClick={onTelling}>
            Some of it is known already
          </Key>
        </div>
      )}
      {isOpening ? null : (
        <SeenAsWell
          found={found}
          said={state.said}
          isCell={down.isCell}
          onSaid={(said) => tell({ type: 'said', said })}
        />
      )}
      {isOpening ? null : (
        <AlreadyTried
          index={found.index}
          symptom={state.symptom ?? ''}
          said={state.said}
          onTried={(said) => tell({ type: 'said', said })}
        />
      )}
      {linerApartWords(found.liner) ? <p className="dim">{linerApartWords(found.liner)}</p> : null}
      <ReadyGun gun={gun} down={down} search={search} found={found} />
    </>
  )
}
/** What was written of this gun before it stopped and is just this; null: nothing was. */
function foundHere(cause: Cause, { gun, found, units }: { gun: GunAnswer; found: Found; units: Units }): string | null {
  const i = found.index.causeAt.get(cause.key) ?? -1
  if (!found.reckoned.known.includes(i)) return null
  const hint = found.hints.find((h) => h.isKnown && h.cause === cause.key)
  return hint ? knownSentence(hint.because, gun, units) : null
}
/** What a thread costs that is forced: both parts are scrap. */
function forcedWords(check: Check, down: DownAnswer): string | null {
  const stop: ReliedCheck = 'tipRuns'
  const [tip, diffuser] = [down.priceMin['tip'], down.priceMin['diffuser']]
  if (check.key !== stop || tip === undefined || diffuser === undefined) return null
  return `Forced, both are scrap: a tip costs ${spanWords(tip)} of standing, a diffuser ${spanWords(diffuser)}.`
}

/** Clean first, or a new one on: by the shelf, what was seen, the house rule, minutes and price. */
function choiceOf(
  cause: Cause,
  { gun, down, found, isKnown }: Pick<At, 'gun' | 'down'> & { found: Found; isKnown: boolean },
): CleanOrChange | null {
  const { belief, signs } = found.reckoned
  const { position } = cause.fix
  const spoke = signs.get(found.index.causeAt.get(cause.key) ?? -1)
  return cleanOrChange(belief, {
    cause,
    isSeen: isKnown || spoke?.has('look') === true || spoke?.has('swap') === true,
    onHand: gun.positions.find((p) => p.kindKey === position)?.onHand ?? null,
    priceMin: down.priceMin[position ?? ''] ?? null,
    school: down.schools.clean,
  })
}
const isDearOneSign = (found: Found, group: FixGroup) => {
  return group.minutes > 10 && signsFor(found.reckoned, group).size < 2
}

/** Another gun: where what is left takes longer than hanging it, or the search took twice what it should. */
function ReadyGun({ gun, down, search, found }: At & { found: Found }) {
  const swap = useSwap()
  const { state, tell } = search
  const spare = down.spare
  const left = found.plan[0]?.expectedMin ?? 0
  // By the server's clock, in scheduled time where that is counted: a device's own may be off.
  const stoodMin = gun.downMinutes ?? (gun.downSinceMs === null ? 0 : (gun.nowMs - gun.downSinceMs) / 60_000)
  const { firstMin } = state
  const school = down.schools.swap
  if (!spare || !isSwapOffered({ school, leftMin: left, stoodMin, firstMin, worthOverMin: spare.worthOverMin }))
    return null
  return (
    <>
      <Key
        size="low"
        disabled={swap.isPending}
        onClick={() =>
          swap.mutate(
            { stationId: gun.stationId, gunId: spare.gunId, oldGun: 'toRefurbish' },
            { onSuccess: () => tell({ type: 'runs', fixing: null }) },
          )
        }
      >
        Or put {spare.name} on{spare.otherFamily ? `, a ${spare.otherFamily}` : ''}: {minutes(spare.minutes)}, this gun
        to the bench
      </Key>
      <Trouble problem={swap.error} />
    </>
  )
}

function AtClosing({ search, found }: At & { found: Found }) {
  const { state, causeOf } = search
  const chances = chancesOf(found.reckoned.belief)
  const fixing = causeOf(state.fixing)
  const rest = chances.filter((c) => c.cause.key !== fixing?.key).map((c) => c.cause)
  const likely = fixing?.key ?? chances[0]?.cause.key ?? null
  return (
    <Closing
      causes={[...(fixing ? [fixing] : []), ...rest].slice(0, 4)}
      likely={likely}
      isSending={search.isSending}
      onStill={() => search.still(fixing)}
      onDone={search.done}
    />
  )
}

function Foot({ search, isStep, isPhone }: { search: At['search']; isStep: boolean; isPhone: boolean }) {
  const { state, tell, found } = search
  const go = useNavigate()
  const next = found?.plan[0]?.step
  if (state.isClosing)
    return (
      <footer className="down-foot is-closing">
        <Key size="low" onClick={() => tell({ type: 'back' })}>
          take back
        </Key>
      </footer>
    )
  const isAsking = state.known === null && next?.kind === 'check'
  const isAsked = state.symptom !== null
  const leave = (
    <Key
      {...(isStep ? {} : { size: 'low' as const })}
      onClick={() => (state.symptom === null ? go(`/gun/${state.stationId}`) : tell({ type: 'back' }))}
    >
      {state.symptom === null ? 'leave' : 'take back'}
    </Key>
  )
  if (!isStep) return <footer className="down-foot is-closing">{leave}</footer>
  return (
    <footer className="down-foot">
      <Key
        disabled={!isAsking}
        onClick={() =>
          next?.kind === 'check' ? tell({ type: 'said', said: { type: 'cantTell', key: next.check.key } }) : undefined
        }
      >
        can’t tell
      </Key>
      {leave}
      <Key
        {...(isAsked && isAsking ? { tone: 'chalk' as const } : {})}
        disabled={!isAsked}
        onClick={() => tell({ type: 'runs', fixing: null })}
      >
        running
      </Key>
      {found && !isPhone ? <p className="dim">{orderWords(found.own)}</p> : null}
    </footer>
  )
}
