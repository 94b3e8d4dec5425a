import { anId } from '@core/testing/ids.ts'
import { freeSetup } from '@web/drag/dragstate.ts'
import { guessesFor } from '@core/drag/setup.ts'
import { type DragAnswer } from '@contract/drag.ts'
import { type KeptLine, type ReadingAnswer, type ReadingLine, type TrendLine } from '@contract/reading.ts'
import { NOW } from './samples.ts'

/** Made-up readings and a made-up gun on Drag, for views rendered without a server. */
export const kept = (over: Partial<KeptLine> = {}): KeptLine => ({
  eventId: anId('event', 'ev_1'),
  atMs: NOW - 3_600_000,
  method: 'block',
  how: 'looked',
  value: 2.4,
  left: null,
  grade: 'curls',
  is: 'good',
  who: null,
  ...over,
})
export const readingLine = (over: Partial<ReadingLine> = {}): ReadingLine => ({
  what: 'tension',
  target: null,
  last: null,
  history: [],
  trend: null,
  changed: null,
  against: null,
  ...over,
})
export const trend = (over: Partial<TrendLine> = {}): TrendLine => ({
  is: 'creeps',
  n: 4,
  method: 'block',
  unit: 'kg',
  points: [2, 2.2, 2.4, 2.6].map((value, i) => ({ usage: i * 30, value, atMs: NOW - (4 - i) * 86_400_000 })),
  baseline: 2,
  limit: 3,
  risen: 0.6,
  slope: 0.2 / 30,
  intercept: 2,
  jumpedMs: null,
  crossing: {
    usage: 150,
    early: 130,
    late: 190,
    atMs: NOW + 8 * 86_400_000,
    earlyMs: NOW + 2 * 86_400_000,
    lateMs: NOW + 15 * 86_400_000,
  },
  ...over,
})
export const readingAnswer = (readings: ReadingLine[], over: Partial<ReadingAnswer> = {}): ReadingAnswer => ({
  nowMs: NOW,
  zone: 'UTC',
  stationId: anId('station', 'stn_00b7'),
  name: 'B7',
  wireName: 'steel 0.9',
  isCell: false,
  readings,
  alarms: [],
  gasLeft: null,
  schools: { tension: 'block', raise: 'forATime' },
  raised: null,
  flow: null,
  antiSpatter: null,
  cleaning: null,
  ...over,
})
export function dragAnswer(over: Partial<DragAnswer> = {}): DragAnswer {
  const setup = freeSetup()
  return {
    nowMs: NOW,
    zone: 'UTC',
    stationId: anId('station', 'stn_00b7'),
    name: 'B7',
    wireName: 'steel 0.9',
    linerCode: 'LS10',
    feederName: 'four-roll',
    isCell: false,
    drag: { setup, sources: { cableMm: { by: 'told', atMs: null } }, spans: guessesFor(setup.shape) },
    calibratedMs: null,
    knob: null,
    ...over,
  }
}
