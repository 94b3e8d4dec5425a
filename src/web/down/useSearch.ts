import { type EventId } from '@core/ids/id.ts'
import { useMemo, useState } from 'react'
import { fixKey } from '@core/diagnose/moves.ts'
import { type Closing } from '@core/ledger/event.ts'
import { type Cause, type Check, type Knowledge } from '@core/diagnose/knowledge.ts'
import { type DownAnswer } from '@contract/down.ts'
import { type Act } from '@contract/logbook.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { newKey } from '@web/api/client.ts'
import { useCorrect, useLog } from '@web/log/queries.ts'
import { actOf, outReasonOf, stillActs } from './downacts.ts'
import { beginDown, downStep, keepDown, keptDown, type DownEvent, type DownState } from './downstate.ts'
import { useExplain } from './queries.ts'
import { search } from './reckoned.ts'

/** A search at one gun: its state on the device, the reckoning after each answer, and what it sends. */
export function useSearch(gun: GunAnswer, down: DownAnswer, onDone: () => void) {
  const { stationId } = gun
  const [state, setState] = useState<DownState>(
    () =>
      keptDown(stationId, Date.now()) ??
      beginDown({ stationId, key: newKey(), startedMs: gun.downSinceMs ?? Date.now() }),
  )
  const { symptom, touched, said } = state
  const found = useMemo(() => search(down, gun, { symptom, touched, said }), [down, gun, symptom, touched, said])
  const keep = (next: DownState) => {
    // What was expected at first is kept with the first answer.
    const minutes = next.firstMin ?? (next.symptom === state.symptom ? found?.plan[0]?.expectedMin : undefined)
    const kept = minutes === undefined ? next : downStep(next, { type: 'expected', minutes })
    keepDown(kept, stationId)
    setState(kept)
  }
  const tell = (event: DownEvent) => keep(downStep(state, event))
  const causeOf = causeIn(down.knowledge)
  const sent = useSending({ gun, state, tell, keep, causeOf }, () => {
    keepDown(null, stationId)
    onDone()
  })
  return { state, tell, found, causeOf, isDown: gun.downSinceMs !== null, ...sent }
}

const causeIn =
  ({ causes }: Pick<Knowledge, 'causes'>) =>
  (key: string | null): Cause | null =>
    causes.find((c) => c.key === key) ?? null

interface SendAt {
  gun: GunAnswer
  state: DownState
  tell: (event: DownEvent) => void
  keep: (next: DownState) => void
  causeOf: ReturnType<typeof causeIn>
}
/** What a search sends on its way: parts tried, cleanings, that it runs, and what it was. */
function useSending(at: SendAt, onDone: () => void) {
  const { gun, state, tell, keep, causeOf } = at
  const { stationId } = gun
  const isDown = gun.downSinceMs !== null
  const log = useLog()
  const correct = useCorrect()
  const explain = useExplain()
  const send = (acts: Act[], then?: (eventId: EventId | null) => void) => {
    if (acts.length === 0) return then?.(null)
    log.mutate({ key: newKey(), acts }, { onSuccess: (answer) => then?.(answer?.logged[0]?.eventId ?? null) })
  }
  const answer = (check: Check, outcome: string) => {
    const next = answered(state, check, outcome)
    keep(next)
    if (!check.mends) return
    send([{ stationId, act: 'changed', position: check.mends, outReason: 'toTry' }], (eventId) => {
      if (eventId) keep(downStep(next, { type: 'tried', eventId }))
    })
  }
  const still = (cause: Cause | null) => {
    if (cause) send(stillActs(cause, stationId, isDown))
    tell({ type: 'stillThere', fix: cause ? fixKey(cause) : null })
  }
  const done = (of: Ended) => {
    const fixed = causeOf(state.fixing)
    if (state.tried && of.isCertain && causeOf(of.cause)?.fix.position === 'tip')
      correct.mutate({ key: newKey(), eventId: state.tried, outReason: outReasonOf(of.cause ?? '') })
    const runs: Act[] = isDown ? [{ stationId, act: 'running' }] : []
    send([...(fixed ? actOf(fixed, stationId, false) : []), ...runs], () =>
      explain.mutate(explanation(state, gun.downSinceMs, of), { onSuccess: onDone }),
    )
  }
  const problem = log.error ?? explain.error ?? correct.error
  return { send, answer, still, done, problem, isSending: log.isPending || explain.isPending }
}

/** An answer; where the check is a fix by itself and helped, the closing test comes next. */
function answered(state: DownState, check: Check, outcome: string): DownState {
  const said = downStep(state, { type: 'said', said: { type: 'check', key: check.key, outcome } })
  const isMended = check.mends !== undefined && outcome !== check.outcomes.at(-1)?.key
  return isMended ? downStep(said, { type: 'runs', fixing: null }) : said
}

interface Ended {
  cause: string | null
  isCertain: boolean
  closing: Closing
  scrapped: number | null
}
const explanation = (state: DownState, stopFromMs: number | null, of: Ended) => ({
  key: state.key,
  stationId: state.stationId,
  stopFromMs,
  symptom: state.symptom ?? '',
  touched: state.touched,
  said: [...state.said],
  by: state.known ? ('known' as const) : ('search' as const),
  ...of,
})
