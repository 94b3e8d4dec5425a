import { z } from 'zod'
import { PART_CLASSES } from '@core/path/columns.ts'
import { idempotencyKey, placeName, stationId, kindKey, position, lifeUnit, idOf } from './common.ts'
import { cellFit, familyFit, feederFit, partFit, procedureFit, wireFit } from './fit.ts'
import { OUT_REASONS } from '@core/path/columns.ts'
import { BOUGHT_GAS_KEYS } from '@core/catalogue/gases.ts'
import { FEEDER_KIND_KEYS } from '@core/catalogue/feeders.ts'
import { WIRE_KIND_KEYS } from '@core/catalogue/wires.ts'
import { GASES, MODES, NOZZLE_STYLES } from '@core/rightparts/facts.ts'
import { deviceLine, personLine } from './people.ts'

const wall = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'a time like 06:00')
/** Money in the smallest coin, days, and use: as large as anybody means, and no larger than is kept. */
const minor = z.number().int().min(0).max(1_000_000_000)
const days = z.number().int().positive().max(3650)
const limit = z.number().positive().max(1_000_000)
const classKey = z.string().min(1).max(20)
export const built = z.object({
  wireId: idOf('wire').nullable(),
  familyId: idOf('family').nullable(),
  cableM: z.number().positive().max(60).nullable(),
  mode: z.enum(MODES).nullable(),
  wireSpeedMPerMin: z.number().positive().max(40).nullable(),
  rollCount: z.union([z.literal(2), z.literal(4)]).nullable(),
  feederTypeId: idOf('feederType').nullable(),
  procedureId: idOf('procedure').nullable(),
  gas: z.enum(GASES).nullable(),
  cell: cellFit.nullable(),
  parts: z.record(z.string(), idOf('part')),
})
export const builtExcept = built.partial().extend({ cell: cellFit.partial().nullish() })

/** Places set up by hand: `A1–A24` in an area, built as the bay or as one that is there already. */
export const placesRequest = z.object({
  key: idempotencyKey,
  names: z.string().min(1).max(2000),
  areaName: z.string().trim().min(1).max(60),
  placeWord: z.enum(['booth', 'cell', 'bay', 'bench', 'gun']).default('booth'),
  classKey: classKey.default('booth'),
  walkMinutes: z.number().min(0).max(60).default(1),
  built: built.partial().optional(),
  likeStationId: stationId.optional(),
})
export const placesAnswer = z.object({
  made: z.array(z.object({ stationId, name: z.string() })),
  kept: z.array(z.string()),
})

export const stationRequest = z.object({
  key: idempotencyKey,
  stationId,
  name: placeName.optional(),
  placeWord: z.enum(['booth', 'cell', 'bay', 'bench', 'gun']).optional(),
  classKey: classKey.optional(),
  walkMinutes: z.number().min(0).max(60).optional(),
  stopGroup: z.string().max(40).nullish(),
  except: builtExcept.optional(),
  /** Positions this gun does not have. */
  absent: z.array(z.string()).optional(),
  /** Of the parts only some guns have, those that this one has. */
  extra: z.array(z.string()).optional(),
})
export const areaRequest = z.object({
  key: idempotencyKey,
  areaId: idOf('area'),
  name: z.string().trim().min(1).max(60).optional(),
  built: built.partial().optional(),
  walk: z.array(stationId).optional(),
})
/** What seven questions about a bay were answered with; what nobody knows is null. */
export const bayAnswers = z.object({
  wire: z.object({ kind: z.enum(WIRE_KIND_KEYS), sizeMm: z.number().min(0.5).max(3) }).nullable(),
  gunName: z.string().trim().min(1).max(40).nullable(),
  nozzle: z.enum(NOZZLE_STYLES).nullable(),
  feeder: z.enum(FEEDER_KIND_KEYS).nullable(),
  mode: z.enum(MODES).nullable(),
  gas: z.enum(BOUGHT_GAS_KEYS).nullable(),
  cableM: z.number().positive().max(60).nullable(),
})
/** Wire, family, feeder, parts and how its guns are built, made from the answers in one act; what is there already is used. */
export const bayRequest = z.object({ key: idempotencyKey, areaId: idOf('area'), answers: bayAnswers })
export const moveRequest = z.object({ key: idempotencyKey, stationId, gunOfStationId: stationId })

