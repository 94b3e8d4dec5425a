import {
  cleanLimit,
  closurePrior,
  learntInterval,
  cleaningWay,
  type CleaningWay,
  type CleanLimit,
  type CleaningInterval,
} from '@core/cleaning/interval.ts'
import { cleaningRises } from '@core/cleaning/rising.ts'
import { rulingFor } from '@core/houserule/schools.ts'
import { isAluminium, isCored, type WireFacts } from '@core/rightparts/facts.ts'
import { type Built } from '@core/shop/built.ts'
import { carrierIdsOf, ruledBy, wireFacts, type Hung } from './setup.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'

/** How the nozzle of one gun is cleaned: by which hours, or when else. */
export interface CleaningHere {
  /** Null: no hours count here. */
  limit: CleanLimit | null
  way: CleaningWay
  /** What its own findings would have it be, whatever the shop chose; the class's guess where there are none. */
  learnt: CleaningInterval
  /** It closes ever faster. */
  rises: boolean
}

/** How fast a nozzle closes with this work and wire: the guess of its class. */
export const closureHere = ({ mode, gas }: Pick<Built, 'mode' | 'gas'>, wire: WireFacts | null) =>
  closurePrior({ mode, gas, isCored: wire !== null && isCored(wire), isAluminium: wire !== null && isAluminium(wire) })

/** Arc hours between cleanings of the nozzle that hangs here, by house rule D16 and by how shut it was found with the wire that is on. */
export function cleaningHere(hung: Hung, shop: ShopModel, built: Built): CleaningHere {
  const wireRow = shop.wires.get(hung.spoolWireId ?? built.wireId ?? '')
  const wire = wireRow ? wireFacts(wireRow) : null
  const found = carrierIdsOf(hung.now, shop)
    .flatMap((id) => hung.stateOf(id)?.now?.foundClosed ?? [])
    .filter((f) => f.wireId === null || f.wireId === hung.spoolWireId)
  const prior = closureHere(built, wire)
  const isByHours = shop.kindByKey.get('nozzle')?.lifeUnit === 'arcHours'
  const ruleH = isByHours ? (shop.ruleFor('nozzle', hung.station.classKey)?.cleanLimit ?? null) : null
  const school = rulingFor('D16', ruledBy(hung.station, built), shop.choices).school.key
  const learnt = learntInterval({ ruleH, found, prior })
  // Where a reamer comes by itself, hours between hands say nothing.
  if (hung.station.classKey === 'cell' && (built.cell?.reamEvery ?? null) !== null)
    return { limit: null, way: 'machine', learnt, rises: false }
  return {
    limit: isByHours ? cleanLimit({ school, ruleH, learnt }) : null,
    way: cleaningWay(school),
    learnt,
    rises: cleaningRises(found),
  }
}
