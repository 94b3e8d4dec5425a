import { HOUR_MS } from '@core/units/time.ts'
import { RAW_KEPT_MS } from '@server/settle/settle.ts'
import { and, asc, desc, eq, gt, gte, inArray, lt, lte, sql } from 'drizzle-orm'
import {
  correctedMs,
  hourly,
  inOrder,
  stepBetween,
  stepsOf,
  type FeederHour,
  type FeederRow,
} from '@core/clock/telemetry.ts'
import { feederRow, type FeederRowSent, type TelemetryAnswer } from '@contract/telemetry.ts'
import { feeder, telemetryHour, telemetryRow } from '@server/db/schema.ts'
import { insertMany, transact, type Tx } from '@server/db/db.ts'
import { type Deps } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { digest } from '@server/people/people.ts'

/**
 * Rows of one feeder, as it sends or resends them.
 *
 * 1. Kept once per (equipment, boot, sequence): the same batch again changes nothing.
 * 2. A batch that goes on where the feeder stands only adds to its hours. Any other (late, filling a gap) rolls the hours it
 *    touches again from the rows, from the one before it to the one after it.
 * 3. The feeder's line is locked first, so two batches of one feeder wait for each other.
 */
type FeederLine = typeof feeder.$inferSelect
type RawRow = typeof telemetryRow.$inferInsert

const AHEAD_MS = 5 * 60_000

export async function takeTelemetry(
  deps: Deps,
  token: string | undefined,
  request: { sentMs: number; rows: unknown[] },
): Promise<TelemetryAnswer> {
  const hash = digest(token ?? '')
  return transact(deps.db, async (tx) => {
    const [line] = await tx
      .select()
      .from(feeder)
      .where(and(eq(feeder.tokenHash, hash), eq(feeder.isActive, true)))
      .for('update')
    if (!line)
      throw new DomainError('not-signed-in', 'No feeder of this shop has that token.', [
        'Make one in Our shop, and send it as "Authorization: Bearer …".',
      ])
    const receivedMs = deps.now()
    const { good, refused } = sortOut(request, { line, receivedMs })
    const fresh = await onlyNew(tx, line, good)
    await insertMany(tx, telemetryRow, { rows: fresh })
    if (fresh.length > 0) await roll(tx, line, fresh.map(plainRow))
    const newest = good.reduce<FeederRowSent | null>(
      (last, { sent }) => (!last || sent.deviceMs >= last.deviceMs ? sent : last),
      null,
    )
    const clockOffMs = request.sentMs - receivedMs
    await tx
      .update(feeder)
      .set({
        receivedMs,
        clockOffMs,
        isArcOn: newest?.isArcOn ?? line.isArcOn,
        // Since when it waits to be counted: whoever waits longest is next.
        ...(fresh.length > 0 ? { dirtyMs: line.dirtyMs ?? receivedMs, thinnedMs: thinnedBefore(line, fresh) } : {}),
      })
      .where(eq(feeder.equipmentId, line.equipmentId))
    return { accepted: fresh.length, duplicates: good.length - fresh.length, refused, clockOffMs }
  })
}

/** What was kept back on the device and comes late is thinned too. */
const thinnedBefore = ({ thinnedMs }: FeederLine, fresh: readonly FeederRow[]): number | null =>
  thinnedMs === null ? null : fresh.reduce((least, r) => Math.min(least, r.atMs), thinnedMs)

/** Each row by itself: what it says, or why it can't be taken. */
function sortOut(
  request: { sentMs: number; rows: unknown[] },
  at: { line: FeederLine; receivedMs: number },
): { good: { sent: FeederRowSent; atMs: number }[]; refused: TelemetryAnswer['refused'] } {
  const good: { sent: FeederRowSent; atMs: number }[] = []
  const refused: TelemetryAnswer['refused'] = []
  request.rows.forEach((given, index) => {
    const read = feederRow.safeParse(given)
    const why = read.success ? whyNot(read.data, request.sentMs, at) : whyUnread(read.error)
    if (why !== null || !read.success) return void refused.push({ index, why: why ?? 'unreadable' })
    good.push({ sent: read.data, atMs: correctedMs(read.data, { sentMs: request.sentMs, receivedMs: at.receivedMs }) })
  })
  return { good, refused }
}

