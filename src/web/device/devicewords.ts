import { ago, when } from '@web/format/times.ts'
import { capital, countWord } from '@web/format/words.ts'
import { waitingSince, type QueueState } from '@web/offline/queue.ts'

/** "Four entries and a photo wait on this device, the oldest since 10:41." */
export function deviceSentence(of: { state: QueueState; photos: number; nowMs: number; zone: string }): string {
  const { state, photos, nowMs, zone } = of
  const n = state.waiting.length
  if (n + photos === 0) return state.refused.length > 0 ? 'Not all of it was taken.' : 'Nothing waits on this device.'
  const things = [
    n === 0 ? '' : `${countWord(n)} ${n === 1 ? 'entry' : 'entries'}`,
    photos === 0 ? '' : `${countWord(photos)} ${photos === 1 ? 'photo' : 'photos'}`,
  ]
  const since = waitingSince(state)
  const isOne = n + photos === 1
  const oldest = since === null ? '' : `${isOne ? '' : ', the oldest'} since ${when(since, nowMs, zone)}`
  return `${capital(things.filter(Boolean).join(' and ').toLowerCase())} ${isOne ? 'waits' : 'wait'} on this device${oldest}.`
}

/** What it holds for when there is no link. */
export function heldSentence(of: { name: string | null; areaId: string | null; heldMs: number | null; nowMs: number }) {
  const { name, areaId, heldMs, nowMs } = of
  if (!areaId)
    return 'Without a link this device shows what was opened on it. One that belongs to a hall holds all of its guns: a lead makes the link in Our shop.'
  const held = heldMs === null ? 'not held whole yet' : `held whole, as of ${ago(heldMs, nowMs)} ago`
  return `${name ?? 'This device'} holds its hall for when there is no link: guns, readings, guides, the walk. It is ${held}.`
}

export type Storage = 'asking' | 'unknown' | 'kept' | 'notPromised'
export function storageSentence(storage: Storage): string {
  if (storage === 'kept') return 'The browser keeps what waits here until it is sent.'
  if (storage === 'asking') return ''
  return 'The browser does not promise to keep what waits here: some phones drop it after a week unused. Put this page on the home screen, and open it where there is a link before the week is out.'
}

/** Which gun an entry is of, by what it sends; null: of none, or of several. */
export function placeOfEntry(body: object): string | null {
  const said = body as { stationId?: unknown; stationIds?: unknown; acts?: unknown }
  if (typeof said.stationId === 'string') return said.stationId
  const many = Array.isArray(said.stationIds)
    ? said.stationIds
    : Array.isArray(said.acts)
      ? said.acts.map((a: { stationId?: unknown }) => a.stationId)
      : []
  const [one] = many as unknown[]
  return many.length === 1 && typeof one === 'string' ? one : null
}
