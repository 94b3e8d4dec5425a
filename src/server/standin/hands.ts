import { arrive, playHands, type HandsState, type PlayedAct, type SeenGun } from '@core/simulator/hands.ts'
import { MIN_MS } from '@core/units/time.ts'
import { KIND_KEYS } from '@core/path/columns.ts'
import { isWorking } from './work.ts'
import { type FloorAnswer } from '@contract/floor.ts'
import { randomUUID } from 'node:crypto'

/** The yard's people at play: they read Floor as a tablet of the yard would, and log as it would; nothing else is open to them. */
export interface HandsPlay {
  url: string
  token: string
  random: () => number
}
const EVERY_MS = MIN_MS

/** What they do since the last time; the same state back where the shop can't be reached, or took the tablet away. */
export async function playRound(before: HandsState | null, play: HandsPlay, nowMs: number): Promise<HandsState | null> {
  if (before && nowMs - before.playedMs < EVERY_MS) return before
  const floor = await ask<FloorAnswer>(play, '/floor')
  if (!floor) return before
  const guns = seenGuns(floor, nowMs)
  if (!before) return arrive(guns, nowMs)
  const { state: after, acts } = playHands(before, guns, { nowMs, random: play.random })
  for (const act of acts) await say(play, act)
  return after
}

function seenGuns(floor: FloorAnswer, nowMs: number): SeenGun[] {
  return floor.guns
    .filter((gun) => !gun.isParked)
    .map((gun) => ({
      stationId: gun.stationId,
      isAtWork: isWorking(floor.areas.find((a) => a.id === gun.areaId)?.name ?? '', nowMs),
      isDown: gun.downSinceMs !== null,
      wants: gun.wants.map(({ position, act }) => ({ position, act })),
      positions: KIND_KEYS,
    }))
}

const headers = ({ token }: HandsPlay) => ({
  'content-type': 'application/json',
  'x-idle-spool': '1',
  cookie: `idle_device=${token}`,
})
async function ask<T>(play: HandsPlay, path: string): Promise<T | null> {
  const response = await fetch(`${play.url}/api${path}`, { headers: headers(play) }).catch(() => null)
  return response?.ok ? ((await response.json()) as T) : null
}
async function say(play: HandsPlay, act: PlayedAct): Promise<void> {
  const body = JSON.stringify({ key: randomUUID(), acts: [act] })
  await fetch(`${play.url}/api/logbook`, { method: 'POST', headers: headers(play), body }).catch(() => null)
}
