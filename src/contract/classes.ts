import { z } from 'zod'
import { CALENDAR_KINDS } from '@core/classes/calendar.ts'
import { LEVELS } from '@core/classes/groups.ts'
import { HAND_ITEM_KEYS, PAIR_KEYS } from '@core/classes/items.ts'
import { QUIZ_KINDS } from '@core/classes/quiz.ts'
import { JOINTS_WELDED, POSITIONS_WELDED, TURNED_OUT_KEYS } from '@core/classes/technique.ts'
import { DRAWING_KEYS } from '@core/drawings/drawing.ts'
import { CAUSE_PLACES, COLUMNS } from '@core/path/columns.ts'
import { idempotencyKey, idOf, idText, instantMs, stationId } from './common.ts'

const day = z.iso.date()
const wall = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'a time like 08:50')
export const handItemKey = z.enum(HAND_ITEM_KEYS)
export const pairKey = z.enum(PAIR_KEYS)
const foundAtBooth = z.partialRecord(handItemKey, z.string().min(1).max(16))

/** One time of the calendar. */
export const occurrence = z.object({
  entryId: idOf('entry'),
  kind: z.enum(CALENDAR_KINDS),
  name: z.string(),
  areaId: idOf('area').nullable(),
  groupId: idOf('group').nullable(),
  day,
  movedTo: day.nullable(),
  fromMs: instantMs,
  toMs: instantMs,
})
const counted = z.object({ wrong: z.number().int(), looked: z.number().int() })
const share = counted.extend({ share: z.number(), low: z.number(), high: z.number() })

export const group = z.object({
  id: idOf('group'),
  name: z.string(),
  level: z.enum(LEVELS),
  size: z.number().int().nullable(),
  isActive: z.boolean(),
  booths: z.array(
    z.object({
      stationId,
      name: z.string(),
      wireId: idOf('wire').nullable(),
      wireName: z.string().nullable(),
      /** A code; told to leads and instructors only. */
      learner: z.string().nullable(),
    }),
  ),
})
export type Group = z.infer<typeof group>

const classBooth = z.object({
  stationId,
  name: z.string(),
  wireName: z.string().nullable(),
  /** Which the group wants, where that is another one. */
  wantsWireName: z.string().nullable(),
  wantsWireId: idOf('wire').nullable(),
  learner: z.string().nullable(),
  isDown: z.boolean(),
  isParked: z.boolean(),
  /** Looked at for this class; null: nobody has. */
  look: z.object({ atMs: instantMs, found: foundAtBooth, still: z.array(handItemKey) }).nullable(),
})
/** So many kg in so many hours of class at one booth; one in ten lies under, one in ten over. */
const wireTaken = z.object({ hours: z.number(), mean: z.number(), low: z.number(), high: z.number() })
const taken = z.object({
  days: z.number().int(),
  classes: z.number().int(),
  mean: z.number(),
  low: z.number(),
  high: z.number(),
})
export const classesQuery = z.object({ entryId: idText('entry').optional(), day: day.optional() })
export const classesAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  today: day,
  /** The class that runs, else the next; null: none is in the calendar. */
  period: occurrence.nullable(),
  is: z.enum(['now', 'next', 'asked']),
  group: group.omit({ booths: true }).nullable(),
  /** Who had the booths before, as a group. */
  leftBy: z.string().nullable(),
  booths: z.array(classBooth),
  /** Today's classes, to choose from. */
  todays: z.array(occurrence.extend({ groupName: z.string().nullable() })),
  /** What was found for this class. */
  found: z.array(counted.extend({ item: handItemKey })),
  teach: z.array(
    share.extend({
      item: handItemKey,
      why: z.enum(['thisGroup', 'everywhere']),
      byLuck: z.number().nullable(),
      minutes: z.number(),
    }),
  ),
  /** Lessons given to this group, newest first, and what came of them. */
  lessons: z.array(
    z.object({
      item: handItemKey,
      day,
      before: counted,
      since: counted,
      othersBefore: counted,
      othersSince: counted,
      byLuck: z.number().nullable(),
      says: z.enum(['helped', 'cannotTell', 'tooEarly']),
      looksToGo: z.number().int(),
    }),
  ),
  groups: z.number().int(),
  /** Who called in the last seven days, over all booths of groups: stops and beads looked at; of nobody. */
  calls: z
    .object({
      n: z.number().int(),
      places: z.array(z.object({ place: z.enum(CAUSE_PLACES), n: z.number().int() })),
      machine: z.number().int(),
      notMachine: z.number().int(),
      untold: z.number().int(),
    })
    .nullable(),
  /** Wire of the coming week and month, by calendar and level, wire by wire. Empty: no class welded anything that was told. */
  wires: z.array(
    z.object({
      wireId: idOf('wire'),
      name: z.string(),
      week: wireTaken,
      month: wireTaken,
      /** At one booth; level by level where they are told apart, else of all. */
      perHour: z.array(z.object({ level: z.enum(LEVELS).nullable(), kg: z.number() })),
      /** On the shelf, as far as it was told; spools nobody knows what is left on. */
      onHandKg: z.number(),
      unknown: z.number().int(),
      spoolKg: z.number(),
    }),
  ),
  /** Tips of the coming week and month, by calendar and level; told to who teaches. Null: nothing was counted in a class yet. */
  tips: z
    .object({
      week: taken,
      month: taken,
      past: z.array(z.object({ level: z.enum(LEVELS), used: z.number().int(), classes: z.number().int() })),
      part: z
        .object({ partId: idOf('part'), code: z.string(), name: z.string(), onHand: z.number().nullable() })
        .nullable(),
    })
    .nullable(),
})
export type ClassesAnswer = z.infer<typeof classesAnswer>

