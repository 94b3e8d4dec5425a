import { USUAL_BOOTHS } from '@core/practice/setups.ts'
import { UNTOLD_FEEDER, UNTOLD_PROCEDURE } from '@core/rightparts/untold.ts'
import { nextKey } from './testserver.ts'

/** What routes are asked with in tests: services refuse by who asks before they look at what. */
interface At {
  id: (name: string) => string
  nowMs: number
}
const DRILL = {
  ...{ version: 1, name: null, setup: USUAL_BOOTHS[0], faults: [{ key: 'gunOut', bad: 0.9 }] },
  ...{ complaint: 'porosity', seed: 4 },
}
const BODIES: Record<string, (at: At) => object> = {
  '/down/tune': ({ id }) => ({
    ...{ stationId: id('A1'), name: 'volts', from: 20, to: 21, saw: 'better', symptom: null, guard: 'notAsked' },
  }),
  '/life/rule': () => ({ kindKey: 'tip', classKey: 'booth', school: 'fixed', at: 5 }),
  '/life/word': () => ({ kindKey: 'tip', classKey: '*', usual: 6, early: 3 }),
  '/life/tryout': ({ id }) => ({
    ...{ kindKey: 'tip', question: 'dip or none?', nameA: 'dip', nameB: 'none' },
    ...{ partAId: null, partBId: null, stationIds: [id('A1'), id('A2')], ratio: 1.5 },
  }),
  '/life/tryout/end': () => ({ id: 'try_none' }),
  '/down/tune/kept': ({ id }) => ({ stationId: id('A1'), symptom: null, values: { volts: 21 } }),
  '/down/explained': ({ id }) => ({
    stationId: id('A1'),
    symptom: 'jerk',
    cause: 'linerWorn',
    isCertain: true,
    by: 'known',
    closing: 'good',
  }),
  '/down/knowledge': () => ({ knowledge: null }),
  '/logbook': ({ id }) => ({ acts: [{ stationId: id('A1'), act: 'cleaned', position: 'nozzle' }] }),
  '/logbook/scan': () => ({ code: '/go/A1/nozzle-cleaned' }),
  '/logbook/undo': () => ({ eventIds: ['ev_000000000abc'] }),
  '/logbook/correct': () => ({ eventId: 'ev_000000000abc', outReason: 'worn' }),
  '/clock/usage': ({ id }) => ({ stationId: id('A1'), day: '2026-11-20', arcHours: 2 }),
  '/ingest/preview': () => ({ kind: 'usage', text: 'date,booth,arc hours\n2026-11-20,A1,2' }),
  '/ingest/take': () => ({ kind: 'usage', text: 'date,booth,arc hours\n2026-11-19,A1,2' }),
  '/ingest/cancel': () => ({ runKey: nextKey() }),
  '/ingest/word': () => ({ word: 'lance', kindKey: 'neck' }),
  '/shop/places': () => ({ names: 'A1', areaName: 'Bay A' }),
  '/shop/site': () => ({ name: 'x', zone: 'UTC', units: 'metric', currency: 'EUR' }),
  '/shop/area': () => ({ areaId: 'area_none' }),
  '/shop/station': ({ id }) => ({ stationId: id('A1'), walkMinutes: 1 }),
  '/shop/move': ({ id }) => ({ stationId: id('A1'), gunOfStationId: id('A1') }),
  '/shop/feeder': ({ id }) => ({ stationId: id('A1'), equipmentId: 'F-1' }),
  '/shop/rule': () => ({ kindKey: 'tip', classKey: '*', changeLimit: 6, cleanLimit: null, lookDays: null }),
  '/shop/limits': () => ({ classKey: '*', limits: [{ kindKey: 'tip', changeLimit: 8, lookDays: null }] }),
  '/shop/bay': () => ({
    areaId: 'area_none',
    answers: { wire: null, gunName: null, nozzle: null, feeder: null, mode: null, gas: null, cableM: null },
  }),
  '/shop/helps-closed': () => ({ what: 'cards' }),
  '/clock/standing': () => ({ areaId: 'area_none', arcHours: 2 }),
  '/shop/class': () => ({ classKey: 'booth', labourMinorPerHour: 1, stopMinorPerHour: 1 }),
  '/shop/kind': () => ({ kindKey: 'tip', changeMin: 2 }),
  '/shop/part': () => ({ code: 'T', name: 'tip', kindKey: 'tip' }),
  '/shop/family': () => ({ name: 'Kite' }),
  '/shop/feedertype': () => ({ name: 'f', fit: UNTOLD_FEEDER }),
  '/shop/procedure': () => ({ name: 'p', fit: UNTOLD_PROCEDURE }),
  '/rightparts/look': ({ id }) => ({
    stationId: id('A1'),
    parts: [],
    settings: [{ name: 'polarity', value: 'gun positive' }],
  }),
  '/rightparts/set': ({ id }) => ({
    stationId: id('A1'),
    how: 'read',
    settings: [{ name: 'polarity', value: 'gun positive' }],
  }),
  '/rightparts/keep': ({ id }) => ({ stationId: id('A1'), rule: 'polarity', at: 'off', isKept: false }),
  '/rightparts/tag': ({ id }) => ({ stationId: id('A1'), tag: 'brakeTight', isBack: false }),
  '/rightparts/joint': ({ id }) => ({ stationId: id('A1'), joint: 'tip', fault: 'seized', thread: null }),
  '/parts/issue': ({ id }) => ({ stationId: id('A1'), partId: 'part_none' }),
  '/changeover': ({ id }) => ({
    stationIds: [id('A1')],
    wireId: 'wire_none',
    isScrapped: false,
    stillTied: [],
    skipped: [],
  }),
  '/changeover/day': () => ({ lines: [{ booth: 'A1', period: 'one', wireId: 'wire_none' }] }),
  '/guide/done': ({ id }) => ({ stationId: id('A1'), guide: 'tip', did: 'changed', minutes: 3, overrun: null }),
  '/guide/note': () => ({ guide: 'tip', step: 'tipOn', familyId: '*', words: 'a nip, no more', isInstead: false }),
  '/guide/caution': () => ({ hazard: 'hot', words: 'Hot. Gloves.' }),
  '/guide/nearmiss': ({ id }) => ({ stationId: id('A1'), hazard: 'hot' }),
  '/followup': ({ id }) => ({ stationId: id('A1'), task: 'tension' }),
  '/reading': ({ id }) => ({ stationId: id('A1'), what: 'orings', method: 'look', how: 'looked', grade: 'whole' }),
  '/walk/found': ({ id, nowMs }) => ({
    entries: [
      {
        key: nextKey(),
        stationId: id('A1'),
        happenedMs: nowMs,
        looks: [{ what: 'nozzleOpen', grade: 'clean' }],
      },
    ],
  }),
  '/drag/calibrate': ({ id }) => ({
    stationId: id('A1'),
    pulls: [
      { mark: 1, forcesN: [40] },
      { mark: 4, forcesN: [150] },
    ],
  }),
  '/liner/stuck': ({ id }) => ({ stationId: id('A1'), atMm: 900, isKinked: false }),
  '/liner/spoiled': ({ id }) => ({ stationId: id('A1'), why: 'cutShort' }),
  '/liner/done': ({ id }) => ({
    stationId: id('A1'),
    old: null,
    isBlown: false,
    cut: null,
    minutes: null,
    overrun: null,
  }),
  '/gun/swap': ({ id }) => ({ stationId: id('A1'), gunId: 'car_none', oldGun: 'ready' }),
  '/classes/found': ({ id }) => ({ stationId: id('A1'), found: { tip: 'right' } }),
  '/classes/group': () => ({ id: null, name: 'Reed', level: 'new', size: 8, booths: [] }),
  '/classes/pair': () => ({
    ...{ pair: 'tipTight', right: null, wrong: null, why: null, exercise: null, image: null, source: null },
    isWrongHere: false,
  }),
  '/classes/technique': ({ id }) => ({ stationId: id('A1'), was: 'distance' }),
  '/classes/quiz': ({ id }) => ({ stationId: id('A1'), answers: [{ kind: 'name', about: 'tip', isRight: true }] }),
  '/practice/attempt': ({ id }) => ({
    ...{ stationId: id('A1'), setId: null, faults: ['gunOut'], complaint: 'porosity', minutes: 4, bestMin: 3 },
    acts: [{ do: 'look', key: 'gunSeat' }],
  }),
  '/practice/set': () => ({ name: 'Tuesday', groupId: 'grp_none', scenarios: [DRILL] }),
  '/practice/end': () => ({ id: 'dset_none' }),
  '/classes/taught': () => ({ groupId: 'grp_none', item: 'tip' }),
  '/calendar/entry': () => ({
    ...{ id: null, kind: 'other', name: 'x', areaId: null, groupId: null, firstDay: '2026-11-20', start: '08:00' },
    ...{ end: '09:00', weekly: null },
  }),
  '/calendar/drop': () => ({ id: 'cal_none' }),
  '/calendar/move': () => ({ entryId: 'cal_none', day: '2026-11-20', to: null }),
  '/calendar/preview': () => ({ text: 'BEGIN:VCALENDAR\r\nEND:VCALENDAR' }),
  '/calendar/take': () => ({
    ...{ text: 'BEGIN:VCALENDAR\r\nEND:VCALENDAR' },
    take: [{ uid: 'a', as: 'other', areaId: null, groupId: null }],
  }),
  '/cells/round': ({ id }) => ({ stationIds: [id('A1')] }),
  '/cells/neck': () => ({ name: 'N9', familyId: 'fam_none' }),
  '/cells/swap': ({ id }) => ({ stationId: id('A1'), neckId: 'car_none', oldNeck: 'ready' }),
  '/cells/crash': ({ id }) => ({ stationId: id('A1') }),
  '/cells/bench': () => ({ carrierId: 'car_none', acts: [{ act: 'cleaned', position: 'nozzle' }] }),
  '/gun/spare': () => ({ name: 'spare', familyId: null, cableM: null }),
  '/gun/status': () => ({ gunId: 'car_none', status: 'ready' }),
  '/shop/wire': () => ({ name: 'w', construction: 'solid', size: '1.0', densityGPerCm3: 7.85, spoolKg: 15 }),
  '/shop/shifts': () => ({ areaId: null, shifts: [] }),
  '/parts/count': () => ({ counts: [{ partId: 'part_none', quantity: 3 }] }),
  '/parts/received': () => ({ partId: 'part_none', quantity: 3 }),
  '/spools/jobs': () => ({
    jobs: [
      {
        ...{ name: 'hinges', wireId: 'wire_none', lengthM: 1, pieces: 2, starts: 1, mode: null },
        joint: { kind: 'fillet', legMm: 6 },
      },
    ],
  }),
  '/spools/jobs/lay': () => ({ laid: [{ jobId: 'job_none', onId: null }] }),
  '/spools/jobs/done': () => ({ jobId: 'job_none', usedKg: null }),
  '/parts/kit': () => ({ name: 'a kit', lines: [{ partId: 'part_none', quantity: 1, guns: ['A1'] }] }),
  '/parts/kit/closed': () => ({ kitId: 'kit_none' }),
  '/parts/supplier': () => ({ name: 'somebody' }),
  '/parts/offer': () => ({
    ...{ partId: 'part_none', supplierId: 'supp_none', packOf: 1, bands: [{ from: 0, each: 5 }], isSure: true },
  }),
  '/parts/shelf': () => ({ partId: 'part_none', shelf: 'rack A' }),
  '/parts/store': () => ({ name: 'Cell cupboard', fillDays: 7, areaIds: ['area_none'] }),
  '/parts/store/closed': () => ({ storeId: 'store_none' }),
  '/parts/carry': () => ({
    ...{ fromStoreId: null, toStoreId: 'store_none' },
    lines: [{ partId: 'part_none', quantity: 1 }],
  }),
  '/parts/order': () => ({ supplierId: 'supp_none', lines: [{ partId: 'part_none', quantity: 1 }] }),
  '/parts/order/received': () => ({ orderId: 'order_none', lines: [{ partId: 'part_none', quantity: 1 }] }),
  '/parts/order/closed': () => ({ orderId: 'order_none' }),
  '/parts/tin': () => ({
    areaId: 'area_none',
    kindKey: 'tip',
    grams: 10,
    pieces: 50,
    gramsOfPieces: 600,
    isEmptied: true,
  }),
  '/houserule': () => ({ code: 'D10', scopeType: 'site', scopeKey: '*', option: 'on' }),
  '/photo/hide': () => ({ id: 'pic_none' }),
  '/spools': () => ({ what: { act: 'gone', spoolId: 'spool_none' } }),
  '/people/person': () => ({ name: 'new one', role: 'hand', isActive: true }),
  '/people/device-link': () => ({ name: 'phone' }),
  '/people/device-drop': () => ({ deviceId: 'dev_none' }),
}

