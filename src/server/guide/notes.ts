import { DAY_MS } from '@core/units/time.ts'
import { and, eq, inArray } from 'drizzle-orm'
import { type z } from 'zod'
import { CAUTIONS, HAZARDS, type Hazard } from '@core/guide/cautions.ts'
import { type GuideKey } from '@core/guide/keys.ts'
import { type FamilyId, type Id, makeId } from '@core/ids/id.ts'
import { type cautionRequest, type CautionsAnswer, type guideNoteRequest } from '@contract/guide.ts'
import { guideNote, ownCaution, person } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { isLead, mustLead, type Deps, type Who } from '@server/call/context.ts'
import { standingOfKind } from '@server/ledger/standings.ts'
import { changing } from '@server/write/changing.ts'
import { loadShop } from '@server/shopmodel/model.ts'
import { type OwnCautions, type OwnNote } from './steps.ts'

/** Words for every family stand under no family's id. */
const ALL = '*' as Id<'family' | 'feederType'>

export async function ownCautions(db: Reader): Promise<OwnCautions> {
  const rows = await db.select().from(ownCaution)
  return Object.fromEntries(rows.map((r) => [r.hazard, r.words]))
}

/** The shop's own words of one guide, by step: a feeder type's own before a family's, that before those for all. */
export async function ownNotes(
  db: Reader,
  who: Who,
  of: { guide: GuideKey; familyId: FamilyId | null; feederTypeId: Id<'feederType'> | null },
): Promise<Map<string, OwnNote>> {
  const whose = [ALL, ...(of.familyId ? [of.familyId] : []), ...(of.feederTypeId ? [of.feederTypeId] : [])]
  const rows = await db
    .select({ note: guideNote, by: person.name })
    .from(guideNote)
    .leftJoin(person, eq(person.id, guideNote.byId))
    .where(and(eq(guideNote.guide, of.guide), inArray(guideNote.familyId, whose)))
  const notes = new Map<string, OwnNote>()
  const nearness = (n: (typeof rows)[number]) => whose.indexOf(n.note.familyId)
  for (const { note, by } of rows.sort((a, b) => nearness(a) - nearness(b)))
    notes.set(note.step, { words: note.words, isInstead: note.isInstead, by: isLead(who) ? by : null, atMs: note.atMs })
  return notes
}

/** The lead's own words at a step, or none any more. */
export const setNote = (deps: Deps, who: Who, r: z.output<typeof guideNoteRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'guideWords', guide: r.guide, step: r.step, isOwn: Boolean(r.words) },
    work: async (tx) => {
      const familyId = r.familyId === '*' ? ALL : r.familyId
      const where = and(eq(guideNote.guide, r.guide), eq(guideNote.step, r.step), eq(guideNote.familyId, familyId))
      if (!r.words) return void (await tx.delete(guideNote).where(where))
      const values = { words: r.words, isInstead: r.isInstead, byId: who.person?.id ?? null, atMs: deps.now() }
      await tx
        .insert(guideNote)
        .values({
          id: makeId('guideNote', deps.now(), deps.random),
          guide: r.guide,
          step: r.step,
          familyId,
          ...values,
        })
        .onDuplicateKeyUpdate({ set: values })
    },
  })

export const setCaution = (deps: Deps, who: Who, r: z.output<typeof cautionRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'cautionWords', hazard: r.hazard, isOwn: Boolean(r.words) },
    work: async (tx) => {
      if (!r.words) return void (await tx.delete(ownCaution).where(eq(ownCaution.hazard, r.hazard)))
      const values = { words: r.words, byId: who.person?.id ?? null, atMs: deps.now() }
      await tx
        .insert(ownCaution)
        .values({ hazard: r.hazard, ...values })
        .onDuplicateKeyUpdate({ set: values })
    },
  })

const YEAR_MS = 365 * DAY_MS

/** Every caution with its words, and the near misses said of it in a year: places, never people. */
export async function readCautions(deps: Deps, who: Who): Promise<CautionsAnswer> {
  mustLead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const own = await ownCautions(deps.db)
  const told = await standingOfKind(deps.db, 'nearMiss', deps.now() - YEAR_MS)
  const misses = told.flatMap(({ fact, happenedMs, stationId }) =>
    fact.kind === 'nearMiss' ? [{ hazard: fact.hazard, happenedMs, stationId }] : [],
  )
  const of = (hazard: Hazard | 'other') => misses.filter((m) => m.hazard === hazard)
  const placesOf = (list: typeof misses) => [
    ...new Set(list.flatMap((m) => (m.stationId ? (shop.stationById.get(m.stationId)?.name ?? []) : []))),
  ]
  return {
    zone: shop.site.zone,
    cautions: HAZARDS.map((h) => {
      const said = of(h)
      return {
        hazard: h,
        shipped: CAUTIONS[h].words,
        own: own[h] ?? null,
        how: CAUTIONS[h].how,
        nearMisses: said.length,
        lastMs: said.length > 0 ? Math.max(...said.map((m) => m.happenedMs)) : null,
        places: placesOf(said),
      }
    }),
    other: of('other').length,
  }
}
