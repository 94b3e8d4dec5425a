import { type AreaId } from '@core/ids/id.ts'
import { type Fact } from '@core/ledger/event.ts'
import { type ShopChange } from '@core/ledger/shopchange.ts'
import { kindOfPosition } from '@core/path/columns.ts'
import { type PaybackAnswer } from '@contract/payback.ts'
import { type Reader } from '@server/db/db.ts'
import { standingOfKind } from '@server/ledger/standings.ts'
import { namesOfChange, NO_NAMES } from '@server/logbook/read.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'
import { type PutOn } from './puton.ts'

const MOST = { single: 60, rules: 30 }
/** Parts whose change is a change of how it feeds; a tip is changed every day. */
const LASTING = new Set(['inlet', 'rolls', 'outlet', 'liner', 'jump', 'neck', 'diffuser', 'hub'])
const KINDS = ['shopChanged', 'mounted', 'changedOver', 'calibrated', 'blown'] as const
type Change = PaybackAnswer['changes'][number]
interface At {
  sinceMs: number
  areaId: AreaId | undefined
  /** Parts put on, that time among others. */
  fitted: readonly PutOn[]
}

/** What was changed lately that may have helped, newest first: house rules everywhere, lasting parts, guns and wires at single places. */
export async function changesSince(db: Reader, shop: ShopModel, at: At): Promise<Change[]> {
  return [...(await actsSince(db, shop, at.sinceMs)), ...partsOf(at)]
    .flatMap((c): Change[] => {
      const station = c.stationId ? shop.stationById.get(c.stationId) : undefined
      if (!station && c.stationId !== null) return []
      if (at.areaId && station && station.areaId !== at.areaId) return []
      return [{ ...c, name: station?.name ?? null }]
    })
    .sort((a, b) => b.happenedMs - a.happenedMs)
    .filter(upTo(MOST))
}
/** Rules are few and hold for many; single parts would push them out. */
function upTo(most: typeof MOST): (c: Change) => boolean {
  const left = { ...most }
  return (c) => left[c.stationId === null ? 'rules' : 'single']-- > 0
}

type Raw = Omit<Change, 'name'>
async function actsSince(db: Reader, shop: ShopModel, sinceMs: number): Promise<Raw[]> {
  const told = await Promise.all(KINDS.map((kind) => standingOfKind(db, kind, sinceMs)))
  return told.flat().flatMap((s): Raw[] => {
    const at = { eventId: s.eventId, happenedMs: s.happenedMs, position: null }
    if (s.fact.kind === 'shopChanged') {
      const { change } = s.fact
      const holds = holdsFor(change)
      if (!holds) return []
      const names = { ...NO_NAMES, ...namesOfChange(change, shop) }
      return [{ ...at, stationId: null, what: 'rule', rule: { change, names }, classKey: holds.classKey }]
    }
    const what = actWord(s.fact)
    return what && s.stationId ? [{ ...at, stationId: s.stationId, what, rule: null, classKey: null }] : []
  })
}
/** Of a rule: the class of places it holds for, null for all of them; no answer where it is no rule, or holds for what is not told place by place. */
function holdsFor(change: ShopChange): { classKey: string | null } | null {
  if (change.of === 'houseRule') return { classKey: change.classKey === '*' ? null : change.classKey }
  if (change.of !== 'school') return null
  if (change.scopeType === 'site') return { classKey: null }
  return change.scopeType === 'class' ? { classKey: change.scopeKey } : null
}
function actWord(fact: Fact): Exclude<Change['what'], 'rule' | 'part'> | null {
  if (fact.kind === 'mounted') return fact.onId ? 'gun' : null
  if (fact.kind === 'changedOver') return 'wire'
  if (fact.kind === 'calibrated') return 'knob'
  return fact.kind === 'blown' ? 'blown' : null
}

/** Lasting parts that were put on. */
const partsOf = ({ fitted, sinceMs }: At): Raw[] =>
  fitted.flatMap(({ eventId, happenedMs, position, stationId, isNew }): Raw[] => {
    if (!stationId || happenedMs < sinceMs || !isNew || !LASTING.has(kindOfPosition(position))) return []
    return [{ eventId, happenedMs, position, stationId, what: 'part', rule: null, classKey: null }]
  })
