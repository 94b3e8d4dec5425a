import { type CarrierId } from '@core/ids/id.ts'
import { closedShare, FOUND_KEPT, type FoundOn } from '@core/cleaning/interval.ts'
import { monthsOfUse } from '@core/clock/months.ts'
import { type HeadClocks } from '@core/clock/headclock.ts'
import { usedBetween } from '@core/clock/clock.ts'
import { type Span } from '@core/clock/schedule.ts'
import { CLOCKED, COUNTERS } from '@core/clock/source.ts'
import { labelSdKg } from '@core/spools/left.ts'
import {
  ALL_POSITIONS,
  type CarrierStory,
  type FoldedLife,
  type FoldedPosition,
  type FoldedSpool,
} from '@core/ledger/fold.ts'
import { exposureOver, exposureOf, withoutOffs, type ChainStretch, type Exposure } from '@core/ledger/exposure.ts'
import { evidenceOf, isNoEvidence, type LinerEvidence, type StopTold } from '@core/liner/signs.ts'
import { kindOfPosition, type Position } from '@core/path/columns.ts'
import { alarmsOf, type KeptReading, type WireOn } from '@core/reading/alarms.ts'
import {
  type carrierNow,
  type headMonth,
  type headNow,
  type life,
  type mount,
  type positionNow,
  type reading,
  type taskDone,
} from '@server/db/schema.ts'
import { once } from '@server/shopmodel/model.ts'
import { type Gathered } from './gather.ts'

export type LifeRow = typeof life.$inferSelect
export type PositionRow = typeof positionNow.$inferSelect
export type HeadRow = typeof headNow.$inferSelect
export type HeadMonthRow = typeof headMonth.$inferSelect
export type CarrierNowRow = typeof carrierNow.$inferSelect
export type MountRow = typeof mount.$inferSelect
export type TaskRow = typeof taskDone.$inferSelect
export type ReadingRow = typeof reading.$inferSelect

const NO_CLOCKS: HeadClocks = { kg: null, arcHours: null, starts: null }
const clocksFrom = (gathered: Gathered) => (headId: CarrierId) => gathered.clocks.get(headId) ?? NO_CLOCKS

/** Ended lives of a carrier with the use they did. */
export function lifeRows(id: CarrierId, gathered: Gathered, classKey: string | null): LifeRow[] {
  const story = gathered.stories.get(id)
  const stretches = gathered.stretchesOf(id)
  const clocks = clocksFrom(gathered)
  return (story?.lives ?? []).flatMap((l) => {
    if (l.toMs === null) return []
    const on = withoutOffs(stretches, l.offs)
    const used = exposureOver(on, clocks, { fromMs: l.fromMs, toMs: l.toMs })
    return [
      {
        ...endedLife(l, l.toMs),
        ...counted(id, gathered, { fromMs: l.fromMs, toMs: l.toMs, offs: l.offs }),
        carrierId: id,
        classKey,
        kg: used.kg?.amount ?? null,
        arcHours: used.arcHours?.amount ?? null,
        starts: used.starts?.amount ?? null,
        km: used.km?.amount ?? null,
      },
    ]
  })
}

function endedLife(l: FoldedLife, toMs: number) {
  return {
    fromEventId: l.fromEventId,
    position: l.position,
    kindKey: kindOfPosition(l.position),
    partId: l.partId,
    fromMs: l.fromMs,
    fromPrecision: l.fromPrecision,
    entryAge: l.entryAge,
    toMs,
    toPrecision: l.toPrecision ?? 'exact',
    toEventId: l.toEventId ?? l.fromEventId,
    outReason: l.outReason ?? 'notSaid',
    parts: l.count,
    cleanings: l.cleanings,
  } as const
}