export const ruleRequest = z.object({
  key: idempotencyKey,
  kindKey,
  classKey,
  changeLimit: limit.nullable(),
  cleanLimit: limit.nullable(),
  lookDays: days.nullable(),
})
/** Several at once: what the trade says of all kinds, taken in one tap. */
export const limitsRequest = z.object({
  key: idempotencyKey,
  classKey,
  limits: z
    .array(ruleRequest.pick({ kindKey: true, changeLimit: true, lookDays: true }))
    .min(1)
    .max(40),
})
export const classRequest = z.object({
  key: idempotencyKey,
  classKey,
  labourMinorPerHour: minor,
  stopMinorPerHour: minor,
  scrapMinorPerPiece: minor.optional(),
})
export const kindRequest = z.object({
  key: idempotencyKey,
  kindKey,
  changeMin: z.number().positive().max(600).optional(),
  cleanMin: z.number().min(0).max(600).optional(),
  confirmDays: days.nullish(),
  lifeUnit: lifeUnit.optional(),
  partClass: z.enum(PART_CLASSES).optional(),
  synonyms: z.array(z.string().trim().min(1).max(40)).max(40).optional(),
  /** Why it comes out: the reasons offered when it is logged. */
  reasons: z.array(z.enum(OUT_REASONS)).min(1).max(12).optional(),
})
export const partRequest = z.object({
  key: idempotencyKey,
  /** Given: that one is changed, its code too. Left out: the code says which. */
  id: idOf('part').nullish(),
  code: z.string().trim().min(1).max(40),
  name: z.string().trim().min(1).max(80),
  kindKey,
  familyId: idOf('family').nullish(),
  wireSize: z.string().trim().max(20).nullish(),
  priceMinor: minor.nullish(),
  onHand: z.number().int().min(0).max(1_000_000).nullish(),
  fit: partFit.nullish(),
})
export const familyRequest = z.object({
  key: idempotencyKey,
  /** Given: that one is changed. */
  id: idOf('family').nullish(),
  name: z.string().trim().min(1).max(40),
  fit: familyFit.nullish(),
})
export const feederTypeRequest = z.object({
  key: idempotencyKey,
  id: idOf('feederType').nullish(),
  name: z.string().trim().min(1).max(40),
  fit: feederFit,
})
export const procedureRequest = z.object({
  key: idempotencyKey,
  id: idOf('procedure').nullish(),
  name: z.string().trim().min(1).max(60),
  fit: procedureFit,
})
export const wireRequest = z.object({
  key: idempotencyKey,
  name: z.string().trim().min(1).max(60),
  construction: z.enum(['solid', 'flux-cored', 'metal-cored', 'aluminium']),
  size: z.string().trim().min(1).max(20),
  densityGPerCm3: z.number().positive().max(20),
  spoolKg: z.number().positive().max(1000),
  tareKg: z.number().positive().max(100).nullish(),
  coreMm: z.number().positive().max(1000).nullish(),
  fullMm: z.number().positive().max(2000).nullish(),
  widthMm: z.number().positive().max(1000).nullish(),
  fit: wireFit.nullish(),
})
export const shiftsRequest = z.object({
  key: idempotencyKey,
  areaId: idOf('area').nullable(),
  shifts: z
    .array(
      z.object({
        name: z.string().trim().min(1).max(40),
        weekdays: z.array(z.number().int().min(1).max(7)).min(1),
        start: wall,
        end: wall,
        breaks: z.array(z.object({ start: wall, minutes: z.number().int().min(1).max(240) })).max(6),
      }),
    )
    .max(12),
  holidays: z
    .array(z.object({ day: z.iso.date(), name: z.string().max(60) }))
    .max(400)
    .optional(),
})
export const siteRequest = z.object({
  key: idempotencyKey,
  name: z.string().trim().min(1).max(80),
  zone: z.string().max(40),
  units: z.enum(['metric', 'us']),
  currency: z.string().length(3),
  gasMinorPerM3: z.number().int().min(0).max(10_000_000).nullish(),
})