const whyUnread = (problem: { issues: readonly { path: PropertyKey[]; message: string }[] }) =>
  problem.issues.map((i) => `${i.path.join('.') || 'row'}: ${i.message}`).join('; ')

function whyNot(row: FeederRowSent, sentMs: number, at: { line: FeederLine; receivedMs: number }): string | null {
  if (row.equipmentId !== at.line.equipmentId)
    return `this token belongs to ${at.line.equipmentId}, not to ${row.equipmentId}`
  if (row.deviceMs > sentMs + AHEAD_MS) return 'deviceMs lies after sentMs: the row was taken before it was sent'
  if (sentMs - row.deviceMs > RAW_KEPT_MS)
    return 'older than 14 days: the rows it would stand between are not kept any more'
  return null
}

async function onlyNew(
  tx: Tx,
  line: FeederLine,
  good: readonly { sent: FeederRowSent; atMs: number }[],
): Promise<(RawRow & FeederRow)[]> {
  const rows = new Map(good.map(({ sent, atMs }) => [`${sent.bootId} ${sent.seq}`, { ...rawOf(sent), atMs }]))
  const isAhead = [...rows.values()].every((r) => r.bootId === line.bootId && r.seq > (line.seq ?? -1))
  if (isAhead || rows.size === 0) return [...rows.values()]
  const boots = [...new Set([...rows.values()].map((r) => r.bootId))]
  const seqs = [...rows.values()].map((r) => r.seq)
  const known = await tx
    .select({ bootId: telemetryRow.bootId, seq: telemetryRow.seq })
    .from(telemetryRow)
    .where(
      and(
        eq(telemetryRow.equipmentId, line.equipmentId),
        inArray(telemetryRow.bootId, boots),
        gte(telemetryRow.seq, Math.min(...seqs)),
        lte(telemetryRow.seq, Math.max(...seqs)),
      ),
    )
  known.forEach((k) => rows.delete(`${k.bootId} ${k.seq}`))
  return [...rows.values()]
}

const rawOf = (r: FeederRowSent) => ({
  equipmentId: r.equipmentId,
  bootId: r.bootId,
  seq: r.seq,
  wireFedM: r.wireFedM,
  arcOnS: r.arcOnS,
  arcStarts: r.arcStarts,
  amps: r.amps ?? null,
  volts: r.volts ?? null,
  motorAmps: r.motorAmps ?? null,
  gasFlowLpm: r.gasFlowLpm ?? null,
  rollFedM: r.rollFedM ?? null,
  startsFailed: r.startsFailed ?? null,
})
const plainRow = ({ bootId, seq, atMs, wireFedM, arcOnS, arcStarts }: FeederRow): FeederRow => ({
  bootId,
  seq,
  atMs,
  wireFedM,
  arcOnS,
  arcStarts,
})

/** Where the feeder stands: its newest row in order; null before its first. */
function standOf(line: FeederLine): FeederRow | null {
  const { bootId, seq, atMs, wireFedM, arcOnS, arcStarts } = line
  if (bootId === null || seq === null || atMs === null || wireFedM === null || arcOnS === null || arcStarts === null)
    return null
  return { bootId, seq, atMs, wireFedM, arcOnS, arcStarts }
}

async function roll(tx: Tx, line: FeederLine, fresh: readonly FeederRow[]): Promise<void> {
  const stand = standOf(line)
  const sorted = inOrder(fresh)
  const [first] = sorted
  if (!first) return
  const goesOn = !stand || (first.bootId === stand.bootId ? first.seq > stand.seq : first.atMs >= stand.atMs)
  const isOneBoot = sorted.every((r) => r.bootId === first.bootId)
  const last = goesOn && isOneBoot ? await addOn(tx, line, { stand, sorted }) : await rollAgain(tx, line, sorted)
  if (last) await tx.update(feeder).set(last).where(eq(feeder.equipmentId, line.equipmentId))
}

