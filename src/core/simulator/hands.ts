import { type KindKey, type OutReason, type Position } from '@core/path/columns.ts'
import { HOUR_MS, MIN_MS } from '@core/units/time.ts'
import { pick } from '@core/random/random.ts'

/**
 * The people of a made-up shop, as they would act on what they see: they do what is due when they get to it, forget to log some of it, burn a tip now and
 * then, stop a gun and get it going again, look a gun over, hang a new spool. Each rate is so many times an hour of work; a made-up person knows nothing
 * that the page does not say.
 */
export interface SeenGun {
  stationId: string
  /** Somebody works there now. */
  isAtWork: boolean
  isDown: boolean
  wants: readonly { position: Position; act: 'change' | 'clean' | 'look' }[]
  positions: readonly KindKey[]
}
export interface PlayedAct {
  stationId: string
  act: 'changed' | 'cleaned' | 'seen' | 'newSpool' | 'down' | 'running'
  position?: Position
  outReason?: OutReason
}
export interface HandsState {
  playedMs: number
  /** What was done and not logged, or found on the first day, by gun and part: nobody thinks of it before then. */
  forgotten: Record<string, number>
}
export const HANDS = {
  /** Of what is due: done after an hour and a half, on average. */
  doDue: 0.65,
  /** Of ten changes two are not written down. */
  forget: 0.2,
  forgottenH: 7,
  burnBack: 0.012,
  stop: 0.006,
  /** A stop takes twenty minutes, on average. */
  mend: 3,
  lookOver: 0.05,
  newSpool: 0.07,
} as const
/** A shop that was off is not made up for: nobody worked there. */
const MOST_AT_ONCE_MS = 10 * MIN_MS
const STOPS_AT: readonly KindKey[] = ['liner', 'tip', 'rolls', 'tip']
const WORN: readonly OutReason[] = ['worn', 'worn', 'worn', 'due', 'burnedBack']

/** The first day is whoever looks at the demo's: what they find due or standing is left to them so long. */
const LEFT_H = 24
const DOWN = 'down'
/** People who have just come: what is there already they leave as it is for a day. */
export function arrive(guns: readonly SeenGun[], nowMs: number): HandsState {
  const leaveMs = nowMs + LEFT_H * HOUR_MS
  const found = guns.flatMap((gun) => [
    ...(gun.isDown ? [`${gun.stationId} ${DOWN}`] : []),
    ...gun.wants.map((w) => `${gun.stationId} ${w.position}`),
  ])
  return { playedMs: nowMs, forgotten: Object.fromEntries(found.map((key) => [key, leaveMs])) }
}

/** What they do between the last time and now, gun by gun; at most one thing a gun. */
export function playHands(
  state: HandsState,
  guns: readonly SeenGun[],
  at: { nowMs: number; random: () => number },
): { state: HandsState; acts: PlayedAct[] } {
  const { nowMs, random } = at
  const hours = Math.min(MOST_AT_ONCE_MS, Math.max(0, nowMs - state.playedMs)) / HOUR_MS
  const happens = (perHour: number) => random() < 1 - Math.exp(-perHour * hours)
  const forgotten = Object.fromEntries(Object.entries(state.forgotten).filter(([, untilMs]) => untilMs > nowMs))
  const acts = guns
    .filter((gun) => gun.isAtWork)
    .flatMap((gun): PlayedAct[] => {
      const { stationId } = gun
      const says = (act: Omit<PlayedAct, 'stationId'>): PlayedAct[] => [{ stationId, ...act }]
      if (`${stationId} ${DOWN}` in forgotten) return []
      if (gun.isDown) return happens(HANDS.mend) ? says({ act: 'running' }) : []
      for (const want of gun.wants) {
        const key = `${stationId} ${want.position}`
        if (key in forgotten || !happens(HANDS.doDue)) continue
        if (random() >= HANDS.forget) return says(actOn(want, random))
        forgotten[key] = nowMs + HANDS.forgottenH * HOUR_MS
        return []
      }
      const has = (kind: KindKey) => gun.positions.includes(kind)
      const mayStop = STOPS_AT.filter(has)
      if (mayStop.length > 0 && happens(HANDS.stop)) return says({ act: 'down', position: pick(random, mayStop) })
      if (has('tip') && happens(HANDS.burnBack))
        return says({ act: 'changed', position: 'tip', outReason: 'burnedBack' })
      if (happens(HANDS.newSpool)) return says({ act: 'newSpool' })
      return happens(HANDS.lookOver) ? says({ act: 'seen' }) : []
    })
  return { state: { playedMs: nowMs, forgotten }, acts }
}

function actOn(want: SeenGun['wants'][number], random: () => number): Omit<PlayedAct, 'stationId'> {
  const { position } = want
  if (want.act === 'clean') return { act: 'cleaned', position }
  if (want.act === 'look') return { act: 'seen' }
  return { act: 'changed', position, outReason: pick(random, WORN) }
}
