import { makeId } from '@core/ids/id.ts'
import { suitsMm } from '@core/rightparts/chooser.ts'
import { jobWire, learntOf, type JobWire } from '@core/spools/jobwire.ts'
import { SHORT_SHARE } from '@core/spools/left.ts'
import { lengthFromMassM } from '@core/spools/wire.ts'
import { and, eq, inArray, isNotNull, isNull } from 'drizzle-orm'
import { type z } from 'zod'
import {
  type jobDoneRequest,
  type JobsAnswer,
  type jobsRequest,
  type JobSpool,
  type layRequest,
} from '@contract/jobs.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { weldJob } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { wireFacts } from '@server/gunnow/setup.ts'
import { DomainError } from '@server/problem/problem.ts'
import { loadShop, type ShopModel } from '@server/shopmodel/model.ts'
import { changing } from '@server/write/changing.ts'
import { keyOf } from '@server/write/act.ts'
import { readSpools } from './read.ts'

type JobRow = typeof weldJob.$inferSelect

/** Jobs that want wire, and the spools they could be welded from. */
export async function readJobs(deps: Deps, who: Who): Promise<JobsAnswer> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const [open, done, spools] = await Promise.all([
    deps.db.select().from(weldJob).where(isNull(weldJob.doneMs)).orderBy(weldJob.madeMs, weldJob.id),
    doneJobs(deps.db),
    readSpools(deps, who),
  ])
  const learnt = learntOf(done)
  return {
    nowMs: deps.now(),
    jobs: open.flatMap((row) => {
      const need = needOf(row, shop, learnt)
      const wireName = shop.wires.get(row.wireId)?.name
      if (!need || wireName === undefined) return []
      const { id, name, wireId, work, onId } = row
      const { joint, lengthM, pieces } = work
      return [{ jobId: id, name, wireId, wireName, joint, lengthM, pieces, kg: need.kg, sdKg: need.sdKg, onId }]
    }),
    spools: spoolsFor(spools),
    wires: [...shop.wires.values()].map((w) => ({
      ...{ id: w.id, name: w.name, diameterMm: w.diameterMm, spoolKg: w.spoolKg },
      metresPerKg: lengthFromMassM(w, 1),
      pricePerKgMinor: w.fit?.pricePerKgMinor ?? null,
      suitsMm: suitsMm(wireFacts(w)),
    })),
    learnt: learnt && { n: done.length, ratio: learnt.ratio },
  }
}

const doneJobs = async (db: Reader): Promise<{ usedKg: number; computedKg: number }[]> => {
  const rows = await db
    .select({ usedKg: weldJob.usedKg, computedKg: weldJob.computedKg })
    .from(weldJob)
    .where(and(isNotNull(weldJob.usedKg), isNotNull(weldJob.computedKg)))
  return rows.map((r) => ({ usedKg: r.usedKg ?? 0, computedKg: r.computedKg ?? 0 }))
}
function needOf(row: JobRow, shop: ShopModel, learnt: ReturnType<typeof learntOf>): JobWire | null {
  const wire = shop.wires.get(row.wireId)
  return wire ? jobWire(row.work, wireFacts(wire), learnt) : null
}

/** What is on a spool nobody read is a guess too wide to lay a job on. */
function spoolsFor({ guns, shelf }: Awaited<ReturnType<typeof readSpools>>): JobSpool[] {
  const of = (s: { leftKg: number | null; sdKg: number | null; fullKg: number }) => ({
    ...{ kg: s.leftKg ?? 0, sdKg: s.sdKg ?? 0, fullKg: s.fullKg },
    leastUsableKg: SHORT_SHARE * s.fullKg,
  })
  const onGuns = guns.flatMap((g) =>
    g.wireId && (g.leftKg ?? 0) > 0 && !g.isParked
      ? [
          {
            ...{ id: g.spoolId ?? g.stationId, name: g.number ? `spool ${g.number}` : g.name, wireId: g.wireId },
            ...of(g),
            ...{ isFull: false, at: g.name },
          },
        ]
      : [],
  )
  const byNumber = [...shelf].sort((a, b) => a.number - b.number)
  const lying = byNumber.flatMap((s) =>
    s.wireId && (s.leftKg ?? 0) > 0
      ? [{ id: s.spoolId, name: `spool ${s.number}`, wireId: s.wireId, ...of(s), isFull: s.isNew, at: null }]
      : [],
  )
  return [...lying, ...onGuns]
}

