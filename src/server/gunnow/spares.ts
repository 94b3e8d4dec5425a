import { type CarrierId, type FamilyId, type StationId } from '@core/ids/id.ts'
import { and, asc, eq, isNull } from 'drizzle-orm'
import { type z } from 'zod'
import { judgeSpare, type Spent, type SpareVerdict } from '@core/cell/spare.ts'
import { type Setup } from '@core/rightparts/facts.ts'
import { type Built } from '@core/shop/built.ts'
import { type SpareGun, type sparesAnswer } from '@contract/spareguns.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { carrier, carrierNow, mount, stationNow } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { loadShop, type ShopModel, type ShopPlaces, type ShopFit } from '@server/shopmodel/model.ts'
import { checkPlace, standing } from './findings.ts'
import { hungOne } from './hung.ts'
import { readPositions, type CarrierState } from './positions.ts'
import { builtHere, type Hung } from './setup.ts'
import { wearOf } from './usedup.ts'

export type Loose = typeof carrier.$inferSelect & { now: typeof carrierNow.$inferSelect | null }

/** Guns or necks that hang nowhere, by name. */
export async function looseOnes(db: Reader, type: 'gun' | 'neck'): Promise<Loose[]> {
  const rows = await db
    .select({ own: carrier, now: carrierNow })
    .from(carrier)
    .leftJoin(mount, and(eq(mount.childId, carrier.id), isNull(mount.toMs)))
    .leftJoin(carrierNow, eq(carrierNow.carrierId, carrier.id))
    .where(and(eq(carrier.type, type), isNull(mount.childId)))
    .orderBy(asc(carrier.name))
  return rows.map(({ own, now }) => ({ ...own, now }))
}

/** Guns that hang nowhere; with a place, judged for it: right ones first, then what can be made right. */
export async function readSpares(
  deps: Deps,
  who: Who,
  stationId: StationId | undefined,
): Promise<z.input<typeof sparesAnswer>> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const rows = await looseOnes(deps.db, 'gun')
  const hung = stationId ? await hungOne(deps.db, shop, stationId) : null
  const judged = hung
    ? judgeLoose(shop, { kind: 'gun', hung, loose: rows, states: await statesOf(deps.db, rows) })
    : new Map<CarrierId, SpareVerdict>()
  const guns = rows.map((gun): SpareGun => ({
    gunId: gun.id,
    name: gun.name,
    status: gun.now?.status ?? 'not said',
    familyName: gun.built?.familyId ? (shop.families.get(gun.built.familyId) ?? null) : null,
    cableM: gun.built?.cableM ?? null,
    sinceMs: gun.now?.statusMs ?? null,
    here: judged.get(gun.id) ?? null,
  }))
  return {
    guns: guns.sort((a, b) => rank(a) - rank(b)),
    elsewhere: stationId ? await hangingElsewhere(deps.db, shop, stationId) : [],
  }
}
const STATUS_RANK = ['ready', 'not said', 'toRefurbish']
const VERDICT_RANK = ['right', 'toMakeRight', 'never']
const rank = ({ here, status }: SpareGun) =>
  10 * (here ? VERDICT_RANK.indexOf(here.is) : 0) + STATUS_RANK.indexOf(status)

/** What is on some loose guns or necks; read once, judged for as many places as are asked about. */
export const statesOf = (db: Reader, loose: readonly Loose[]): Promise<LooseStates> =>
  loose.length === 0
    ? Promise.resolve(new Map())
    : readPositions(
        db,
        loose.map((l) => l.id),
      )
export type LooseStates = ReadonlyMap<string, CarrierState>

/** Each of some loose guns or necks as if it hung at a place: what would be wrong with it there. */
export function judgeLoose(
  shop: ShopModel,
  of: { kind: 'gun' | 'neck'; hung: Hung; loose: readonly Loose[]; states: LooseStates },
): Map<CarrierId, SpareVerdict> {
  const { kind, hung, loose, states } = of
  const own = builtHere(hung, shop)
  return new Map(
    loose.map((spare) => {
      const familyId = spare.built?.familyId ?? null
      const checked = checkPlace(asHung(spare, of), shop)
      const verdict = judgeSpare({
        kind,
        setup: checked.setup,
        findings: standing(checked.findings),
        seat: kind === 'gun' ? seatOf(familyId, own, shop) : sameFamily(familyId, own, shop),
        wantsM: own.cableM,
        isToMend: spare.now?.status !== 'ready',
        spent: spentOf(states.get(spare.id), { spare, shop, hung, wire: checked.setup.wire }),
        changeMin: (kindKey) => shop.changeMinOf(kindKey, familyId ?? own.familyId),
      })
      return [spare.id, verdict]
    }),
  )
}

/** What is on a spare and has reached the limit it would be changed at there. */
function spentOf(
  state: CarrierState | undefined,
  { spare, shop, hung, wire }: { spare: Loose; shop: ShopModel; hung: Hung; wire: Setup['wire'] },
): Spent[] {
  const there = { classKey: hung.station.classKey, wire }
  return (state?.rows ?? [])
    .filter((row) => spare.positions.includes(row.position))
    .flatMap((row) => {
      const wear = wearOf(row, shop, there)
      if (!wear?.isSpent || wear.used === null || wear.limit === null) return []
      return [{ kindKey: wear.kindKey, used: wear.used, limit: wear.limit, unit: wear.unit }]
    })
}

/** The place with the spare on it; a gun comes without the neck that hangs there. */
function asHung(spare: Loose, { kind, hung, states }: { kind: 'gun' | 'neck'; hung: Hung; states: LooseStates }): Hung {
  const hangs = kind === 'gun' ? { gunId: spare.id, neckId: null } : { neckId: spare.id }
  return {
    ...hung,
    now: { ...hung.now, ...hangs },
    stateOf: (id) => (id === spare.id ? states.get(spare.id) : hung.stateOf(id)),
  }
}

async function hangingElsewhere(db: Reader, shop: ShopPlaces, stationId: StationId | undefined) {
  const rows = await db
    .select({ name: carrier.name, stationId: stationNow.stationId })
    .from(stationNow)
    .innerJoin(carrier, eq(carrier.id, stationNow.gunId))
    .orderBy(asc(carrier.name))
  return rows.flatMap((row) => {
    const station = shop.stationById.get(row.stationId)
    return station && row.stationId !== stationId ? [{ ...row, stationName: station.name }] : []
  })
}

type Seat = { fits: boolean; wants: string | null; has: string | null }
/** Another family seats where its pin is the feeder's; without told pins only the same family is sure to, and of no known family nothing is. */
function seatOf(familyId: FamilyId | null, here: Built, shop: ShopFit): Seat {
  const pin = familyId ? (shop.familyById.get(familyId)?.fit?.pin ?? null) : null
  const wanted = here.feederTypeId ? (shop.feederTypes.get(here.feederTypeId)?.fit.pin ?? null) : null
  if (pin && wanted) return { fits: pin.toLowerCase() === wanted.toLowerCase(), wants: wanted, has: pin }
  return sameFamily(familyId, here, shop)
}
function sameFamily(familyId: FamilyId | null, here: Built, shop: ShopFit): Seat {
  const nameOf = (id: FamilyId | null) => (id ? (shop.families.get(id) ?? null) : null)
  return { fits: familyId !== null && familyId === here.familyId, wants: nameOf(here.familyId), has: nameOf(familyId) }
}
