import { type PartId } from '@core/ids/id.ts'
import { type NoteAct } from '@core/ingest/notes.ts'
import { type Fact } from '@core/ledger/event.ts'
import { type NoteDecision } from '@contract/ingest.ts'
import { person } from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'
import { type Deps, type Who } from '@server/http/context.ts'
import { append, factDraft, knownKeys, nothingTouched, type Draft, type Touched } from '@server/ledger/append.ts'
import { carrierAt, type Place } from '@server/logbook/draft.ts'
import { placesByName } from '@server/logbook/log.ts'
import { type ShopModel } from '@server/shop/model.ts'
import { decided, type HistoryPlan, type PlannedNote } from './history.ts'
import { shortHash } from './key.ts'
import { type Progress } from './progress.ts'

const BATCH = 1000

/** Lines of the ledger from past notes. The same note of the same day is known again, so a sheet that has grown adds only what is new. */
export async function writeHistory(
  tx: Tx,
  at: {
    deps: Deps
    who: Who
    plan: HistoryPlan
    shop: ShopModel
    decisions: Record<string, NoteDecision>
    progress: Progress
  },
): Promise<Touched> {
  const drafts = await historyDrafts(tx, at)
  const known = await knownKeys(
    tx,
    drafts.map((d) => d.idempotencyKey),
  )
  const fresh = drafts.filter((d) => !known.has(d.idempotencyKey))
  const touched = nothingTouched()
  for (let i = 0; i < fresh.length; i += BATCH) {
    await at.progress('writing the lines', i, fresh.length)
    const part = await append(tx, fresh.slice(i, i + BATCH))
    for (const key of ['carrierIds', 'stationIds', 'partIds', 'spoolIds'] as const)
      part[key].forEach((id) => touched[key].add(id))
  }
  return touched
}

async function historyDrafts(tx: Tx, at: Parameters<typeof writeHistory>[1]): Promise<Draft[]> {
  const places = new Map([...(await placesByName(tx, at.shop)).values()].map((p) => [p.stationId, p]))
  const seen = new Map<string, number>()
  const people = new Map((await tx.select().from(person)).map((p) => [p.name.toLowerCase(), p.id]))
  return at.plan.notes.flatMap((note) => {
    const place = places.get(note.stationId)
    if (!place) return []
    return note.read.acts.flatMap((act) => {
      const fact = factOf(act, decided(act, at.decisions), { place, shop: at.shop })
      if (!fact) return []
      // Two equal notes of one day are two acts: they are told apart by which of the equal ones they are.
      const same = `${note.stationId} ${act.kindKey} ${fact.kind} ${note.happenedMs} ${note.text}`
      const nth = (seen.get(same) ?? 0) + 1
      seen.set(same, nth)
      const draft = draftOf(note, fact, { deps: at.deps, who: at.who, key: `sheet/${shortHash(`${same} ${nth}`)}` })
      const by = note.who ? people.get(note.who.toLowerCase()) : undefined
      // Who brought the sheet in did not do the work; a name nobody here has is not kept.
      return [note.who ? { ...draft, personId: (by ?? null) as Draft['personId'] } : draft]
    })
  })
}

const draftOf = (note: PlannedNote, fact: Fact, at: { deps: Deps; who: Who; key: string }): Draft =>
  factDraft(at.deps, at.who, {
    fact,
    happenedMs: note.happenedMs,
    precision: note.precision,
    stationId: note.stationId,
    idempotencyKey: at.key,
    note: note.text.slice(0, 200) || null,
  })

function factOf(act: NoteAct, as: NoteDecision, at: { place: Place; shop: ShopModel }): Fact | null {
  const kind = at.shop.kindByKey.get(act.kindKey)
  if (as === 'out' || !kind) return null
  const carrierId = carrierAt(at.place, act.kindKey, at.shop)
  const position = act.kindKey
  // A part that nobody cleans was looked at, at least.
  if (as === 'seen' || (as === 'cleaned' && !kind.canClean)) return { kind: 'confirmed', carrierId, position }
  if (as === 'cleaned') return { kind: 'cleaned', carrierId, position }
  return {
    kind: 'fitted',
    carrierId,
    position,
    partId: (at.shop.built(at.place.stationId).parts[act.kindKey] ?? null) as PartId | null,
    outReason: act.reason ?? 'notSaid',
    count: act.count,
    entryAge: 'new',
  }
}
