import { type ReliedSymptom } from '@core/diagnose/relied.ts'
import { type FamilyId, type CarrierId, type EventId, type PartId, type SpoolId, type WireId } from '@core/ids/id.ts'
import { hasIdentity, isOutGood, kindOfPosition, type OutReason, type Position } from '@core/path/columns.ts'
import { type Tag } from '@core/changeover/tags.ts'
import { type Stuck } from '@core/liner/resistance.ts'
import { type StopTold } from '@core/liner/signs.ts'
import { followUp, type Pending } from '@core/followup/followup.ts'
import { type FollowUp } from '@core/followup/keys.ts'
import { type TaskKey } from '@core/guide/keys.ts'
import { ROLL_SETTINGS, type SettingName } from '@core/rightparts/facts.ts'
import { type GunStatus, type Overrun, type Precision, type ReadingFact } from './event.ts'
import { byTime, type Standing } from './resolve.ts'

/**
 * One carrier's story from its standing facts, in the order they happened.
 *
 *   position:  empty ──fitted──> in place ──removed──> empty
 *              in place ──fitted──> in place (the old life ends, reason as said)
 *
 * 1. Pure: the same facts give the same story, whatever order they came in.
 * 2. Each position has at most one open life, and no two lives of one position are on at the same time.
 *   found: names the part in place; another part than was known there ends the old life, at a time nobody knows
 *
 *   again: a part that is told apart, taken out good, goes back on: its old life runs on, with the time between off
 *
 * 3. A carrier hangs on at most one other at a time.
 */
export interface FoldedLife {
  position: Position
  partId: PartId | null
  fromMs: number
  fromEventId: EventId
  fromPrecision: Precision
  entryAge: 'new' | 'unknown'
  toMs: number | null
  toEventId: EventId | null
  toPrecision: Precision | null
  outReason: OutReason | null
  /** How many parts this stretch stands for; over 1 the lives are coarse, 0: its end was never seen. */
  count: number
  /** While it was off, of one that went back on. */
  offs: { fromMs: number; toMs: number }[]
  /** Times it was cleaned while in place. */
  cleanings: number
}
export interface FoldedPosition {
  position: Position | typeof ALL_POSITIONS
  openLife: FoldedLife | null
  cleanedMs: number | null
  cleanings: number
  seenMs: number | null
  /** Changed, cleaned, taken out or looked at by itself: that all was looked over in one tap does not count. */
  touchedMs: number | null
}
export interface FoldedMount {
  onId: CarrierId
  fromMs: number
  toMs: number | null
  fromEventId: EventId
}
export interface FoldedSpool {
  atMs: number
  wireId: WireId | null
  labelKg: number | null
  leftKg: number | null
  loggedMs: number
  eventId: EventId
  spoolId: SpoolId | null
  /** Seen on the hub, not put on: it counts as no change of spool. */
  isFound: boolean
  /** When it came off again, before another went on; and what was then left on it, where somebody said. */
  offMs: number | null
  offLeftKg: number | null
  /** What was found on it while it hung there. */
  reads: { atMs: number; kg: number; sdKg: number; loggedMs: number; isWeighed: boolean }[]
}

export interface FoldedSetting {
  value: string
  atMs: number
  /** Since when it stands at this value, as far as anybody said. */
  sinceMs: number
  how: 'read' | 'set'
}
export interface FoldedTag {
  sinceMs: number
  untilMs: number | null
  eventId: EventId
  partIds: PartId[]
}

export interface FoldedTask {
  eventId: EventId
  task: TaskKey
  familyId: FamilyId | null
  minutes: number
  /** What it was planned to take; null where nobody planned. */
  usualMin: number | null
  reason: Overrun | null
  atMs: number
}

