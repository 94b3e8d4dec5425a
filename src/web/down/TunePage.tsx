import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { isMinuteAsked, minuteChecks, type TuneGuard } from '@core/diagnose/tune.ts'
import { hintsOf } from '@core/diagnose/hints.ts'
import { reckon, type Hint, type Reckoned, type Said } from '@core/diagnose/session.ts'
import { type Check, type Knowledge, type Symptom } from '@core/diagnose/knowledge.ts'
import { type DownAnswer } from '@contract/down.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type TuneAnswer } from '@contract/tune.ts'
import { newKey } from '@web/api/client.ts'
import { useGun } from '@web/gunnow/queries.ts'
import { useMe } from '@web/people/queries.ts'
import { WhichGun } from '@web/places/WhichGun.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'
import { capital } from '@web/format/words.ts'
import { beginDown, downStep, keepDown } from './downstate.ts'
import { useDown, useTune } from './queries.ts'
import { gunState, indexed, touchedByLog } from './reckoned.ts'
import { MinuteFirst } from './MinuteFirst.tsx'
import { Trials, type LoggedTrial } from './Trials.tsx'

/** A setting is changed one value at a time; where the equipment may be behind what is seen, after one minute on it. */
export function TunePage() {
  const [params] = useSearchParams()
  const stationId = params.get('gun') ?? ''
  const gun = useGun(stationId)
  const down = useDown(stationId)
  const tune = useTune(stationId)
  if (stationId === '') return <WhichGun />
  if (!gun.data || !down.data || !tune.data)
    return (
      <main className="walk" aria-busy={gun.isPending || down.isPending || tune.isPending}>
        <Waiting says="Reading the gun" problem={gun.error ?? down.error ?? tune.error} />
      </main>
    )
  return <Tune key={stationId} gun={gun.data} down={down.data} tune={tune.data} />
}

/** Null: nothing is wrong, it is only set up. Undefined: not asked yet. */
type Seen = string | null | undefined

function Tune({ gun, down, tune }: { gun: GunAnswer; down: DownAnswer; tune: TuneAnswer }) {
  const units = useMe().data?.units ?? 'metric'
  const [seen, setSeen] = useState<Seen>(tune.trials.length > 0 ? null : undefined)
  const [said, setSaid] = useState<readonly Said[]>([])
  const [isLeftOut, setLeftOut] = useState(false)
  const [trials, setTrials] = useState<readonly LoggedTrial[]>(tune.trials)
  const go = useNavigate()
  const at = reckonedAt(gun, down, { seen, said })
  const checks = at?.isAsked && !isLeftOut ? at.checks.filter((c) => !said.some((s) => s.key === c.key)) : []
  const found = at ? foundBad(at.checks, said) : null
  const guard: TuneGuard = !at?.isAsked ? 'notAsked' : isLeftOut ? 'leftOut' : 'clear'
  const search = () => {
    const begun = beginDown({ stationId: gun.stationId, key: newKey(), startedMs: gun.downSinceMs ?? Date.now() })
    keepDown(downStep(downStep(begun, { type: 'symptom', symptom: seen ?? '' }), { type: 'said', said }), gun.stationId)
    void go(`/down?gun=${gun.stationId}`)
  }
  return (
    <main className="walk tune">
      <header className="down-head">
        <h1>{gun.name}: set it, one value at a time</h1>
      </header>
      {seen === undefined ? (
        <WhatIsSeen symptoms={tunedSymptoms(down.knowledge)} onPick={setSeen} />
      ) : at && found !== null && !isLeftOut ? (
        <MinuteFirst.Found check={found} onSearch={search} onLeaveOut={() => setLeftOut(true)} said={said} />
      ) : checks[0] ? (
        <MinuteFirst.Look
          check={checks[0]}
          hints={at?.hints ?? []}
          left={checks.length}
          onAnswer={(outcome) => setSaid([...said, { type: 'check', key: checks[0]?.key ?? '', outcome }])}
          onLeaveOut={() => setLeftOut(true)}
        />
      ) : (
        <Trials
          gun={gun}
          tune={tune}
          units={units}
          symptom={seen}
          guard={guard}
          trials={trials}
          onTrial={(trial) => setTrials([...trials, trial])}
          onBack={() => setTrials(trials.slice(0, -1))}
          onDone={() => void go(`/gun/${gun.stationId}`)}
        />
      )}
    </main>
  )
}

/** What is seen that a setting may cause: by the knowledge's own fixes. */
function tunedSymptoms({ symptoms, causes }: Knowledge): Symptom[] {
  const tuned = new Set(causes.filter((c) => c.fix.isTuned).map((c) => c.key))
  return symptoms.filter((s) => s.causes.some((c) => tuned.has(c)))
}

interface Looked extends Reckoned {
  checks: Check[]
  hints: Hint[]
  /** The equipment may be behind it: the minute is asked for. */
  isAsked: boolean
}
function reckonedAt(gun: GunAnswer, down: DownAnswer, of: { seen: Seen; said: readonly Said[] }): Looked | null {
  if (!of.seen) return null
  const index = indexed(down.knowledge)
  const hints = hintsOf(gunState(gun, down, touchedByLog(gun, gun.nowMs)), index)
  const begin = reckon(index, { symptom: of.seen, said: [] }, { hints })
  const isAsked = isMinuteAsked(begin, { hints, blame: down.schools.blame, isDown: gun.downSinceMs !== null })
  return { ...begin, checks: minuteChecks(begin), hints, isAsked }
}

/** The look that showed something, if one did. */
function foundBad(checks: readonly Check[], said: readonly Said[]): Check | null {
  const last = said.at(-1)
  if (last?.type !== 'check') return null
  const check = checks.find((c) => c.key === last.key)
  return check && check.outcomes.at(-1)?.key !== last.outcome ? check : null
}

function WhatIsSeen({ symptoms, onPick }: { symptoms: readonly Symptom[]; onPick: (seen: string | null) => void }) {
  return (
    <>
      <p className="step-do">What is seen?</p>
      <div className="down-list">
        {symptoms.map((s) => (
          <Key key={s.key} onClick={() => onPick(s.key)}>
            {capital(s.says)}
          </Key>
        ))}
        <Key onClick={() => onPick(null)}>Nothing wrong: it is only set up</Key>
      </div>
    </>
  )
}
