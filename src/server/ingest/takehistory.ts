import { type NoteAct } from '@core/ingest/notes.ts'
import { type Fact } from '@core/ledger/event.ts'
import { type NoteDecision } from '@contract/ingest.ts'
import { person } from '@server/db/schema.ts'
import { knownKeys } from '@server/ledger/lines.ts'
import { type SaidAct, type SaidLine, type Writing } from '@server/write/act.ts'
import { carrierAt, type Place, placesByName } from '@server/write/place.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'
import { decided, type HistoryPlan, type PlannedNote } from './history.ts'
import { shortHash } from './key.ts'

interface At {
  plan: HistoryPlan
  decisions: Record<string, NoteDecision>
}

/** Lines of the ledger from past notes. The same note of the same day is known again, so a sheet that has grown adds only what is new. */
export async function writeHistory(w: Writing, at: At): Promise<void> {
  const acts = await historyActs(w, at)
  const known = await knownKeys(
    w.tx,
    'sheet',
    acts.map((act) => act.key),
  )
  for (const act of acts) if (!known.has(act.key)) w.say(act)
}

type KeyedAct = SaidAct & { key: string }
async function historyActs(w: Writing, at: At): Promise<KeyedAct[]> {
  const shop = await w.shop()
  const places = new Map([...(await placesByName(w.tx, shop)).values()].map((p) => [p.stationId, p]))
  const seen = new Map<string, number>()
  const people = new Map((await w.tx.select().from(person)).map((p) => [p.name.toLowerCase(), p.id]))
  return at.plan.notes.flatMap((note) => {
    const place = places.get(note.stationId)
    if (!place) return []
    // Who brought the sheet in did not do the work; a name nobody here has is not kept.
    const by = note.who ? { personId: people.get(note.who.toLowerCase()) ?? null } : {}
    return note.read.acts.flatMap((act): KeyedAct[] => {
      const fact = factOf(act, decided(act, at.decisions), { place, shop })
      if (!fact) return []
      // Two equal notes of one day are two acts: they are told apart by which of the equal ones they are.
      const same = `${note.stationId} ${act.kindKey} ${fact.kind} ${note.happenedMs} ${note.text}`
      const nth = (seen.get(same) ?? 0) + 1
      seen.set(same, nth)
      return [{ kind: 'sheet', key: shortHash(`${same} ${nth}`), lines: [{ ...lineOf(note, fact), ...by }] }]
    })
  })
}

const lineOf = (note: PlannedNote, fact: Fact): SaidLine => ({
  fact,
  happenedMs: note.happenedMs,
  precision: note.precision,
  stationId: note.stationId,
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
    partId: at.shop.built(at.place.stationId).parts[act.kindKey] ?? null,
    outReason: act.reason ?? 'notSaid',
    count: act.count,
    entryAge: 'new',
  }
}
