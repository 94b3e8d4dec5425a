import { type StationId } from '@core/ids/id.ts'
import { inArray } from 'drizzle-orm'
import { type LifeBy } from '@contract/life.ts'
import { carrierNow } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { type ShopModel, type ShopFit, type ShopPlaces } from '@server/shopmodel/model.ts'
import { datedLevels, type DatedBy } from './dated.ts'
import { type Life, type Places } from './lives.ts'

export interface Level {
  key: string
  name: string
}
/** What a life can be told apart by; null: nobody said. Places are as they are built now. */
export type LevelOf = (life: Life, by: LifeBy) => Level | null

export async function levelsOf(
  db: Reader,
  shop: ShopModel,
  at: { stationOf: Places['stationOf']; nowMs: number },
): Promise<LevelOf> {
  const [agents, datedOf] = await Promise.all([agentsOf(db, shop), datedLevels(db, at)])
  const known = new Map<string, Level | null>()
  return (life, by) => {
    const part = life.partId ? shop.partById.get(life.partId) : undefined
    if (by === 'part') return part ? { key: part.id, name: `${part.code} ${part.name}` } : null
    if (by === 'metal') return level(part?.fit?.metal)
    if (by === 'layout' || by === 'wiper' || by === 'lot') return datedOf(life, by)
    if (!life.stationId) return null
    const id = `${life.stationId} ${by}`
    const kept = known.get(id)
    if (kept !== undefined) return kept
    const made = LEVELS[by](life.stationId, { shop, agents })
    known.set(id, made)
    return made
  }
}

const level = (key: string | null | undefined, name?: string | null): Level | null =>
  key ? { key, name: name ?? key } : null
type OfPlace = (stationId: StationId, at: { shop: ShopModel; agents: ReadonlyMap<string, string> }) => Level | null
const wireAt = (stationId: StationId, shop: ShopFit) => shop.wires.get(shop.built(stationId).wireId ?? '')
const LEVELS: Record<Exclude<LifeBy, 'part' | 'metal' | DatedBy>, OfPlace> = {
  area: (id, { shop }) => {
    const areaId = shop.stationById.get(id)?.areaId
    return level(areaId, shop.areas.find((a) => a.id === areaId)?.name)
  },
  class: (id, { shop }) => {
    const key = shop.stationById.get(id)?.classKey
    return level(key, shop.classes.get(key ?? '')?.name)
  },
  wire: (id, { shop }) => level(wireAt(id, shop)?.id, wireAt(id, shop)?.name),
  coat: (id, { shop }) => {
    const isCoated = wireAt(id, shop)?.fit?.isCopperCoated
    if (typeof isCoated !== 'boolean') return null
    return isCoated ? level('coated', 'copper-coated wire') : level('bare', 'wire without copper')
  },
  mode: (id, { shop }) => level(shop.built(id).mode),
  gas: (id, { shop }) => level(shop.built(id).gas),
  family: (id, { shop }) => level(shop.built(id).familyId, shop.families.get(shop.built(id).familyId ?? '')),
  cable: (id, { shop }) => {
    const { cableM } = shop.built(id)
    return cableM === null ? null : level(`${cableM}`, `${cableM} m of cable`)
  },
  antiSpatter: (id, { agents }) => level(agents.get(id)),
}

/** What keeps spatter off, place by place, as somebody said. */
async function agentsOf(db: Reader, shop: ShopPlaces): Promise<Map<string, string>> {
  const ids = [...shop.stationOfCarrier.keys()]
  if (ids.length === 0) return new Map()
  const rows = await db.select().from(carrierNow).where(inArray(carrierNow.carrierId, ids))
  return new Map(
    rows.flatMap((r) => {
      const said: unknown = r.settings.antiSpatter?.value
      const stationId = shop.stationOfCarrier.get(r.carrierId)
      return typeof said === 'string' && stationId ? [[stationId, said] as const] : []
    }),
  )
}