/** Writes by their path, and the least that each needs to get past its shape. */
export const WRITES = Object.keys(BODIES)
export const bodyFor = (path: string, at: At): object => ({ ...keyFor(path), ...BODIES[path]?.(at) })

const WITHOUT_KEY = ['/ingest/take', '/ingest/preview', '/ingest/cancel', '/changeover/day']
/** A key for a write that carries one. */
const keyFor = (path: string) => (WITHOUT_KEY.includes(path) ? {} : { key: nextKey() })

/** The address of a read with the least it must be asked with, at a place. */
export function addressFor(path: string, stationId: string): string {
  const asked: Record<string, string> = {
    '/photo': 'type=spool&key=x',
    '/ingest/progress': `runKey=${nextKey()}`,
    '/ingest/sheet.csv': 'kind=usage',
    '/changeover': `stationIds=${stationId}&wireId=wire_none`,
    '/changeover/dedicate': `stationId=${stationId}&gunMinor=1&gunYears=1`,
    '/reading': `stationId=${stationId}`,
    '/down': `stationId=${stationId}`,
    '/down/tune': `stationId=${stationId}`,
    '/drag': `stationId=${stationId}`,
    '/liner': `stationId=${stationId}`,
    '/guide': `stationId=${stationId}&guide=tip`,
    '/print/guide.pdf': `stationId=${stationId}&guide=tip`,
    '/print.pdf': 'what=cards',
    '/print/symptoms.pdf': 'symptom=jerk',
    '/payback/helped': 'atMs=1',
    '/life/preview': 'kind=tip&classKey=booth&at=5',
  }
  const query = asked[path]
  return path.replace(':stationId', stationId).replace(':file', 'pic_none.jpg') + (query ? `?${query}` : '')
}
