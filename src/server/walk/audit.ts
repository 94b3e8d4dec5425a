import { type AreaId, NO_ID } from '@core/ids/id.ts'
import { inArray } from 'drizzle-orm'
import { AUDIT_KEYS, THERE_OR_NOT, type ThereOrNot } from '@core/walk/audit.ts'
import { type AuditAnswer } from '@contract/audit.ts'
import { carrierNow } from '@server/db/schema.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { loadShop, mustHaveArea } from '@server/shopmodel/model.ts'

const isSaid = (value: string | undefined): value is ThereOrNot => THERE_OR_NOT.some((v) => v === value)

/** What every place has at hand, in the order of the walk. */
export async function readAudit(deps: Deps, who: Who, areaId: AreaId | undefined): Promise<AuditAnswer> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  mustHaveArea(shop, areaId)
  const stations = shop.areas
    .filter((a) => !areaId || a.id === areaId)
    .flatMap((a) => shop.stations.filter((s) => s.areaId === a.id).map((s) => ({ ...s, areaName: a.name })))
  const carriers = stations.flatMap((s) => shop.carrierOfStation.get(s.id) ?? [])
  const nows = await deps.db
    .select({ id: carrierNow.carrierId, settings: carrierNow.settings })
    .from(carrierNow)
    .where(inArray(carrierNow.carrierId, carriers))
  const settingsOf = new Map(nows.map((n) => [n.id, n.settings]))
  return {
    nowMs: deps.now(),
    zone: shop.site.zone,
    areas: shop.areas.map(({ id, name }) => ({ id, name })),
    places: stations.map((s) => {
      const settings = settingsOf.get(shop.carrierOfStation.get(s.id) ?? NO_ID) ?? {}
      const said = AUDIT_KEYS.flatMap((key) => {
        const one = settings[key]
        return one && isSaid(one.value) ? [{ key, value: one.value, atMs: one.atMs }] : []
      })
      return {
        stationId: s.id,
        name: s.name,
        areaName: s.areaName,
        has: Object.fromEntries(said.map((x) => [x.key, x.value])),
        saidMs: said.length > 0 ? Math.max(...said.map((x) => x.atMs)) : null,
      }
    }),
  }
}