export const foundRequest = z.object({
  key: idempotencyKey,
  stationId,
  found: foundAtBooth,
  still: z.array(handItemKey).max(HAND_ITEM_KEYS.length).default([]),
  happenedMs: instantMs.optional(),
})
export const foundAnswer = z.object({ ok: z.literal(true), ofClass: z.string().nullable() })

export const groupsAnswer = z.object({
  groups: z.array(group),
  areas: z.array(z.object({ id: idOf('area'), name: z.string() })),
  booths: z.array(z.object({ stationId, name: z.string(), areaId: idOf('area') })),
  wires: z.array(z.object({ id: idOf('wire'), name: z.string() })),
})
export type GroupsAnswer = z.infer<typeof groupsAnswer>
export const groupRequest = z.object({
  key: idempotencyKey,
  id: idText('group').nullable(),
  name: z.string().trim().min(1).max(40),
  level: z.enum(LEVELS),
  size: z.number().int().min(1).max(200).nullable(),
  isActive: z.boolean().default(true),
  booths: z
    .array(z.object({ stationId, wireId: idText('wire').nullable(), learner: z.string().trim().max(12).nullable() }))
    .max(200),
})

const entryLine = z.object({
  id: idOf('entry'),
  kind: z.enum(CALENDAR_KINDS),
  name: z.string(),
  areaId: idOf('area').nullable(),
  groupId: idOf('group').nullable(),
  firstDay: day,
  start: wall,
  end: wall,
  rule: z.string().nullable(),
  /** The rule as days of the week, where it is one of those. */
  weekly: z
    .object({
      weekdays: z.array(z.number().int().min(1).max(7)),
      untilDay: day.nullable(),
      everyWeeks: z.number().int(),
    })
    .nullable(),
})
export const calendarQuery = z.object({ from: day.optional(), days: z.coerce.number().int().min(1).max(62).default(7) })
export const calendarAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  from: day,
  days: z.array(z.object({ day, fromMs: instantMs, toMs: instantMs, holiday: z.string().nullable() })),
  entries: z.array(entryLine),
  occurrences: z.array(occurrence),
  /** What is worked, by area, between the breaks. */
  shifts: z.array(z.object({ areaId: idOf('area'), fromMs: instantMs, toMs: instantMs })),
  areas: z.array(z.object({ id: idOf('area'), name: z.string() })),
  groups: z.array(z.object({ id: idOf('group'), name: z.string() })),
  clashes: z.array(
    z.object({ a: occurrence, b: occurrence, is: z.enum(['group', 'booths']), booths: z.array(z.string()) }),
  ),
})
export type CalendarAnswer = z.infer<typeof calendarAnswer>
export const entryRequest = z.object({
  key: idempotencyKey,
  id: idText('entry').nullable(),
  kind: z.enum(CALENDAR_KINDS),
  name: z.string().trim().min(1).max(80),
  areaId: idText('area').nullable(),
  groupId: idText('group').nullable(),
  firstDay: day,
  start: wall,
  end: wall,
  /** Null: once; `keep`: the rule it came with, which is none of days of the week. */
  weekly: z
    .union([
      z.object({
        weekdays: z.array(z.number().int().min(1).max(7)).min(1).max(7),
        untilDay: day.nullable(),
        everyWeeks: z.number().int().min(1).max(12),
      }),
      z.literal('keep'),
    ])
    .nullable(),
})
export const entryAnswer = z.object({ ok: z.literal(true), clashes: z.array(z.string()) })
export const entryDrop = z.object({ key: idempotencyKey, id: idText('entry') })
export const moveRequest = z.object({
  key: idempotencyKey,
  entryId: idText('entry'),
  day,
  /** Null: it does not take place. */
  to: z.object({ day, start: wall, end: wall }).nullable(),
  /** As its rule says again. */
  isBack: z.boolean().default(false),
})

