import { type EventId } from '@core/ids/id.ts'
import { useEffect, useMemo, useState } from 'react'
import { actKey, fixKey, stepKey } from '@core/diagnose/moves.ts'
import { type OutReason } from '@core/path/columns.ts'
import { type Planned } from '@core/diagnose/plan.ts'
import { type Said } from '@core/diagnose/session.ts'
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
import { search, type Search } from './reckoned.ts'

/** A search at one gun: its state on the device, the reckoning after each answer, and what it sends. */
export function useSearch(gun: GunAnswer, down: DownAnswer, onDone: () => void) {
  const { stationId } = gun
  const [state, setState] = useState<DownState>(
    () =>
      keptDown(stationId, Date.now()) ??
      beginDown({ stationId, key: newKey(), startedMs: gun.downSinceMs ?? Date.now() }),
  )
  const { symptom, touched, said, startedMs } = state
  const reckoned = useMemo(
    () => search(down, gun, { symptom, touched, said, startedMs }),
    [down, gun, symptom, touched, said, startedMs],
  )
  const found = useHeld(reckoned, JSON.stringify([symptom, touched, said]))
  const first = found?.plan[0]?.expectedMin
  // Always from the state as it is then: an answer of the server comes when others were given meanwhile, and none of them is lost.
  const tell = (event: DownEvent) =>
    setState((now) => {
      const next = downStep(now, event)
      // What was expected at first is kept with the first answer.
      const isSame = first !== undefined && next.symptom === now.symptom && next.symptom === symptom
      const kept = isSame ? downStep(next, { type: 'expected', minutes: first }) : next
      keepDown(kept, stationId)
      return kept
    })
  const causeOf = causeIn(down.knowledge)
  const sent = useSending({ gun, state, tell, causeOf, found }, () => {
    keepDown(null, stationId)
    onDone()
  })
  return { state, tell, found, causeOf, isDown: gun.downSinceMs !== null, ...sent }
}

/**
 * What stands on the screen stays until it is answered: what arrives meanwhile (the part that was just logged, a neighbour's stop) waits for the next
 * step, or keys would change under the hand. A step that cannot be had any more gives way.
 */
function useHeld(found: Search | null, of: string): Search | null {
  const [held, setHeld] = useState<{ of: string; step: string } | null>(null)
  const plan = found?.plan ?? []
  const shown = held?.of === of ? plan.find((p) => stepKey(p.step) === held.step) : undefined
  const first = shown ?? plan[0]
  const step = first ? stepKey(first.step) : null
  if (step !== null && (held?.of !== of || held.step !== step)) setHeld({ of, step })
  return useMemo(
    () => found && { ...found, plan: [...found.plan].sort((a, b) => isThis(b, step) - isThis(a, step)) },
    [found, step],
  )
}
const isThis = ({ step }: Planned, key: string | null) => Number(stepKey(step) === key)

const causeIn =
  ({ causes }: Pick<Knowledge, 'causes'>) =>
  (key: string | null): Cause | null =>
    causes.find((c) => c.key === key) ?? null

interface SendAt {
  gun: GunAnswer
  state: DownState
  tell: (event: DownEvent) => void
  found: Search | null
  causeOf: ReturnType<typeof causeIn>
}
/** Acts on their way; each answer finds its own way back, also when another was sent meanwhile. */
function useSend() {
  const log = useLog()
  const send = (acts: Act[], then?: (eventId: EventId | null) => void, key: string = newKey()) => {
    if (acts.length === 0) return then?.(null)
    log.mutateAsync({ key, acts }).then(
      (answer) => then?.(answer?.logged[0]?.eventId ?? null),
      () => undefined,
    )
  }
  return { send, log }
}
/**
 * What is seen counts for the neighbours while it is looked into, and a photo has a line to hang on: told once the stop stands, whichever of the two a
 * quick hand tapped first. Told again it is the same word.
 */
