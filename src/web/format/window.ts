import { type FloorAnswer } from '@contract/floor.ts'
import { when } from './times.ts'

type Window = FloorAnswer['cutoff']

/** What comes after "before": "09:15", "Reed’s class begins at 10:00", "the planned stop at 14:00". */
export function windowWords(window: Window, nowMs: number, zone: string): string {
  const time = when(window.byMs, nowMs, zone)
  return window.of ? `${whatOf(window.of)}${/^\d/.test(time) ? ' at' : ','} ${time}` : time
}
function whatOf({ is, name }: NonNullable<Window['of']>): string {
  if (is === 'stopBegins') return 'the planned stop'
  return `${name}’s class ${is === 'classEnds' ? 'ends' : 'begins'}`
}