export const icsPreviewRequest = z.object({ text: z.string().min(1).max(2_000_000) })
const icsLine = z.object({
  uid: z.string(),
  name: z.string(),
  firstDay: day,
  start: wall,
  end: wall,
  rule: z.string().nullable(),
  /** How many times in the next year. */
  times: z.number().int(),
  /** Whole days, and how many together. */
  isHoliday: z.boolean(),
  days: z.number().int(),
  /** Known by its own name: taken in again it is changed. */
  isKnown: z.boolean(),
  groupId: idOf('group').nullable(),
  /** What is told of it, in words: another zone, more than a day. */
  notes: z.array(z.string()),
  moves: z.array(z.object({ day, toDay: day.nullable(), start: wall.nullable(), end: wall.nullable() })),
})
export type IcsLine = z.infer<typeof icsLine>
export const icsPreview = z.object({
  lines: z.array(icsLine),
  /** What could not be taken, each with why. */
  refused: z.array(z.object({ name: z.string(), why: z.string() })),
})
export type IcsPreview = z.infer<typeof icsPreview>
export const icsTakeRequest = z.object({
  key: idempotencyKey,
  text: z.string().min(1).max(2_000_000),
  take: z
    .array(
      z.object({
        uid: z.string().max(200),
        as: z.enum([...CALENDAR_KINDS, 'holiday']),
        areaId: idText('area').nullable(),
        groupId: idText('group').nullable(),
      }),
    )
    .min(1)
    .max(500),
})
export const icsTaken = z.object({ ok: z.literal(true), taken: z.number().int(), clashes: z.array(z.string()) })

export const taughtRequest = z.object({ key: idempotencyKey, groupId: idText('group'), item: handItemKey })

export const teachAnswer = z.object({
  groups: z.array(z.object({ id: idOf('group'), name: z.string() })),
  weeks: z.number().int(),
  looks: z.number().int(),
  ofGroups: z.array(
    share.extend({ group: idOf('group'), item: handItemKey, byLuck: z.number().nullable(), isBeyond: z.boolean() }),
  ),
})
export type TeachAnswer = z.infer<typeof teachAnswer>