/** What is on each position, and its use up to each counter's last entry; what runs on after that is added when asked. */
export function positionRows(id: CarrierId, gathered: Gathered): PositionRow[] {
  const story = gathered.stories.get(id)
  const row = gathered.carriers.get(id)
  if (!story || !row) return []
  const seenAll = story.positions.get(ALL_POSITIONS)?.seenMs ?? null
  const extra = [...story.positions.values()].flatMap((p) => p.openLife?.position ?? [])
  const names = [...new Set([...row.positions, ...extra])]
  const whole = gathered.stretchesOf(id)
  return names.map((position) => {
    const at: FoldedPosition | undefined = story.positions.get(position)
    const stretches = withoutOffs(whole, at?.openLife?.offs ?? [])
    const last = stretches.at(-1)
    const chainFromMs = last && last.toMs === null ? last.fromMs : null
    const since = (fromMs: number | null | undefined) =>
      fromMs === null || fromMs === undefined ? null : usedSince(stretches, gathered, fromMs)
    return {
      carrierId: id,
      position,
      partId: at?.openLife?.partId ?? null,
      fittedMs: at?.openLife?.fromMs ?? null,
      fittedEventId: at?.openLife?.fromEventId ?? null,
      entryAge: at?.openLife?.entryAge ?? null,
      cleanedMs: at?.cleanedMs ?? null,
      cleanings: at?.cleanings ?? 0,
      seenMs: latest(at?.seenMs ?? null, seenAll),
      chainFromMs,
      ...counted(id, gathered, {
        fromMs: at?.openLife?.fromMs ?? Infinity,
        toMs: Infinity,
        offs: at?.openLife?.offs ?? [],
      }),
      sinceFitted: since(at?.openLife?.fromMs),
      sinceCleaned: since(at?.openLife ? at.cleanedMs : null),
    }
  })
}

/** What the ledger itself counts over a stretch: seatings of the gun, spools put on the heads it hung on. */
function counted(
  id: CarrierId,
  gathered: Gathered,
  span: { fromMs: number; toMs: number; offs: FoldedLife['offs'] },
): { matings: number; spools: number } {
  const { seatedMs, loadedMs } = timesOf(gathered)
  const during = (times: readonly number[], among: Span): number =>
    within(times, among) - span.offs.reduce((sum, off) => sum + within(times, meetOf(among, afterOf(off))), 0)
  const after = afterOf(span)
  return {
    matings: during(seatedMs(id), after),
    spools: gathered
      .stretchesOf(id)
      .reduce(
        (sum, stretch) =>
          sum + during(loadedMs(stretch.headId), meetOf(after, { ...stretch, toMs: stretch.toMs ?? Infinity })),
        0,
      ),
  }
}
/** From just after its beginning up to and with its end, in whole milliseconds. */
const afterOf = ({ fromMs, toMs }: Span): Span => ({ fromMs: fromMs + 1, toMs: toMs + 1 })
const meetOf = (a: Span, b: Span): Span => ({
  fromMs: Math.max(a.fromMs, b.fromMs),
  toMs: Math.min(a.toMs, b.toMs),
})
/** How many of these times, in order, lie in a stretch: from its beginning, before its end. */
const within = (times: readonly number[], { fromMs, toMs }: Span): number =>
  Math.max(0, firstFrom(times, toMs) - firstFrom(times, fromMs))
function firstFrom(times: readonly number[], atMs: number): number {
  let [low, high] = [0, times.length]
  while (low < high) {
    const mid = (low + high) >> 1
    if ((times[mid] ?? Infinity) >= atMs) high = mid
    else low = mid + 1
  }
  return low
}

interface Times {
  seatedMs: (id: string) => readonly number[]
  loadedMs: (headId: string) => readonly number[]
}
const timesByGathered = new WeakMap<Gathered, Times>()
/** When carriers were hung and spools put on heads, in order: asked for once a life. */
function timesOf(gathered: Gathered): Times {
  const known = timesByGathered.get(gathered)
  if (known) return known
  const inOrder = (times: number[]) => times.sort((a, b) => a - b)
  const made = {
    seatedMs: once((id: string) => inOrder((gathered.stories.get(id)?.mounts ?? []).map((m) => m.fromMs))),
    loadedMs: once((id: string) =>
      inOrder((gathered.stories.get(id)?.spools ?? []).flatMap((l) => (l.isFound ? [] : [l.atMs]))),
    ),
  }
  timesByGathered.set(gathered, made)
  return made
}

const latest = (a: number | null, b: number | null) => (a === null ? b : b === null ? a : Math.max(a, b))

/** Exposure from an instant to the end of each counter's own entries, along the chain. */
function usedSince(stretches: readonly ChainStretch[], gathered: Gathered, fromMs: number): Exposure {
  const clocks = clocksFrom(gathered)
  const exposure: Exposure = { kg: null, arcHours: null, starts: null }
  const open = stretches.at(-1)
  // Length is told only where a kind of part goes by it.
  const counters = open && clocks(open.headId).km !== undefined ? CLOCKED : COUNTERS
  for (const counter of counters) {
    if (!open) continue
    const clock = clocks(open.headId)[counter]
    // Hung on a head without a clock: what it did before still counts, what it does there is not known.
    if (!clock && open.toMs === null && fromMs >= open.fromMs) continue
    const toMs = open.toMs ?? clock?.runOn.fromMs ?? open.fromMs
    exposure[counter] =
      toMs > fromMs
        ? exposureOf(counter, stretches, { clocksOf: clocks, fromMs, toMs })
        : { amount: 0, estimated: 0, sd: 0 }
  }
  return exposure
}

