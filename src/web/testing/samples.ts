import { anId } from '@core/testing/ids.ts'
import { STATES } from '@core/floor/state.ts'
import { type FloorAnswer, type FloorGun, type FloorWant } from '@contract/floor.ts'
import { type GunAnswer, type GunPosition } from '@contract/gun.ts'
import { type CarrierId } from '@core/ids/id.ts'
import { type LogLine } from '@contract/logbook.ts'

/** Made-up answers of the server, for views that are rendered without one. */
export const NOW = Date.UTC(2026, 10, 24, 6, 0)
const HOUR = 3_600_000

export const want = (over: Partial<FloorWant> = {}): FloorWant => ({
  position: 'tip',
  act: 'change',
  minutes: 2,
  used: 5.8,
  limit: 6,
  unit: 'arcHours',
  reachedMs: NOW + HOUR,
  earlyMs: NOW,
  lateMs: NOW + 3 * HOUR,
  shiftsOver: 0,
  signs: [],
  isEstimated: false,
  foundN: null,
  limitKm: null,
  leave: null,
  ...over,
})

export const position = (over: Partial<GunPosition> = {}): GunPosition => ({
  position: 'tip',
  kindKey: 'tip',
  name: 'contact tip',
  column: 'tip',
  state: 'good',
  why: null,
  partId: null,
  partCode: null,
  partName: null,
  onHand: null,
  lies: [],
  unit: 'arcHours',
  used: 2,
  usedSd: 0.1,
  isEstimated: false,
  sinceCleaned: null,
  change: null,
  clean: null,
  fittedMs: NOW - 20 * HOUR,
  entryAge: 'new',
  cleanedMs: null,
  seenMs: NOW - 20 * HOUR,
  canClean: true,
  reasons: ['worn', 'burnedBack', 'due'],
  usual: null,
  leave: null,
  withIt: [],
  signs: null,
  ...over,
})

/** A fitted life, as a gun's answer tells it. */
export const usual = (over: Partial<NonNullable<GunPosition['usual']>> = {}): GunPosition['usual'] => ({
  ...{ amount: 5.2, n: 41, loggedShare: 0.62, source: 'yours', low: 4.8, high: 5.7, shape: 2.4 },
  ...over,
})

/** How it is built, as far as these tests care. */
const built = {
  findings: [],
  chain: [],
  procedureName: null,
  normal: null,
  tags: [],
  followUps: [],
  tryouts: [],
  alarms: [],
  cleaningRises: false,
}

export const gun = (over: Partial<GunAnswer> = {}): GunAnswer => ({
  nowMs: NOW,
  zone: 'UTC',
  stationId: anId('station', 'stn_00b7'),
  name: 'B7',
  placeWord: 'booth',
  areaId: anId('area', 'area_1'),
  areaName: 'Bay B',
  gunName: 'gun B7',
  gunId: anId('carrier', 'car_00b7'),
  headName: 'feeder B7',
  wireId: anId('wire', 'wire_1'),
  wireName: 'solid 1.0',
  wireMm: 1,
  spoolKg: 15,
  familyName: 'Kite',
  mode: 'short circuit',
  cableM: 4,
  ruledBy: { family: 'fam_1', feeder: '4', feederType: null, mode: 'short circuit', class: 'booth' },
  isParked: false,
  downSinceMs: null,
  downMinutes: null,
  changedFromMs: null,
  downPosition: null,
  stopMinorPerHour: null,
  currency: 'EUR',
  cutoff: { atMs: NOW + 3.25 * HOUR, byMs: NOW + 3.25 * HOUR, isKnown: true, of: null },
  cells: Array.from({ length: 11 }, () => [STATES.indexOf('good'), 0.2, 0, 0]),
  wants: [],
  next: null,
  positions: [position()],
  spool: null,
  lastEntryMs: NOW - 10 * HOUR,
  notes: [],
  ...built,
  usualActs: [],
  tape: [],
  ...over,
})

const TIP_WORN: LogLine['fact'] = {
  ...{ kind: 'fitted', carrierId: 'car_1' as CarrierId, position: 'tip', partId: null },
  ...{ outReason: 'worn', count: 1, entryAge: 'new' },
}
export const line = (over: Partial<LogLine> = {}): LogLine => ({
  eventId: anId('event', 'ev_0000001'),
  happenedMs: NOW,
  loggedMs: NOW,
  precision: 'exact',
  stationId: anId('station', 'stn_00b7'),
  stationName: 'B7',
  actKind: 'log',
  fact: TIP_WORN,
  position: 'tip',
  names: {
    part: null,
    wire: null,
    spool: null,
    carrier: null,
    cause: null,
    scope: null,
    place: null,
    from: null,
    unit: null,
  },
  who: null,
  note: null,
  standing: 'as said',
  correctedMs: null,
  canUndo: true,
  canCorrect: true,
  ...over,
})

/** Cells of a gun all good but for one column. */
export const cells = (at: number, state: (typeof STATES)[number]): FloorGun['cells'] =>
  Array.from({ length: 11 }, (_, i) => [STATES.indexOf(i === at ? state : 'good'), 0.3, 0, 1])

export const floorGun = (name: string, over: Partial<FloorGun> = {}): FloorGun => ({
  stationId: anId('station', `stn_00${name.toLowerCase()}`),
  name,
  areaId: anId('area', 'a'),
  cells: cells(-1, 'good'),
  isParked: false,
  isArcOn: null,
  by: null,
  downSays: null,
  downSinceMs: null,
  downPosition: null,
  downMinutes: null,
  rank: null,
  minutes: 0,
  wants: [],
  wrong: [],
  found: [],
  next: null,
  columnWant: null,
  ...over,
})

export const floorOf = (guns: FloorGun[], over: Partial<FloorAnswer> = {}): FloorAnswer => ({
  nowMs: NOW,
  stamp: '',
  shopName: 'x',
  zone: 'UTC',
  cutoff: { atMs: NOW + 3.25 * HOUR, byMs: NOW + 3.25 * HOUR, isKnown: true, of: null },
  logging: null,
  bought: [],
  areas: [{ id: anId('area', 'a'), name: 'Bay A' }],
  guns,
  laterGuns: 0,
  notSeenGuns: 0,
  wrongGuns: 0,
  checkedGuns: 0,
  harming: [],
  tags: 0,
  followUps: 0,
  creeping: [],
  estimatedGuns: 0,
  quietChance: 0,
  ...over,
})