/** A pair of the library as it stands here: the shop’s words where it has its own. */
export const pairLine = z.object({
  key: pairKey,
  at: z.enum([...COLUMNS, 'off']),
  name: z.string(),
  right: z.string(),
  wrong: z.string(),
  why: z.string(),
  exercise: z.string(),
  drawing: z.enum(DRAWING_KEYS),
  /** A picture in words. */
  image: z.string().nullable(),
  isOwn: z.boolean(),
  isWrongHere: z.boolean(),
  /** Whose word it is, who looked it over here, and when; null: nobody has. */
  source: z.string(),
  reviewedBy: z.string().nullable(),
  reviewedDay: day.nullable(),
  photos: z.array(z.object({ id: idOf('photo'), side: z.enum(['right', 'wrong']), takenMs: instantMs })),
})
export type PairLine = z.infer<typeof pairLine>
export const pairsAnswer = z.object({ zone: z.string(), pairs: z.array(pairLine) })
const ownWords = z.string().trim().max(200).nullable()
export const pairRequest = z.object({
  key: idempotencyKey,
  pair: pairKey,
  /** Null: as it came. */
  right: ownWords,
  wrong: ownWords,
  why: ownWords,
  exercise: ownWords,
  image: ownWords,
  source: z.string().trim().max(120).nullable(),
  isWrongHere: z.boolean(),
})
export const pairsPrintQuery = z.object({ pair: pairKey.optional(), at: z.string().max(20).optional() })

const question = z.object({
  kind: z.enum(QUIZ_KINDS),
  about: z.string(),
  says: z.string(),
  at: z.enum([...COLUMNS, 'off']).nullable(),
  shown: z.object({ pair: pairKey, panel: z.union([z.literal(0), z.literal(1)]) }).nullable(),
  options: z.array(z.string()),
  answer: z.number().int(),
  why: z.string(),
})
export const quizQuery = z.object({
  stationId: stationId.optional(),
  seed: z.coerce.number().int().min(0).max(1e9).optional(),
})
export const quizAnswer = z.object({
  stationId,
  name: z.string(),
  seed: z.number().int(),
  questions: z.array(question),
})
export type QuizAnswer = z.infer<typeof quizAnswer>
export const quizTakenRequest = z.object({
  key: idempotencyKey,
  stationId,
  answers: z
    .array(z.object({ kind: z.enum(QUIZ_KINDS), about: z.string().min(1).max(40), isRight: z.boolean() }))
    .min(1)
    .max(40),
})
export const quizKnown = z.object({
  known: z.array(
    z.object({
      groupName: z.string().nullable(),
      kind: z.string(),
      about: z.string(),
      right: z.number().int(),
      asked: z.number().int(),
      share: z.number(),
      low: z.number(),
      high: z.number(),
    }),
  ),
})
export type QuizKnown = z.infer<typeof quizKnown>

const span = z.tuple([z.number(), z.number()])
export const techniqueQuery = z.object({
  stationId,
  joint: z.enum(JOINTS_WELDED).default('fillet'),
  position: z.enum(POSITIONS_WELDED).default('flat'),
})
export const techniqueAnswer = z.object({
  name: z.string(),
  wireName: z.string().nullable(),
  mode: z.string().nullable(),
  /** By house rule the equipment is looked at before a word on the hand. */
  minuteFirst: z.boolean(),
  stickOutMm: span.readonly(),
  stickOutBy: z.enum(['procedure', 'trade']),
  workDeg: z.number(),
  travelDeg: span.readonly(),
  way: z.enum(['push', 'pull', 'either']),
  speedMmS: span.readonly(),
  wireAt: z.literal('leading edge'),
  /** The group that has the booth now; null: no class. */
  of: z.string().nullable(),
  days: z.number().int(),
  /** What it turned out to be, the most first. */
  was: z.array(z.object({ key: z.enum(TURNED_OUT_KEYS), n: z.number().int() })),
})
export type TechniqueAnswer = z.infer<typeof techniqueAnswer>
export const techniqueTold = z.object({ key: idempotencyKey, stationId, was: z.enum(TURNED_OUT_KEYS) })