async function addOn(
  tx: Tx,
  line: FeederLine,
  at: { stand: FeederRow | null; sorted: readonly FeederRow[] },
): Promise<FeederRow> {
  let before = at.stand
  const steps = at.sorted.map((row) => {
    const next: FeederRow = before ? { ...row, atMs: Math.max(row.atMs, before.atMs) } : row
    const step = stepBetween(before, next)
    before = next
    return step
  })
  const rows = hourly(steps).map((hour) => hourRow(line, hour))
  if (rows.length > 0)
    await tx
      .insert(telemetryHour)
      .values(rows)
      .onDuplicateKeyUpdate({
        set: {
          wireFedM: sql`${telemetryHour.wireFedM} + values(wire_fed_m)`,
          arcOnS: sql`${telemetryHour.arcOnS} + values(arc_on_s)`,
          arcStarts: sql`${telemetryHour.arcStarts} + values(arc_starts)`,
          toMs: sql`greatest(${telemetryHour.toMs}, values(to_ms))`,
        },
      })
  return before as unknown as FeederRow
}

const hourRow = (line: FeederLine, hour: FeederHour) => ({
  headId: line.headId,
  equipmentId: line.equipmentId,
  ...hour,
})
const hourOf = (ms: number) => Math.floor(ms / HOUR_MS) * HOUR_MS

/** Rolls the hours around some rows again, from the row before the first of these hours to the row after the last. */
async function rollAgain(tx: Tx, line: FeederLine, fresh: readonly FeederRow[]): Promise<FeederRow | null> {
  const times = fresh.map((r) => r.atMs)
  const before = await neighbour(tx, line, { beforeMs: Math.min(...times) })
  const after = await neighbour(tx, line, { afterMs: Math.max(...times) })
  const fromMs = hourOf(before?.atMs ?? Math.min(...times) - HOUR_MS)
  const toMs = hourOf(after?.atMs ?? Math.max(...times)) + HOUR_MS
  const lead = await neighbour(tx, line, { beforeMs: fromMs })
  const tail = await neighbour(tx, line, { afterMs: toMs })
  const rows = await tx
    .select()
    .from(telemetryRow)
    .where(
      and(
        eq(telemetryRow.equipmentId, line.equipmentId),
        gte(telemetryRow.atMs, lead?.atMs ?? fromMs),
        lte(telemetryRow.atMs, tail?.atMs ?? toMs),
      ),
    )
    .orderBy(asc(telemetryRow.atMs))
  const ordered = inOrder(rows)
  // Without a row before it the first step would be guessed anew; with one, that one only leads in.
  const steps = stepsOf(ordered).slice(lead ? 1 : 0)
  const hours = hourly(steps).filter((h) => h.hourMs >= fromMs && h.hourMs < toMs)
  const here = and(eq(telemetryHour.headId, line.headId), eq(telemetryHour.equipmentId, line.equipmentId))
  await tx.delete(telemetryHour).where(and(here, gte(telemetryHour.hourMs, fromMs), lt(telemetryHour.hourMs, toMs)))
  await insertMany(tx, telemetryHour, { rows: hours.map((hour) => hourRow(line, hour)) })
  const newest = ordered.at(-1)
  return tail || !newest ? null : plainRow(newest)
}

async function neighbour(
  tx: Tx,
  line: FeederLine,
  at: { beforeMs: number } | { afterMs: number },
): Promise<FeederRow | null> {
  const [where, order] =
    'beforeMs' in at
      ? [lt(telemetryRow.atMs, at.beforeMs), desc(telemetryRow.atMs)]
      : [gt(telemetryRow.atMs, at.afterMs), asc(telemetryRow.atMs)]
  const [row] = await tx
    .select()
    .from(telemetryRow)
    .where(and(eq(telemetryRow.equipmentId, line.equipmentId), where))
    .orderBy(order)
    .limit(1)
  return row ?? null
}