/** Work done by the list. */
export const taskRows = (id: CarrierId, gathered: Gathered): TaskRow[] =>
  (gathered.stories.get(id)?.tasks ?? []).map((task) => ({ ...task, carrierId: id }))

/** What was read, with the use of its chain by then. */
export function readingRows(id: CarrierId, gathered: Gathered): ReadingRow[] {
  const readings = gathered.stories.get(id)?.readings ?? []
  if (readings.length === 0) return []
  const stretches = gathered.stretchesOf(id)
  const clocks = clocksFrom(gathered)
  return readings.map(({ left, limit, from, atMs, is, ...r }) => {
    const used = exposureOver(stretches, clocks, { fromMs: 0, toMs: atMs })
    return {
      ...r,
      carrierId: id,
      leftAt: left,
      limitValue: limit,
      verdict: is,
      madeFrom: from,
      atMs,
      kg: used.kg?.amount ?? null,
      arcHours: used.arcHours?.amount ?? null,
    }
  })
}

/** A stored reading as the core reads it. */
export const keptReading = ({ leftAt, limitValue, verdict, ...r }: ReadingRow): KeptReading => ({
  ...r,
  left: leftAt,
  limit: limitValue,
  is: verdict,
  isRaised: typeof r.madeFrom['keepDays'] === 'number',
})

/** When it went on, first and again. */
const putOn = (l: FoldedLife): number[] => [l.fromMs, ...l.offs.map((o) => o.toMs)]

/** When parts went on, on this carrier and on the feeders it hung on. */
function fittedTimes(id: CarrierId, gathered: Gathered): (position: Position) => number[] {
  const heads = [...new Set(gathered.stretchesOf(id).map((s) => s.headId))]
  const stories = [id, ...heads].flatMap((of) => gathered.stories.get(of) ?? [])
  return (position) => stories.flatMap((story) => story.lives.filter((l) => l.position === position).flatMap(putOn))
}

function touchedTimes(id: CarrierId, gathered: Gathered): (position: Position) => number | null {
  const stories = [id, ...gathered.stretchesOf(id).map((s) => s.headId)].flatMap((of) => gathered.stories.get(of) ?? [])
  return (position) => {
    // That all was looked over in one tap says nothing against a number that was read.
    const seen = stories.flatMap((story) => story.positions.get(position)?.touchedMs ?? [])
    return seen.reduce<number | null>(latest, null)
  }
}

const wireOnHeads =
  (gathered: Gathered): WireOn =>
  (headId) => {
    const spool = headId ? gathered.stories.get(headId)?.spools.at(-1) : undefined
    return spool ? { wireId: spool.wireId, sinceMs: spool.atMs } : null
  }

/** What the cleaning interval learns from: how shut the nozzle was, and how long it had been clean. */
function foundClosed(readings: readonly ReadingRow[]): FoundOn[] {
  const found = readings.flatMap(({ what, value, grade, madeFrom, wireId }) => {
    const share = what === 'nozzleOpen' ? closedShare({ value, grade }) : null
    const arcHours = madeFrom['sinceCleanedH']
    return share !== null && typeof arcHours === 'number' ? [{ closedShare: share, arcHours, wireId }] : []
  })
  return found.slice(-FOUND_KEPT)
}

/** Stops where it hung at that moment: told of the place, and they speak of what hung there. */
export function stopsOver(id: CarrierId, gathered: Gathered): StopTold[] {
  const isIn = (span: { fromMs: number; toMs: number | null }, ms: number) =>
    ms >= span.fromMs && ms < (span.toMs ?? Infinity)
  const hung = gathered.stretchesOf(id)
  return hung.flatMap((stretch) =>
    (gathered.stories.get(stretch.headId)?.mounts ?? []).flatMap((m) =>
      (gathered.stories.get(m.onId)?.stops ?? []).filter((s) => isIn(stretch, s.atMs) && isIn(m, s.atMs)),
    ),
  )
}

/** What speaks of the liner in a gun since it went on. */
function linerEvidence(id: CarrierId, gathered: Gathered, readings: readonly ReadingRow[]): LinerEvidence | null {
  const story = gathered.stories.get(id)
  const life = story?.positions.get('liner')?.openLife
  if (!story || !life) return null
  const { fromMs, offs } = life
  const evidence = evidenceOf({ stops: stopsOver(id, gathered), kinksMs: story.kinksMs, readings }, { fromMs, offs })
  return isNoEvidence(evidence) ? null : evidence
}

