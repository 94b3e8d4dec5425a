import { type FindingLine, type LookGun } from '@contract/rightparts.ts'

/** A made-up finding and a made-up gun to look at, for views rendered without a server. */
export const finding = (over: Partial<FindingLine> = {}): FindingLine => ({
  rule: 'tipLarge',
  severity: 'stops',
  at: 'tip',
  found: { is: 'size', mm: 1.2 },
  wanted: { is: 'size', mm: 0.9 },
  remedy: { do: 'change', kindKey: 'tip' },
  put: { partId: 'part_9', code: 'T-9', name: 'tip 0.9', onHand: 3 },
  set: [],
  kept: null,
  ...over,
})

export const lookGun = (name: string, over: Partial<LookGun> = {}, partId: string | null = null): LookGun => ({
  stationId: `stn_00${name.toLowerCase()}`,
  name,
  areaId: 'area_1',
  wireId: 'wire_1',
  positions: [{ position: 'tip', kindKey: 'tip', partId, bayPartId: 'part_1' }],
  rollCount: 2,
  bayReadMm: 1,
  reads: [null, null],
  settings: {},
  lookedMs: null,
  findings: [],
  ...over,
})