export type FoldedReading = Omit<ReadingFact, 'kind' | 'carrierId'> & { eventId: EventId; atMs: number }
/** Traction of a feeder's knob as slip pulls told it: N, N a mark. */
export interface FoldedCalibration {
  atMs: number
  wireId: WireId | null
  atZeroN: number
  perMarkN: number
}

export interface CarrierStory {
  lives: FoldedLife[]
  /** `*`: what was said of the whole carrier. */
  positions: Map<Position | typeof ALL_POSITIONS, FoldedPosition>
  mounts: FoldedMount[]
  spools: FoldedSpool[]
  settings: Map<SettingName, FoldedSetting>
  /** Temporary settings that nobody has undone. */
  tags: Map<Tag, FoldedTag>
  status: { is: GunStatus; sinceMs: number } | null
  /** What its acts made necessary and nobody has done yet. */
  followUps: Map<FollowUp, Pending>
  /** Cleanings of the nozzle since the diffuser was clean. */
  sinceDeep: number
  /** Work done by the list, with its minutes. */
  tasks: FoldedTask[]
  readings: FoldedReading[]
  /** Where liners stuck on their way in. */
  stuck: Stuck[]
  /** Liners that kinked on their way in. */
  kinksMs: number[]
  /** Stops as they were looked into, at a station. */
  stops: StopTold[]
  calibrations: FoldedCalibration[]
  lastMs: number | null
}

export function foldCarrier(facts: readonly Standing[]): CarrierStory {
  const story: CarrierStory = {
    lives: [],
    positions: new Map(),
    mounts: [],
    spools: [],
    settings: new Map(),
    tags: new Map(),
    status: null,
    followUps: new Map(),
    sinceDeep: 0,
    tasks: [],
    readings: [],
    stuck: [],
    kinksMs: [],
    stops: [],
    calibrations: [],
    lastMs: null,
  }
  for (const fact of [...facts].sort(byTime)) apply(story, fact)
  for (const position of story.positions.values()) if (position.openLife) story.lives.push(position.openLife)
  return story
}

function positionOf(story: CarrierStory, position: Position | typeof ALL_POSITIONS): FoldedPosition {
  const known = story.positions.get(position)
  if (known) return known
  const made = { position, openLife: null, cleanedMs: null, cleanings: 0, seenMs: null, touchedMs: null }
  story.positions.set(position, made)
  return made
}

function apply(story: CarrierStory, standing: Standing): void {
  const { fact, happenedMs } = standing
  story.lastMs = happenedMs
  applyFollowUps(story, standing)
  switch (fact.kind) {
    case 'fitted':
      return applyFitted(story, standing, fact)
    case 'removed':
      return applyRemoved(story, standing, fact)
    case 'cleaned':
      return applyCleaned(positionOf(story, fact.position), happenedMs)
    case 'confirmed':
      return applyConfirmed(story, fact.position, happenedMs)
    case 'mounted':
      return applyMounted(story, standing, fact.onId)
    case 'wireLoaded':
      story.spools.push(newSpool(standing, { ...fact, isFound: false }))
      return
    case 'wireFound':
      return applyWireFound(story, standing, fact.wireId)
    case 'found':
      return applyFound(story, standing, fact)
    case 'setting':
    case 'tied':
    case 'untied':
    case 'gunStatus':
      return applyState(story, standing, fact)
    case 'wireOff':
      return applyOff(story, happenedMs, fact.leftKg)
    case 'spoolRead':
      return applyRead(story, standing, fact)
    default:
      return applyKept(story, standing)
  }
}

function applyRead(
  story: CarrierStory,
  standing: Standing,
  fact: Extract<Standing['fact'], { kind: 'spoolRead' }>,
): void {
  const { leftKg: kg, sdKg } = fact
  const { happenedMs: atMs, loggedMs } = standing
  story.spools.at(-1)?.reads.push({ atMs, kg, sdKg, loggedMs, isWeighed: fact.how === 'weighed' })
}