/** Slip pulls hold while the same rolls are on. */
function calibrationOf(story: CarrierStory) {
  const last = story.calibrations.at(-1) ?? null
  const rolls = story.lives.filter((l) => l.position === 'rolls').flatMap(putOn)
  return last && rolls.every((ms) => ms <= last.atMs) ? last : null
}

/** Settings, tags, follow-ups, alarms and status; no row where nothing was ever said. */
export function carrierNowRows(id: CarrierId, gathered: Gathered, readings: readonly ReadingRow[]): CarrierNowRow[] {
  const story = gathered.stories.get(id)
  if (!story) return []
  const liner = linerEvidence(id, gathered, readings)
  if (isSilent(story) && !liner) return []
  const at = {
    fittedAt: fittedTimes(id, gathered),
    touchedAt: touchedTimes(id, gathered),
    wireOn: wireOnHeads(gathered),
  }
  return [
    {
      carrierId: id,
      settings: Object.fromEntries(story.settings),
      tags: Object.fromEntries(story.tags),
      followUps: Object.fromEntries(story.followUps),
      alarms: alarmsOf(readings.map(keptReading), at),
      foundClosed: foundClosed(readings),
      stuck: story.stuck,
      liner,
      lastRead: Object.fromEntries(readings.map((r) => [r.what, r.atMs])),
      calibration: calibrationOf(story),
      status: story.status?.is ?? null,
      statusMs: story.status?.sinceMs ?? null,
    },
  ]
}
const isSilent = (story: CarrierStory) =>
  story.settings.size === 0 &&
  story.tags.size === 0 &&
  story.followUps.size === 0 &&
  story.readings.length === 0 &&
  story.stuck.length === 0 &&
  story.calibrations.length === 0 &&
  !story.status

export function headRow(id: CarrierId, gathered: Gathered): HeadRow {
  const clocks = gathered.clocks.get(id) ?? NO_CLOCKS
  const load = gathered.stories.get(id)?.spools.at(-1)
  const spool = load && load.offMs === null ? load : undefined
  const base = spool ? baseOf(spool) : null
  const ends = COUNTERS.flatMap((c) => clocks[c]?.runOn.fromMs ?? [])
  const used =
    base && clocks.kg && clocks.kg.runOn.fromMs > base.atMs
      ? usedBetween(clocks.kg, base.atMs, clocks.kg.runOn.fromMs).amount
      : 0
  return {
    headId: id,
    runOn: {
      kg: clocks.kg?.runOn ?? null,
      arcHours: clocks.arcHours?.runOn ?? null,
      starts: clocks.starts?.runOn ?? null,
      ...(clocks.km === undefined ? {} : { km: clocks.km?.runOn ?? null }),
    },
    lastEntryMs: ends.length > 0 ? Math.max(...ends) : null,
    spoolWireId: spool?.wireId ?? null,
    spoolKg: base?.kg ?? null,
    spoolMs: base?.atMs ?? null,
    spoolUsedKg: base && clocks.kg ? used : null,
    spoolId: spool?.spoolId ?? null,
    spoolSdKg: base?.sdKg ?? null,
    loadedMs: spool?.atMs ?? null,
  }
}

/** What a head used, month by month. */
export const monthRows = (id: CarrierId, gathered: Gathered): HeadMonthRow[] =>
  monthsOfUse(gathered.clocks.get(id) ?? NO_CLOCKS).map(({ monthMs, ...used }) => ({ headId: id, monthMs, used }))

/** What was on the spool when somebody last knew: read while it hung there, or as its label says. */
function baseOf(spool: FoldedSpool): { atMs: number; kg: number | null; sdKg: number | null } {
  const read = [...spool.reads].sort((a, b) => a.atMs - b.atMs).at(-1)
  if (read) return { atMs: read.atMs, kg: read.kg, sdKg: read.sdKg }
  const { labelKg } = spool
  return { atMs: spool.atMs, kg: labelKg, sdKg: labelKg === null ? null : labelSdKg(labelKg) }
}

export function mountRows(id: CarrierId, story: CarrierStory | undefined): MountRow[] {
  return (story?.mounts ?? []).map((m) => ({
    childId: id,
    onId: m.onId,
    fromMs: m.fromMs,
    toMs: m.toMs,
    fromEventId: m.fromEventId,
  }))
}