function useSeen({ gun, state, tell }: Pick<SendAt, 'gun' | 'state' | 'tell'>) {
  const { mutate } = useExplain()
  const { symptom, seen, key } = state
  const { stationId, downSinceMs } = gun
  const [told, setTold] = useState<string | null>(null)
  const word = symptom !== null && seen === null && downSinceMs !== null ? `${key}.seen.${symptom}` : null
  useEffect(() => {
    if (word === null || word === told || symptom === null) return
    setTold(word)
    mutate(
      { ...unexplained, key: word, stationId, stopFromMs: downSinceMs, symptom },
      { onSuccess: (kept) => (kept ? tell({ type: 'seen', eventId: kept.eventId }) : undefined) },
    )
  }, [word, told, symptom, stationId, downSinceMs, mutate, tell])
}
/** What a search sends on its way: parts tried, cleanings, that it runs, and what it was. */
function useSending(at: SendAt, onDone: () => void) {
  const { gun, state, tell, causeOf, found } = at
  const { stationId } = gun
  const isDown = gun.downSinceMs !== null
  const { send, log } = useSend()
  useSeen(at)
  const see = (symptom: string) => tell({ type: 'symptom', symptom })
  const correct = useCorrect()
  const explain = useExplain()
  const answer = (check: Check, outcome: string) => {
    tell({ type: 'said', said: { type: 'check', key: check.key, outcome } })
    // Where the look is a fix by itself and helped, the closing test comes next.
    if (isMended(check, outcome)) tell({ type: 'runs', fixing: null })
    if (!check.mends) return
    const tried = (eventId: EventId | null) => (eventId ? tell({ type: 'tried', eventId }) : undefined)
    // "To try" until it is known why it came out: any other word would end the stop. Taken back and answered again it is the same part.
    const act = { stationId, act: 'changed' as const, position: check.mends, outReason: 'toTry' as const }
    send([act], tried, `${state.key}.${check.key}`)
  }
  const still = (cause: Cause | null) => {
    if (cause) send(stillActs(cause, stationId, isDown))
    tell({ type: 'stillThere', fix: cause ? fixKey(cause) : mendedBy(found, state.said) })
  }
  const done = (of: Ended) => {
    const fixed = causeOf(state.fixing)
    const outReason =
      triedReason(found, state.said) ?? (isOfTip(causeOf(of.cause), of) ? outReasonOf(of.cause ?? '') : null)
    if (state.tried && outReason) correct.mutate({ key: newKey(), eventId: state.tried, outReason })
    const runs: Act[] = isDown ? [{ stationId, act: 'running' }] : []
    send([...(fixed ? actOf(fixed, stationId, false) : []), ...runs], () =>
      explain.mutate(explanation(state, gun.downSinceMs, of), { onSuccess: onDone }),
    )
  }
  const problem = log.error ?? explain.error ?? correct.error
  return { send, answer, see, still, done, problem, isSending: log.isPending || explain.isPending }
}

const isMended = (check: Check, outcome: string) => check.mends !== undefined && outcome !== check.outcomes.at(-1)?.key
/** The fix that the last look was by itself, where it helped as it seemed. */
function mendedBy(found: Search | null, said: readonly Said[]): string | null {
  const last = said.at(-1)
  const check = last?.type === 'check' ? found?.index.checkOf.get(last.key) : undefined
  return check?.mends && last?.type === 'check' && isMended(check, last.outcome) ? actKey('changed', check.mends) : null
}

/** Why the part came out that a look took off whatever it showed. */
const triedReason = (found: Search | null, said: readonly Said[]): OutReason | null =>
  said.flatMap((s) => (s.type === 'check' ? (found?.index.checkOf.get(s.key)?.outReason ?? []) : []))[0] ?? null
const isOfTip = (cause: Cause | null, { isCertain }: Ended) => isCertain && cause?.fix.position === 'tip'

interface Ended {
  cause: string | null
  isCertain: boolean
  closing: Closing
  scrapped: number | null
}
const unexplained = {
  ...{ touched: null, said: [], cause: null, isCertain: false, scrapped: null },
  ...{ by: 'seen' as const, closing: 'notTested' as const },
} satisfies Partial<Parameters<ReturnType<typeof useExplain>['mutate']>[0]>
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