/** Jobs as they were typed, pasted or brought in; all of them or none. */
export function addJobs(deps: Deps, who: Who, r: z.output<typeof jobsRequest>) {
  return changing(deps, who, {
    key: r.key,
    change: { of: 'jobs', count: r.jobs.length },
    work: async (tx, w) => {
      const { wires } = await w.shop()
      const unknown = r.jobs.find((j) => !wires.has(j.wireId))
      if (unknown)
        throw new DomainError('not-found', `${unknown.name}: there is no such wire.`, [
          'Add it under parts and wires first.',
        ])
      const madeMs = deps.now()
      await tx.insert(weldJob).values(
        r.jobs.map(({ name, wireId, ...work }, i) => ({
          ...{ id: makeId('job', madeMs, deps.random), name, wireId, work, onId: null },
          // A millisecond apart: they stay in the order they were said in.
          ...{ madeMs: madeMs + i, doneMs: null, usedKg: null, computedKg: null, idempotencyKey: keyOf(r.key, i) },
        })),
      )
    },
  })
}

/** Which job is welded from which spool. */
export function layJobs(deps: Deps, who: Who, r: z.output<typeof layRequest>) {
  const said = { name: '' }
  return changing(deps, who, {
    key: r.key,
    change: () => ({ of: 'job', ...said, isDone: false }),
    work: async (tx) => {
      const ids = r.laid.map((l) => l.jobId)
      const rows = await tx.select().from(weldJob).where(inArray(weldJob.id, ids)).for('update')
      const { spools } = await readJobs(deps, who)
      for (const { jobId, onId } of r.laid) {
        const row = rows.find((j) => j.id === jobId)
        if (!row || row.doneMs !== null) throw new DomainError('not-found', 'That job is not open any more.')
        const on = onId === null ? null : spools.find((s) => s.id === onId)
        if (on === undefined)
          throw new DomainError(
            'not-found',
            `${row.name}: that spool is not there any more, or nothing is left on it.`,
            ['Lay it on another.'],
          )
        if (on && on.wireId !== row.wireId)
          throw new DomainError('wrong-part', `${row.name}: there is another wire on ${on.name}.`, [
            'Lay it on another.',
          ])
        await tx.update(weldJob).set({ onId }).where(eq(weldJob.id, jobId))
      }
      said.name = rows
        .map((row) => row.name)
        .join(', ')
        .slice(0, 80)
    },
  })
}

/** A job that is welded; weighed, it teaches what the next one takes. */
export function finishJob(deps: Deps, who: Who, r: z.output<typeof jobDoneRequest>) {
  const said = { name: '' }
  return changing(deps, who, {
    key: r.key,
    change: () => ({ of: 'job', ...said, isDone: true }),
    work: async (tx, w) => {
      const [row] = await tx.select().from(weldJob).where(eq(weldJob.id, r.jobId)).for('update')
      if (!row || row.doneMs !== null) throw new DomainError('not-found', 'That job is not open any more.')
      said.name = row.name
      const computed = needOf(row, await w.shop(), null)
      const off = computed && r.usedKg !== null ? r.usedKg / computed.kg : 1
      if (off > MOST_OFF || off < 1 / MOST_OFF)
        throw new DomainError(
          'bad-request',
          `${row.name}: ${r.usedKg} kg is ${off > 1 ? `${Math.round(off)} times` : `a ${Math.round(1 / off)}th of`} what it was reckoned at (${computed?.kg.toFixed(1)} kg).`,
          ['Write the weight of the wire used, in kilograms, or leave it out.'],
        )
      await tx
        .update(weldJob)
        .set({ doneMs: deps.now(), onId: null, usedKg: r.usedKg, computedKg: computed?.kg ?? null })
        .where(eq(weldJob.id, r.jobId))
    },
  })
}
/** Nobody is off by so much: it is a slip of the pen. */
const MOST_OFF = 5
