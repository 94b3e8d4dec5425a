import { HOUR_MS } from '@core/units/time.ts'
import { type Act } from '@contract/logbook.ts'
import { type OutReason, type Position } from '@core/path/columns.ts'

/**
 * The two-tap log.
 *
 *   choosing ──tap an act that asks why──> asking ──reason | 8 s | tap elsewhere──> send, choosing
 *   choosing ──tap any other act──> send, choosing
 *   asking ──back──> choosing (nothing is logged)
 *
 * 1. Only "changed" and "removed" ask why; never a third question.
 * 2. Untouched for eight seconds is "not said"; ×2 and "earlier today" start the eight seconds again.
 * 3. One act is sent once: asking is left in the same step that sends.
 */
export const UNTOUCHED_MS = 8000
export interface Choice {
  act: Act['act']
  position: Position | null
}
export type LogState =
  { step: 'choosing' } | { step: 'asking'; choice: Choice; sinceMs: number; count: number; isEarlier: boolean }
export type LogEvent =
  | { type: 'chose'; choice: Choice }
  | { type: 'reason'; reason: OutReason }
  | { type: 'times'; count: number }
  | { type: 'earlier' }
  | { type: 'back' }
  | { type: 'tick' }
export interface Sending {
  choice: Choice
  reason: OutReason
  count: number
  isEarlier: boolean
}
export interface Step {
  state: LogState
  send: Sending | null
}

const CHOOSING: LogState = { step: 'choosing' }
const asksWhy = (choice: Choice) => choice.act === 'changed' || choice.act === 'removed'

export function logStep(state: LogState, event: LogEvent, nowMs: number): Step {
  if (event.type === 'chose') {
    if (asksWhy(event.choice))
      return { state: { step: 'asking', choice: event.choice, sinceMs: nowMs, count: 1, isEarlier: false }, send: null }
    return { state: CHOOSING, send: { choice: event.choice, reason: 'notSaid', count: 1, isEarlier: false } }
  }
  if (state.step !== 'asking') return { state, send: null }
  const say = (reason: OutReason): Step => ({
    state: CHOOSING,
    send: { choice: state.choice, reason, count: state.count, isEarlier: state.isEarlier },
  })
  switch (event.type) {
    case 'reason':
      return say(event.reason)
    case 'tick':
      return nowMs - state.sinceMs >= UNTOUCHED_MS ? say('notSaid') : { state, send: null }
    case 'times':
      return { state: { ...state, count: state.count === event.count ? 1 : event.count, sinceMs: nowMs }, send: null }
    case 'earlier':
      return { state: { ...state, isEarlier: !state.isEarlier, sinceMs: nowMs }, send: null }
    case 'back':
      return { state: CHOOSING, send: null }
  }
}

/** "Earlier today": known to the shift at best, so it carries that width; two hours back is as good a guess as any. */
const EARLIER_MS = 2 * HOUR_MS

export function actOf(stationId: string, sending: Sending, nowMs: number): Act {
  const { choice, reason, count, isEarlier } = sending
  return {
    stationId,
    act: choice.act,
    ...(choice.position ? { position: choice.position } : {}),
    outReason: reason,
    count,
    ...(isEarlier ? { happenedMs: nowMs - EARLIER_MS, precision: 'shift' as const } : {}),
  }
}
