import { type PartId } from '@core/ids/id.ts'
import { anId } from '@core/testing/ids.ts'
import { type FindingLine, type LookGun } from '@contract/rightparts.ts'

/** A made-up finding and a made-up gun to look at, for views rendered without a server. */
export const finding = (over: Partial<FindingLine> = {}): FindingLine => ({
  rule: 'tipLarge',
  severity: 'stops',
  at: 'tip',
  found: { is: 'size', mm: 1.2 },
  wanted: { is: 'size', mm: 0.9 },
  remedy: { do: 'change', kindKey: 'tip' },
  put: { partId: anId('part', 'part_9'), code: 'T-9', name: 'tip 0.9', onHand: 3 },
  suits: [],
  set: [],
  kept: null,
  ...over,
})

export const lookGun = (name: string, over: Partial<LookGun> = {}, partId: PartId | null = null): LookGun => ({
  stationId: anId('station', `stn_00${name.toLowerCase()}`),
  name,
  areaId: anId('area', 'area_1'),
  wireId: anId('wire', 'wire_1'),
  positions: [{ position: 'tip', kindKey: 'tip', partId, bayPartId: anId('part', 'part_1') }],
  rollCount: 2,
  bayReadMm: 1,
  reads: [null, null],
  settings: {},
  lookedMs: null,
  findings: [],
  ...over,
})
