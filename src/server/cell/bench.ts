import { type BenchThing } from '@contract/cell.ts'
import { type PositionRow } from '@server/gunnow/positions.ts'
import { judgeLoose, type Loose, type LooseStates } from '@server/gunnow/spares.ts'
import { type Hung } from '@server/gunnow/setup.ts'
import { wearOf, type WearHere } from '@server/gunnow/usedup.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'

/** Over half of its limit it is told so, from its limit on it is changed while it lies here. */
const PART_WORN = 0.5

/** Everything that hangs nowhere: what is on it, what wants doing, and where it would be right afterwards. */
export function benchOf(
  shop: ShopModel,
  of: { loose: readonly Loose[]; cells: readonly Hung[]; states: LooseStates },
): BenchThing[] {
  const { states } = of
  const rightFor = rightPlaces(shop, of)
  return of.loose.map((thing): BenchThing => {
    const familyId = thing.built?.familyId ?? null
    const parts = (states.get(thing.id)?.rows ?? [])
      .filter((row) => thing.positions.includes(row.position))
      .flatMap((row) => benchPart(row, shop) ?? [])
      .sort((a, b) => orderOf(shop, a.kindKey) - orderOf(shop, b.kindKey))
    const due = parts.filter((p) => p.state === 'due')
    return {
      carrierId: thing.id,
      type: thing.type === 'neck' ? 'neck' : 'gun',
      name: thing.name,
      familyId,
      familyName: familyId ? (shop.families.get(familyId) ?? null) : null,
      status: thing.now?.status ?? 'not said',
      sinceMs: thing.now?.statusMs ?? null,
      parts,
      minutes: due.reduce((sum, p) => sum + shop.changeMinOf(p.kindKey, familyId), 0),
      rightFor: rightFor.get(thing.id) ?? [],
    }
  })
}
const orderOf = (shop: ShopModel, kindKey: string) => shop.kindByKey.get(kindKey)?.walkOrder ?? 0

/** Where each neck would be right as it lies there. */
function rightPlaces(
  shop: ShopModel,
  { loose, cells, states }: { loose: readonly Loose[]; cells: readonly Hung[]; states: LooseStates },
): Map<string, string[]> {
  const necks = loose.filter((l) => l.type === 'neck')
  const found = new Map<string, string[]>()
  for (const hung of necks.length > 0 ? cells.filter((c) => c.now.neckId) : []) {
    // As if it were ready: whether it fits, not whether somebody has said so.
    const asReady = necks.map((n): Loose => ({ ...n, now: n.now && { ...n.now, status: 'ready' } }))
    for (const [id, verdict] of judgeLoose(shop, { kind: 'neck', hung, loose: asReady, states }))
      if (verdict.is === 'right') found.set(id, [...(found.get(id) ?? []), hung.station.name])
  }
  return found
}

function benchPart(row: PositionRow, shop: ShopModel): BenchThing['parts'][number] | null {
  const wear = wearOf(row, shop, { classKey: 'cell', wire: null })
  const kind = wear && shop.kindByKey.get(wear.kindKey)
  if (!kind) return null
  const part = row.partId ? shop.partById.get(row.partId) : undefined
  return {
    ...{ position: row.position, kindKey: kind.key, name: kind.name, partId: row.partId },
    partCode: part?.code ?? null,
    ...{ unit: wear.unit, used: wear.used, limit: wear.limit, canClean: kind.canClean, reasons: kind.reasons },
    state: row.fittedMs === null ? 'notSeen' : stateOf(wear),
    fittedMs: row.fittedMs,
  }
}

function stateOf({ used, limit, isSpent }: WearHere): BenchThing['parts'][number]['state'] {
  if (isSpent) return 'due'
  return used !== null && limit !== null && used >= PART_WORN * limit ? 'partWorn' : 'good'
}