/** What only adds to a list. */
function applyKept(story: CarrierStory, standing: Standing): void {
  const { fact } = standing
  if (fact.kind === 'taskDone' || fact.kind === 'changedOver') applyTask(story, standing, fact)
  if (fact.kind === 'stuck' && fact.atMm !== null) story.stuck.push({ atMm: fact.atMm, atMs: standing.happenedMs })
  if (fact.kind === 'stuck' && fact.isKinked) story.kinksMs.push(standing.happenedMs)
  if (fact.kind === 'reading' || fact.kind === 'calibrated') applyReading(story, standing, fact)
  if (fact.kind === 'explained') applyExplained(story, standing.happenedMs, fact)
}

type ExplainedFact = Extract<Standing['fact'], { kind: 'explained' }>
/** What was said of a stop, at the time the stop began; at that of the word where nobody said which. */
export function stopTold(fact: ExplainedFact, happenedMs: number): StopTold {
  const { stopFromMs, said, cause, isCertain, closing } = fact
  return { atMs: stopFromMs ?? happenedMs, said, cause, isCertain, closing }
}
/** Said again of the same stop, the last counts. */
function applyExplained(story: CarrierStory, happenedMs: number, fact: ExplainedFact): void {
  const told = stopTold(fact, happenedMs)
  story.stops = [...story.stops.filter((s) => s.atMs !== told.atMs), told]
}

type MeasureFact = Extract<Standing['fact'], { kind: 'reading' | 'calibrated' }>
function applyReading(story: CarrierStory, { eventId, happenedMs: atMs }: Standing, fact: MeasureFact): void {
  if (fact.kind === 'calibrated') {
    const { wireId, atZeroN, perMarkN } = fact
    story.calibrations.push({ atMs, wireId, atZeroN, perMarkN })
    return
  }
  const { kind: _, carrierId: __, ...said } = fact
  story.readings.push({ eventId, atMs, ...said })
}

type TaskFact = Extract<Standing['fact'], { kind: 'taskDone' | 'changedOver' }>
function applyTask(story: CarrierStory, { happenedMs: atMs, eventId }: Standing, fact: TaskFact): void {
  if (fact.minutes === null) return
  if (fact.kind === 'taskDone') {
    const { task, familyId, minutes, reason } = fact
    story.tasks.push({ eventId, task, familyId, minutes, usualMin: null, reason, atMs })
  } else
    story.tasks.push({
      eventId,
      task: 'change',
      familyId: null,
      minutes: fact.minutes,
      usualMin: fact.usualMin ?? null,
      reason: null,
      atMs,
    })
}

const isDeepCleaned = (fact: Standing['fact']) =>
  fact.kind === 'followedUp'
    ? fact.task === 'deepClean'
    : (fact.kind === 'cleaned' || fact.kind === 'fitted') && fact.position === 'diffuser'

const CRASH: ReliedSymptom = 'crash'
/** Before the fact itself is applied: what was on till now tells whether another part goes on. */
function applyFollowUps(story: CarrierStory, { fact, happenedMs }: Standing): void {
  const position = 'position' in fact ? fact.position : null
  if (isDeepCleaned(fact)) story.sinceDeep = 0
  const before = position ? story.positions.get(position)?.openLife?.partId : null
  const hung = story.mounts.at(-1)
  followUp(
    story.followUps,
    {
      kind: fact.kind,
      position,
      isOtherPart: fact.kind === 'fitted' && Boolean(before && fact.partId && before !== fact.partId),
      isKnocked: 'outReason' in fact && fact.outReason === 'knocked',
      isSeatedAgain:
        fact.kind === 'mounted' &&
        !fact.as &&
        fact.onId !== null &&
        hung !== undefined &&
        (hung.onId !== fact.onId || hung.toMs !== null),
      hasCrashed: fact.kind === 'crashed' || (fact.kind === 'explained' && fact.symptom === CRASH),
      isNeckOn: fact.kind === 'mounted' && fact.as === 'neck' && fact.onId !== null,
      followedUp: fact.kind === 'followedUp' ? fact.task : null,
      isRaised: fact.kind === 'reading' && typeof fact.from['keepDays'] === 'number',
      nozzleCleanings: fact.kind === 'cleaned' && fact.position === 'nozzle' ? ++story.sinceDeep : 0,
    },
    happenedMs,
  )
}

