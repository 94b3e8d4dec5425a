import { type FamilyId, type StationId } from '@core/ids/id.ts'
import { and, asc, eq, isNull } from 'drizzle-orm'
import { type z } from 'zod'
import { type Built } from '@core/shop/built.ts'
import { type SpareGun, type sparesAnswer } from '@contract/spareguns.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { carrier, carrierNow, mount, stationNow } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { loadShop, type ShopPlaces, type ShopFit } from '@server/shopmodel/model.ts'
import { hungOne } from './hung.ts'
import { builtHere } from './setup.ts'

/** Guns that hang nowhere, ready ones first; with a place, those that fit it. */
export async function readSpares(
  deps: Deps,
  who: Who,
  stationId: StationId | undefined,
): Promise<z.input<typeof sparesAnswer>> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const here = stationId ? builtHere(await hungOne(deps.db, shop, stationId), shop) : null
  const rows = await deps.db
    .select({ gun: carrier, now: carrierNow })
    .from(carrier)
    .leftJoin(mount, and(eq(mount.childId, carrier.id), isNull(mount.toMs)))
    .leftJoin(carrierNow, eq(carrierNow.carrierId, carrier.id))
    .where(and(eq(carrier.type, 'gun'), isNull(mount.childId)))
    .orderBy(asc(carrier.name))
  const guns = rows.map(({ gun, now }): SpareGun => ({
    gunId: gun.id,
    name: gun.name,
    status: now?.status ?? 'not said',
    familyName: gun.built?.familyId ? (shop.families.get(gun.built.familyId) ?? null) : null,
    cableM: gun.built?.cableM ?? null,
    sinceMs: now?.statusMs ?? null,
    fits: !here?.familyId || !gun.built?.familyId || seats(gun.built.familyId, here, shop),
  }))
  const order = ['ready', 'not said', 'toRefurbish']
  return {
    guns: guns.sort((a, b) => order.indexOf(a.status) - order.indexOf(b.status) || Number(b.fits) - Number(a.fits)),
    elsewhere: stationId ? await hangingElsewhere(deps.db, shop, stationId) : [],
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

/** Another family seats where its pin is the feeder's; without told pins only the same family is sure to. */
function seats(familyId: FamilyId, here: Built, shop: ShopFit): boolean {
  const pin = shop.familyById.get(familyId)?.fit?.pin
  const wanted = here.feederTypeId ? shop.feederTypes.get(here.feederTypeId)?.fit.pin : null
  return pin && wanted ? pin.toLowerCase() === wanted.toLowerCase() : familyId === here.familyId
}
