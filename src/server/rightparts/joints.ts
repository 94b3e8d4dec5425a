import { type FamilyId } from '@core/ids/id.ts'
import { standingWhere } from '@server/ledger/standings.ts'
import { and, count, eq, gte } from 'drizzle-orm'
import { adviseJoint, MADE_WITH, USUAL_STEP, type JointFault } from '@core/rightparts/joints.ts'
import { JOINTS, type Joint } from '@core/rightparts/facts.ts'
import { type Standing } from '@core/ledger/resolve.ts'
import { kindOfPosition, type KindKey } from '@core/path/columns.ts'
import { type JointLine, type JointsAnswer } from '@contract/rightparts.ts'
import { ledgerEvent, life, mount, positionNow, stationNow } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { loadShop, type ShopFit } from '@server/shopmodel/model.ts'

interface Bad {
  familyId: FamilyId
  place: string
  atMs: number
  joint: Joint
  fault: JointFault
}

/** Trouble with joints, per family and joint, both ways counted, and which way the shop should move. */
export async function readJoints(deps: Deps, who: Who, familyId?: FamilyId): Promise<JointsAnswer> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const bad = (await faultsOf(deps.db)).flatMap((s): Bad[] => {
    const place = s.stationId ? shop.stationById.get(s.stationId) : undefined
    const family = place ? shop.built(place.id).familyId : null
    if (s.fact.kind !== 'jointFault' || !place || !family) return []
    return [{ familyId: family, place: place.name, atMs: s.happenedMs, joint: s.fact.joint, fault: s.fact.fault }]
  })
  const families = [...new Set(bad.map((b) => b.familyId))].filter((id) => !familyId || id === familyId)
  const made = madeOnce(deps.db, shop)
  const joints: JointLine[] = []
  for (const id of families)
    for (const joint of JOINTS) {
      const line = await jointLine({ id, joint }, { made, bad, shop })
      if (line) joints.push(line)
    }
  return { zone: shop.site.zone, joints }
}

const faultsOf = (db: Reader): Promise<Standing[]> => standingWhere(db, eq(ledgerEvent.kind, 'jointFault'))

type MadeSince = (sinceMs: number) => Promise<Map<string, number>>

/** How often parts of each kind went on since an instant, per family: ended lives and what is on now; guns seated. */
function madeOnce(db: Reader, shop: ShopFit): MadeSince {
  const known = new Map<number, Promise<Map<string, number>>>()
  return (sinceMs) => {
    const made = known.get(sinceMs) ?? countMade(db, shop, sinceMs)
    known.set(sinceMs, made)
    return made
  }
}

async function countMade(db: Reader, shop: ShopFit, sinceMs: number): Promise<Map<string, number>> {
  const [lives, on, seated, nows] = await Promise.all([
    db
      .select({ carrierId: life.carrierId, kindKey: life.kindKey, n: count() })
      .from(life)
      .where(and(gte(life.fromMs, sinceMs), eq(life.entryAge, 'new')))
      .groupBy(life.carrierId, life.kindKey),
    db
      .select({ carrierId: positionNow.carrierId, kindKey: positionNow.position, n: count() })
      .from(positionNow)
      .where(and(gte(positionNow.fittedMs, sinceMs), eq(positionNow.entryAge, 'new')))
      .groupBy(positionNow.carrierId, positionNow.position),
    db
      .select({ carrierId: mount.childId, n: count() })
      .from(mount)
      .where(gte(mount.fromMs, sinceMs))
      .groupBy(mount.childId),
    db.select().from(stationNow),
  ])
  const familyOf = new Map(
    nows.flatMap((n) => [n.gunId, n.neckId].map((id) => [id ?? '', shop.built(n.stationId).familyId])),
  )
  const made = new Map<string, number>()
  const rows = [...lives, ...on, ...seated.map((m) => ({ ...m, kindKey: 'orings' as const }))]
  for (const row of rows) {
    const key = `${familyOf.get(row.carrierId) ?? ''} ${kindOfPosition(row.kindKey)}`
    made.set(key, (made.get(key) ?? 0) + row.n)
  }
  return made
}

async function jointLine(
  what: { id: FamilyId; joint: Joint },
  at: { made: MadeSince; bad: readonly Bad[]; shop: ShopFit },
): Promise<JointLine | null> {
  const { id, joint } = what
  const rule = at.shop.familyById.get(id)?.fit?.tightness[joint]
  const sinceMs = rule?.sinceMs ?? 0
  const bad = at.bad.filter((b) => b.joint === joint && b.familyId === id && b.atMs >= sinceMs)
  if (bad.length === 0) return null
  const made = await at.made(sinceMs)
  const countOf = (kindKey: KindKey) => made.get(`${id} ${kindKey}`) ?? 0
  const step = rule?.step ?? USUAL_STEP[joint]
  const faults = bad.map((b) => b.fault)
  const tips = countOf('tip')
  const isFront = joint === 'tip' || joint === 'diffuser'
  return {
    familyId: id,
    familyName: at.shop.families.get(id) ?? '',
    joint,
    step,
    sinceMs: rule?.sinceMs ?? null,
    ...adviseJoint(faults, { joint, made: countOf(MADE_WITH[joint]), step }),
    isPushOn: at.shop.familyById.get(id)?.fit?.nozzleStyle === 'push-on',
    places: placesOf(bad),
    diffusersPer100Tips: tips > 0 && isFront ? (countOf('diffuser') / tips) * 100 : null,
  }
}

function placesOf(bad: readonly Bad[]): JointLine['places'] {
  const counts = new Map<string, number>()
  for (const { place } of bad) counts.set(place, (counts.get(place) ?? 0) + 1)
  return [...counts]
    .map(([name, faults]) => ({ name, faults }))
    .sort((a, b) => b.faults - a.faults || (a.name < b.name ? -1 : 1))
    .slice(0, 5)
}
