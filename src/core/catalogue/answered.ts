import {
  alloyOf,
  isSameSize,
  type FamilyFacts,
  type FeederFacts,
  type FeederFit,
  type WireFacts,
} from '@core/rightparts/facts.ts'
import { type Built } from '@core/shop/built.ts'
import { UNNAMED_GUN, type BayAnswers } from './bay.ts'
import { FEEDER_KIND_KEYS, FEEDER_KINDS, type FeederKindKey } from './feeders.ts'
import { BOUGHT_GASES, gasesInOrder, type BoughtGasKey } from './gases.ts'
import { WIRE_KIND_KEYS, wireKind } from './wires.ts'

interface Known {
  wires: readonly WireFacts[]
  families: readonly Pick<FamilyFacts, 'id' | 'name' | 'fit'>[]
  feederTypes: readonly (Pick<FeederFacts, 'id' | 'name'> & { fit: FeederFit })[]
}

/** The answers that a bay stands for as it is built now: what "as Main bay, except …" begins with. A gas is told by its class alone: the usual one of it. */
export function answersOf(built: Built, known: Known): BayAnswers {
  const family = known.families.find((f) => f.id === built.familyId)
  const wire = wireOf(known.wires.find((w) => w.id === built.wireId))
  return {
    wire,
    gunName: family && family.name !== UNNAMED_GUN ? family.name : null,
    nozzle: family?.fit?.nozzleStyle ?? null,
    feeder: feederOf(built, known),
    mode: built.mode,
    gas: gasOf(built, wire),
    cableM: built.cableM,
  }
}

function wireOf(wire: WireFacts | undefined): BayAnswers['wire'] {
  if (!wire) return null
  const kind = WIRE_KIND_KEYS.find((key) => {
    const k = wireKind(key)
    const isShielded = k.isSelfShielded === null || (wire.fit?.isSelfShielded ?? null) === k.isSelfShielded
    return k.construction === wire.construction && k.alloy === alloyOf(wire) && isShielded
  })
  const sizeMm = kind && wireKind(kind).sizesMm.find((mm) => isSameSize(mm, wire.diameterMm))
  return kind && sizeMm ? { kind, sizeMm } : null
}

function feederOf(built: Built, { feederTypes }: Known): FeederKindKey | null {
  const type = feederTypes.find((f) => f.id === built.feederTypeId)
  const named = FEEDER_KIND_KEYS.find((key) => FEEDER_KINDS[key].name === type?.name)
  if (named) return named
  const rolls = type?.fit.rollCount ?? built.rollCount
  return rolls === null ? null : rolls === 2 ? 'two' : 'four'
}

function gasOf(built: Built, wire: BayAnswers['wire']): BoughtGasKey | null {
  if (built.gas === null) return null
  const order = gasesInOrder({ wire: wire?.kind ?? null, mode: built.mode })
  return order.find((key) => BOUGHT_GASES[key].gas === built.gas) ?? null
}