type StateFact = Extract<Standing['fact'], { kind: 'setting' | 'tied' | 'untied' | 'gunStatus' }>
function applyState(story: CarrierStory, standing: Standing, fact: StateFact): void {
  const { happenedMs: atMs, eventId } = standing
  if (fact.kind === 'setting') {
    const { name, value, how } = fact
    const before = story.settings.get(name)
    story.settings.set(name, { value, atMs, how, sinceMs: before?.value === value ? before.sinceMs : atMs })
  } else if (fact.kind === 'untied') story.tags.delete(fact.tag)
  else if (fact.kind === 'gunStatus') story.status = { is: fact.status, sinceMs: atMs }
  else {
    const { partIds = [], untilMs = null } = fact
    story.tags.set(fact.tag, { sinceMs: atMs, untilMs, eventId, partIds })
  }
}

function newSpool(
  standing: Standing,
  what: {
    wireId: WireId | null
    labelKg: number | null
    leftKg: number | null
    spoolId?: SpoolId | undefined
    isFound: boolean
  },
): FoldedSpool {
  return {
    atMs: standing.happenedMs,
    wireId: what.wireId,
    labelKg: what.labelKg,
    leftKg: what.leftKg,
    loggedMs: standing.loggedMs,
    eventId: standing.eventId,
    spoolId: what.spoolId ?? null,
    isFound: what.isFound,
    offMs: null,
    offLeftKg: null,
    reads: [],
  }
}

/** The wire that hangs there names the spool that is on; another wire than was logged is another spool. */
function applyWireFound(story: CarrierStory, standing: Standing, wireId: WireId): void {
  const on = story.spools.at(-1)
  if (on && on.offMs === null && (on.wireId === null || on.wireId === wireId)) on.wireId = wireId
  else story.spools.push(newSpool(standing, { wireId, labelKg: null, leftKg: null, isFound: true }))
}

function applyOff(story: CarrierStory, atMs: number, leftKg: number | null): void {
  const spool = story.spools.at(-1)
  if (!spool || spool.offMs !== null) return
  spool.offMs = atMs
  spool.offLeftKg = leftKg
}

function applyFitted(
  story: CarrierStory,
  standing: Standing,
  fact: Extract<Standing['fact'], { kind: 'fitted' }>,
): void {
  const position = positionOf(story, fact.position)
  // Looked for before what is on comes out: that is not what goes back.
  const before = fact.again ? takeBack(story, fact, standing.happenedMs) : null
  // With ×n the part found on was the first of n since the last log: the stretch stands for n lives, none of them exact.
  if (position.openLife) closeLife(story, position, { standing, reason: fact.outReason, count: fact.count })
  position.openLife =
    before ?? newLife(standing, { position: fact.position, partId: fact.partId, entryAge: fact.entryAge })
  position.cleanedMs = standing.happenedMs
  position.cleanings = before?.cleanings ?? 0
  position.seenMs = standing.happenedMs
  position.touchedMs = standing.happenedMs
  if (kindOfPosition(fact.position) === 'rolls') forgetFaces(story, standing.happenedMs)
}

/** Other rolls, and nobody has read which number faces out: what was read of the old ones says nothing of them. */
function forgetFaces({ settings }: CarrierStory, atMs: number): void {
  for (const name of ROLL_SETTINGS) if ((settings.get(name)?.atMs ?? atMs) < atMs) settings.delete(name)
}

