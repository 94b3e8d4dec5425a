import { COLUMNS } from '@core/path/columns.ts'
import { z } from 'zod'
import { usageDisagreement } from './clock.ts'
import { STATES, NOT_SEEN_WHYS } from '@core/floor/state.ts'
import { instantMs, outReason, stationId, position, kindKey, lifeUnit, idOf } from './common.ts'
import { floorCell, floorWant, windowShape } from './floor.ts'
import { followUpLine } from './followup.ts'
import { linerVerdict } from './liner.ts'
import { logLine } from './logbook.ts'
import { alarmLine } from './reading.ts'
import { chainLine, findingLine, tagLine } from './rightparts.ts'

export const gunPosition = z.object({
  position,
  kindKey,
  name: z.string(),
  column: z.string(),
  state: z.enum(STATES),
  why: z.enum(NOT_SEEN_WHYS).nullable(),
  partId: idOf('part').nullable(),
  partCode: z.string().nullable(),
  partName: z.string().nullable(),
  onHand: z.number().int().nullable(),
  /** Where they lie, the place that serves this gun first, where there are several; null: the main one. */
  lies: z.array(z.object({ place: z.string().nullable(), onHand: z.number().int() })).default([]),
  unit: lifeUnit,
  used: z.number().nullable(),
  usedSd: z.number().nullable(),
  isEstimated: z.boolean(),
  sinceCleaned: z.number().nullable(),
  change: floorWant.nullable(),
  clean: floorWant.nullable(),
  fittedMs: instantMs.nullable(),
  entryAge: z.enum(['new', 'unknown']).nullable(),
  cleanedMs: instantMs.nullable(),
  seenMs: instantMs.nullable(),
  canClean: z.boolean(),
  reasons: z.array(outReason),
  /** `loggedShare`: so many of the changes behind it get logged; null where nothing tells. */
  usual: z
    .object({
      amount: z.number(),
      n: z.number().int(),
      loggedShare: z.number().nullable(),
      source: z.enum(['yours', 'told', 'trade']).default('yours'),
      /** Half gone by lies between these, 19 times in 20; null: not fitted yet. */
      low: z.number().nullable().default(null),
      high: z.number().nullable().default(null),
      shape: z.number().nullable().default(null),
    })
    .nullable(),
  /** Chance that it wears out before this time tomorrow; null: not known. */
  leave: z.object({ chance: z.number(), minutes: z.number() }).nullable().default(null),
  /** Of a liner ruled by signs: what they say; null: it goes by its use. */
  signs: linerVerdict.nullable().default(null),
  /** Kinds worth changing too while this one is off, at what is on them here. */
  withIt: z.array(kindKey).default([]),
})
export type GunPosition = z.infer<typeof gunPosition>

export const gunAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  stationId,
  name: z.string(),
  placeWord: z.string(),
  areaId: idOf('area'),
  areaName: z.string(),
  gunName: z.string().nullable(),
  gunId: idOf('carrier').nullable(),
  headName: z.string().nullable(),
  wireId: idOf('wire').nullable(),
  wireName: z.string().nullable(),
  wireMm: z.number().nullable(),
  spoolKg: z.number().nullable(),
  familyName: z.string().nullable(),
  mode: z.string().nullable(),
  cableM: z.number().nullable(),
  /** What house rules go by. */
  ruledBy: z.object({
    family: z.string().nullable(),
    feeder: z.string().nullable(),
    feederType: z.string().nullable(),
    mode: z.string().nullable(),
    class: z.string(),
  }),
  isParked: z.boolean(),
  downSinceMs: instantMs.nullable(),
  downMinutes: z.number().nullable(),
  /** What was changed since then counts as touched last: by work, not by the clock. */
  changedFromMs: instantMs.nullable().default(null),
  downPosition: position.nullable(),
  stopMinorPerHour: z.number().nullable(),
  currency: z.string(),
  cutoff: windowShape,
  cells: z.array(floorCell),
  wants: z.array(floorWant),
  next: floorWant.nullable(),
  positions: z.array(gunPosition),
  spool: z.object({ kg: z.number(), usedKg: z.number().nullable(), sinceMs: instantMs }).nullable(),
  lastEntryMs: instantMs.nullable(),
  notes: z.array(usageDisagreement),
  /** What does not fit, worst first, with what the lead keeps so. */
  findings: z.array(findingLine),
  chain: z.array(chainLine),
  procedureName: z.string().nullable(),
  /** Residue that is no fault on this wire. */
  normal: z.string().nullable(),
  /** Temporary settings nobody has undone. */
  tags: z.array(tagLine),
  /** What acts here made necessary and nobody has done yet. */
  followUps: z.array(followUpLine),
  /** What is being tried here, and which side this place was dealt. */
  tryouts: z.array(z.object({ kindKey, question: z.string(), gets: z.string() })).default([]),
  /** What its readings ask for. */
  alarms: z.array(alarmLine),
  /** The nozzle closes ever faster. */
  cleaningRises: z.boolean(),
  /** This gun's most frequent acts, for the four big keys. */
  usualActs: z.array(z.object({ act: z.enum(['changed', 'cleaned', 'newSpool']), position: position.nullable() })),
  tape: z.array(logLine),
})
export type GunAnswer = z.infer<typeof gunAnswer>

export const findAnswer = z.object({
  places: z.array(
    z.object({
      stationId,
      name: z.string(),
      placeWord: z.string(),
      areaName: z.string(),
      gunName: z.string().nullable(),
    }),
  ),
  /** Parts by every word they go by here. */
  kinds: z
    .array(z.object({ key: kindKey, name: z.string(), column: z.enum(COLUMNS), words: z.array(z.string()) }))
    // An answer kept on a device since before there were any.
    .default([]),
})
export type FindAnswer = z.infer<typeof findAnswer>
