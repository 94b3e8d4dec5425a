import { type KindKey } from '@core/path/columns.ts'
import { type FamilyId, type Id, type IdName, makeId, type PartId, type WireId } from '@core/ids/id.ts'
import { pick } from '@core/random/random.ts'
import { type Fact } from '@core/ledger/event.ts'
import { type Built } from '@core/shop/built.ts'
import { ROLL_SETTINGS } from '@core/rightparts/facts.ts'
import { UNTOLD_FAMILY, UNTOLD_FEEDER, UNTOLD_PART } from '@core/rightparts/untold.ts'
import { feederType, fitFamily, part, wire } from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'
import { type MadeStation } from '@server/shop/places.ts'

const SIZES = [0.8, 0.9, 1.0, 1.2, 1.6]
const KINDS = ['tip', 'nozzle', 'liner', 'diffuser', 'rolls'] as const
const FAMILIES = 6
/** So many guns have something on them that was picked blindly. */
const CARELESS = 0.12

type Part = typeof part.$inferSelect
export interface FitWorld {
  parts: Part[]
  /** How the guns of an area are built, drawn anew for each. */
  builtOf: () => Partial<Built>
  /** Something of the kind: mostly what fits, now and then whatever lies there. */
  partFor: (kindKey: KindKey, built: Partial<Built>) => PartId | null
  settingsOf: (station: MadeStation, built: Partial<Built>) => Fact[]
}

/** Wires, families, a feeder and some 200 parts, drawn. */
export async function drawFit(tx: Tx, at: { nowMs: number; random: () => number }): Promise<FitWorld> {
  const { random } = at
  const id = <N extends IdName>(name: N) => makeId(name, at.nowMs, random)
  const wires = SIZES.map((diameterMm) => ({
    id: id('wire'),
    name: `solid ${diameterMm}`,
    construction: 'solid',
    diameterMm,
    densityGPerCm3: 7.85,
    spoolKg: 15,
  }))
  await tx.insert(wire).values(wires)
  const families = Array.from({ length: FAMILIES }, (_, i) => ({
    id: id('family'),
    name: `family ${i}`,
    fit: UNTOLD_FAMILY,
  }))
  await tx.insert(fitFamily).values(families)
  const feederTypeId = id('feederType')
  await tx.insert(feederType).values({ id: feederTypeId, name: 'feeder', fit: UNTOLD_FEEDER })
  const parts = families.flatMap((f) =>
    KINDS.flatMap((kindKey) =>
      SIZES.map((mm): Part => ({
        id: id('part'),
        code: `${f.name} ${kindKey} ${mm}`.slice(0, 40),
        name: kindKey,
        kindKey,
        familyId: kindKey === 'rolls' ? null : f.id,
        wireSizeMm: kindKey === 'tip' ? mm : null,
        priceMinor: Math.floor(random() * 4000),
        ...{ shelf: null, shelfMost: null },
        fit: {
          ...UNTOLD_PART,
          wireMm: kindKey === 'liner' ? [mm, mm] : null,
          linerKind: kindKey === 'liner' ? 'steel coil' : null,
          grooves:
            kindKey === 'rolls'
              ? [
                  { shape: 'V', sizeMm: mm },
                  { shape: 'V', sizeMm: mm },
                ]
              : null,
        },
      })),
    ),
  )
  await tx.insert(part).values(parts)
  return { parts, ...drawing({ random, wires, families, feederTypeId, parts }) }
}

function drawing(known: {
  random: () => number
  wires: { id: WireId; diameterMm: number }[]
  families: { id: FamilyId }[]
  feederTypeId: Id<'feederType'>
  parts: Part[]
}): Omit<FitWorld, 'parts'> {
  const { random, wires, parts } = known
  const sizeOf = (built: Partial<Built>) => wires.find((w) => w.id === built.wireId)?.diameterMm ?? 1
  const isRight = (p: Part, built: Partial<Built>) =>
    (p.familyId === null || p.familyId === built.familyId) && p.code.endsWith(` ${sizeOf(built)}`)
  return {
    builtOf: () => ({
      wireId: pick(random, wires).id,
      familyId: pick(random, known.families).id,
      feederTypeId: known.feederTypeId,
      rollCount: 4,
      cableM: 4,
      mode: 'short circuit',
      wireSpeedMPerMin: 7,
    }),
    partFor: (kindKey, built) => {
      const all = parts.filter((p) => p.kindKey === kindKey)
      const right = all.filter((p) => isRight(p, built))
      const from = right.length > 0 && random() > CARELESS / 3 ? right : all
      return from.length > 0 ? pick(random, from).id : null
    },
    settingsOf: (station, built) => {
      const carrierId = station.headId
      const value = String(sizeOf(built))
      const rolls = ROLL_SETTINGS.map((name) => ({ name, value }))
      const all = [...rolls, { name: 'polarity' as const, value: random() < 0.98 ? 'gun positive' : 'gun negative' }]
      return all.map((s): Fact => ({ kind: 'setting', carrierId, ...s, how: 'read' }))
    },
  }
}