/** The last that was taken out good there, of that part where one was named: it runs on. */
function takeBack(
  story: CarrierStory,
  { position, partId }: { position: Position; partId: PartId | null },
  atMs: number,
): FoldedLife | null {
  if (!hasIdentity(position)) return null
  const life = story.lives.findLast(
    (l) =>
      l.position === position &&
      (partId === null || l.partId === null || l.partId === partId) &&
      isOutGood(l.outReason ?? 'notSaid') &&
      l.count === 1 &&
      l.toMs !== null &&
      l.toMs <= atMs,
  )
  if (!life || life.toMs === null) return null
  story.lives.splice(story.lives.indexOf(life), 1)
  const offs = [...life.offs, { fromMs: life.toMs, toMs: atMs }]
  return {
    ...life,
    offs,
    partId: life.partId ?? partId,
    toMs: null,
    toEventId: null,
    toPrecision: null,
    outReason: null,
  }
}

function applyFound(story: CarrierStory, standing: Standing, fact: Extract<Standing['fact'], { kind: 'found' }>): void {
  const position = positionOf(story, fact.position)
  position.seenMs = standing.happenedMs
  const life = position.openLife
  if (life && (life.partId === null || fact.partId === null || life.partId === fact.partId)) {
    life.partId = fact.partId ?? life.partId
    return
  }
  if (life) closeLife(story, position, { standing, reason: 'notSaid', count: 0 })
  position.openLife = newLife(standing, { position: fact.position, partId: fact.partId, entryAge: 'unknown' })
}

function newLife(standing: Standing, what: Pick<FoldedLife, 'position' | 'partId' | 'entryAge'>): FoldedLife {
  return {
    ...what,
    fromMs: standing.happenedMs,
    fromEventId: standing.eventId,
    fromPrecision: standing.precision,
    toMs: null,
    toEventId: null,
    toPrecision: null,
    outReason: null,
    count: 1,
    offs: [],
    cleanings: 0,
  }
}

function closeLife(
  story: CarrierStory,
  position: FoldedPosition,
  end: { standing: Standing; reason: OutReason; count: number },
): void {
  const life = position.openLife
  if (!life) return
  story.lives.push({
    ...life,
    toMs: end.standing.happenedMs,
    toEventId: end.standing.eventId,
    toPrecision: end.standing.precision,
    outReason: end.reason,
    count: end.count,
    cleanings: position.cleanings,
  })
  position.openLife = null
}

function applyRemoved(
  story: CarrierStory,
  standing: Standing,
  fact: Extract<Standing['fact'], { kind: 'removed' }>,
): void {
  const position = positionOf(story, fact.position)
  closeLife(story, position, { standing, reason: fact.outReason, count: 1 })
  position.seenMs = standing.happenedMs
  position.touchedMs = standing.happenedMs
  position.cleanedMs = null
}

function applyCleaned(position: FoldedPosition, atMs: number): void {
  position.cleanedMs = atMs
  position.cleanings += 1
  position.seenMs = atMs
  position.touchedMs = atMs
}

function applyConfirmed(story: CarrierStory, at: Position | null, atMs: number): void {
  if (at) Object.assign(positionOf(story, at), { seenMs: atMs, touchedMs: atMs })
  else {
    for (const position of story.positions.values()) position.seenMs = atMs
    positionOf(story, ALL_POSITIONS).seenMs = atMs
  }
}

/** Stands for "the whole carrier was looked at"; positions with no log of their own read it. */
export const ALL_POSITIONS = '*'

function applyMounted(story: CarrierStory, standing: Standing, onId: CarrierId | null): void {
  const open = story.mounts.at(-1)
  if (open && open.toMs === null) {
    if (open.onId === onId) return
    open.toMs = standing.happenedMs
    if (open.toMs === open.fromMs) story.mounts.pop()
  }
  if (onId) story.mounts.push({ onId, fromMs: standing.happenedMs, toMs: null, fromEventId: standing.eventId })
}
