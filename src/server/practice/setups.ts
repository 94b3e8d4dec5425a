import { dragOfGun, type DragFacts } from '@core/drag/ofgun.ts'
import { guessedSetup } from '@core/drag/setup.ts'
import { isAluminium, type Setup } from '@core/rightparts/facts.ts'
import { type BoothSetup, type Transfer } from '@core/practice/rig.ts'
import { type AreaId, type StationId } from '@core/ids/id.ts'
import { type Reader } from '@server/db/db.ts'
import { hungAt } from '@server/gunnow/hung.ts'
import { setupOf, type Hung } from '@server/gunnow/setup.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'

const OF_AREA = 4
const MOST = 12
const USUAL_LPM = { aluminium: 18, other: 15 } as const

/** Guns of this shop that a booth can be set up as: of each area a few, each kind once, as they are built and not as they are worn. */
export async function boothSetups(db: Reader, shop: ShopModel, areaId: AreaId | null): Promise<BoothSetup[]> {
  const areas = [...shop.areas].sort((a, b) => Number(b.id === areaId) - Number(a.id === areaId))
  const ids = areas.flatMap((a) =>
    shop.stations
      .filter((s) => s.areaId === a.id && s.classKey !== 'cell')
      .slice(0, OF_AREA)
      .map((s) => s.id),
  )
  const made = (await hungAt(db, shop, ids.slice(0, 2 * MOST))).flatMap((hung) => boothOf(hung, shop) ?? [])
  const first = new Map<string, BoothSetup>()
  for (const setup of made) {
    const { name: _, ...what } = setup
    const key = JSON.stringify(what)
    if (!first.has(key)) first.set(key, setup)
  }
  return [...first.values()].slice(0, MOST)
}

/** The same of some places, each as its gun is built; null where nobody told its wire. */
export async function boothsAt(
  db: Reader,
  shop: ShopModel,
  ids: readonly StationId[],
): Promise<Map<StationId, BoothSetup | null>> {
  const hung = await hungAt(db, shop, ids)
  return new Map(hung.map((h) => [h.station.id, boothOf(h, shop)]))
}

function boothOf(hung: Hung, shop: ShopModel): BoothSetup | null {
  const setup = setupOf(hung, shop)
  const made = dragOfGun({ ...NOTHING_READ, setup })
  if (!made || !setup.wire) return null
  const mode = setup.mode ?? setup.procedure?.mode ?? null
  const transfer: Transfer = mode === 'short circuit' ? 'short circuit' : mode ? 'spray' : byWire(setup)
  const [low, high] = setup.procedure?.wireMPerMin ?? []
  const built = shop.built(hung.station.id).wireSpeedMPerMin
  const told = low !== undefined && high !== undefined ? (low + high) / 2 : built
  return {
    name: `${hung.station.name}: ${setup.wire.name}`.slice(0, 60),
    drag: guessedSetup(
      { ...made.drag.shape, linerState: 'new', tipState: 'in service', isReversed: false, slip: null },
      made.drag.values.cableMm,
    ),
    wireSpeedMPerMin: told ?? USUAL_SPEED[transfer],
    transfer,
    gasLpm: gasOf(setup),
  }
}
const USUAL_SPEED: Readonly<Record<Transfer, number>> = { 'short circuit': 5, spray: 9 }
/** Thin solid steel goes over by touching, as long as nobody said otherwise. */
const byWire = ({ wire }: Setup): Transfer =>
  wire && !isAluminium(wire) && wire.diameterMm <= 1 ? 'short circuit' : 'spray'

function gasOf(setup: Setup): number | null {
  if (setup.gas === 'none' || setup.wire?.fit?.isSelfShielded) return null
  const [low, high] = setup.procedure?.flowLPerMin ?? []
  if (low !== undefined && high !== undefined) return (low + high) / 2
  return setup.wire && isAluminium(setup.wire) ? USUAL_LPM.aluminium : USUAL_LPM.other
}
const NOTHING_READ: Omit<DragFacts, 'setup'> = {
  ...{ linerUsed: null, kink: null, spoolKg: null, spoolLeft: null, isReversed: false, slip: null, friction: null },
  ...{
    hubN: null,
    gapMm: null,
    coils: null,
    conduit: null,
    hasSecondDrive: false,
    layGrade: null,
    tip: null,
    knob: null,
  },
}