export const stationLine = z.object({
  id: stationId,
  name: z.string(),
  areaId: idOf('area'),
  placeWord: z.string(),
  classKey: z.string().min(1).max(40),
  walkOrder: z.number(),
  walkMinutes: z.number(),
  stopGroup: z.string().nullable(),
  except: builtExcept,
  gunName: z.string().nullable(),
  headName: z.string().nullable(),
  positions: z.array(position),
  isParked: z.boolean(),
})
export type StationLine = z.infer<typeof stationLine>
export const shopAnswer = z.object({
  site: z.object({
    name: z.string(),
    zone: z.string(),
    units: z.enum(['metric', 'us']),
    currency: z.string(),
    gasMinorPerM3: z.number().nullable(),
  }),
  areas: z.array(z.object({ id: idOf('area'), name: z.string(), built })),
  stations: z.array(stationLine),
  classes: z.array(
    z.object({
      key: z.string(),
      name: z.string(),
      labourMinorPerHour: z.number(),
      stopMinorPerHour: z.number(),
      scrapMinorPerPiece: z.number(),
    }),
  ),
  kinds: z.array(
    z.object({
      key: kindKey,
      name: z.string(),
      column: z.string(),
      partClass: z.enum(PART_CLASSES),
      lifeUnit,
      canClean: z.boolean(),
      changeMin: z.number(),
      cleanMin: z.number(),
      confirmDays: z.number().nullable(),
      synonyms: z.array(z.string()),
      reasons: z.array(z.enum(OUT_REASONS)),
    }),
  ),
  rules: z.array(
    z.object({
      kindKey,
      classKey: z.string().min(1).max(40),
      changeLimit: z.number().nullable(),
      cleanLimit: z.number().nullable(),
      lookDays: z.number().nullable(),
      chosenBy: z.string().nullable(),
      chosenMs: z.number(),
      /** The trade's own number, and the shop's own lives do not yet tell more than it. */
      isTrade: z.boolean().default(false),
    }),
  ),
  parts: z.array(
    z.object({
      id: idOf('part'),
      code: z.string(),
      name: z.string(),
      kindKey,
      familyId: idOf('family').nullable(),
      wireSizeMm: z.number().nullable(),
      priceMinor: z.number().nullable(),
      /** All places together. */
      onHand: z.number().nullable(),
      /** Place by place; null: the main one. */
      lies: z.array(z.object({ storeId: idOf('store').nullable(), onHand: z.number() })).default([]),
      fit: partFit.nullable(),
    }),
  ),
  /** Places where parts lie besides the main one. */
  stores: z.array(z.object({ id: idOf('store'), name: z.string() })).default([]),
  wires: z.array(
    z.object({
      id: idOf('wire'),
      name: z.string(),
      construction: z.string(),
      diameterMm: z.number(),
      densityGPerCm3: z.number(),
      spoolKg: z.number(),
      tareKg: z.number().nullable(),
      coreMm: z.number().nullable(),
      fullMm: z.number().nullable(),
      widthMm: z.number().nullable(),
      fit: wireFit.nullable(),
    }),
  ),
  families: z.array(z.object({ id: idOf('family'), name: z.string(), fit: familyFit.nullable() })),
  feederTypes: z.array(z.object({ id: idOf('feederType'), name: z.string(), fit: feederFit })),
  procedures: z.array(z.object({ id: idOf('procedure'), name: z.string(), fit: procedureFit })),
  shifts: z.array(
    z.object({
      areaId: idOf('area').nullable(),
      name: z.string(),
      weekdays: z.array(z.number()),
      start: z.string(),
      end: z.string(),
      breaks: z.array(z.object({ start: z.string(), minutes: z.number() })),
    }),
  ),
  holidays: z.array(z.object({ day: z.string(), name: z.string() })),
  people: z.array(personLine),
  devices: z.array(deviceLine),
})
export type ShopAnswer = z.infer<typeof shopAnswer>
