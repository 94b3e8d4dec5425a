import { MIN_MS } from '@core/units/time.ts'
import { nextWindow, type Schedule, type Span } from './schedule.ts'

/** Time of a place that is spoken for: a class that welds there, or a stop that was planned. */
export interface Booked extends Span {
  is: 'class' | 'stop'
  /** The group's whose class it is; what a stop is called. */
  name: string
}
/** What makes the guns stand: a class that ends, one that has not begun, a stop that was planned. */
export interface WindowOf {
  is: 'classEnds' | 'classBegins' | 'stopBegins'
  name: string
}
export interface Window {
  /** What reaches its limit before that has no later time to be done in. */
  atMs: number
  /** Hands are wanted before that: the same, or the beginning of a class at whose end the guns stand again. */
  byMs: number
  isKnown: boolean
  /** Null: a break or the end of a shift. */
  of: WindowOf | null
}

/** With less left nobody can act before it ends. */
const SHORT_MS = 10 * MIN_MS

/**
 * When the guns of a place stand still next, by the shifts and by what the calendar holds for it. 1. In a class: at its end, or the break in it. 2. Before
 * one that begins within this stretch of work: hands are wanted before it begins, for all that comes due until it ends. 3. A planned stop: when it begins;
 * while it lasts, by the work after it. 4. Else as the shifts have it. What ends in less than ten minutes is passed over.
 * @example windowAt(null, [{ is: 'class', name: 'Reed', fromMs: 0, toMs: 90 * MIN_MS }], 30 * MIN_MS) // at its end
 */
export function windowAt(schedule: Schedule | null, booked: readonly Booked[], nowMs: number): Window {
  const stands = booked.find((b) => b.is === 'stop' && b.fromMs <= nowMs && nowMs < b.toMs)
  const fromMs = stands ? stands.toMs : nowMs
  const usual = nextWindow(schedule, fromMs)
  const base: Window = { ...usual, byMs: usual.atMs, of: null }
  return (
    [...booked]
      .sort((a, b) => a.fromMs - b.fromMs)
      .flatMap((b) => windowsOf(b, base, fromMs))
      .sort((a, b) => a.byMs - b.byMs)[0] ?? base
  )
}

/** What one booking makes of it; nothing where the shifts' own window comes first. */
function windowsOf(booked: Booked, base: Window, nowMs: number): Window[] {
  const { fromMs, toMs, name } = booked
  const isBeforeBase = (ms: number) => ms - nowMs >= SHORT_MS && (ms < base.atMs || !base.isKnown)
  if (booked.is === 'stop')
    return isBeforeBase(fromMs) ? [{ atMs: fromMs, byMs: fromMs, isKnown: true, of: { is: 'stopBegins', name } }] : []
  if (fromMs <= nowMs)
    return isBeforeBase(toMs) ? [{ atMs: toMs, byMs: toMs, isKnown: true, of: { is: 'classEnds', name } }] : []
  return isBeforeBase(fromMs) ? [{ atMs: toMs, byMs: fromMs, isKnown: true, of: { is: 'classBegins', name } }] : []
}
