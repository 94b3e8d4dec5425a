import { type CarrierId } from '@core/ids/id.ts'
import { dragOfGun, isDrum, type DragFacts, type DragOfGun } from '@core/drag/ofgun.ts'
import { pathOf } from '@core/drag/path.ts'
import { tensionWindow } from '@core/drag/window.ts'
import { kinkedAt } from '@core/liner/resistance.ts'
import { isMeasured } from '@core/ledger/exposure.ts'
import { kindOfPosition, type Position } from '@core/path/columns.ts'
import { lengthTimes } from '@core/spools/bylength.ts'
import { carrierIdsOf, setupOf, type Hung } from '@server/gunnow/setup.ts'
import { fittedHere, lastNumber, type ReadHere } from '@server/gunnow/readingkept.ts'
import { type ShopModel, type ShopFit } from '@server/shopmodel/model.ts'

/** What is known of the gun at one place, for its drag. */
export function dragFactsOf(hung: Hung, shop: ShopModel, here: ReadHere): DragFacts {
  const setup = setupOf(hung, shop)
  const sinceFitted = (position: Position) => fittedHere(hung, shop)(position)[0] ?? null
  const calibration = hung.stateOf(hung.now.headId)?.now?.calibration ?? null
  const isForThisWire = calibration && (calibration.wireId === null || calibration.wireId === setup.wire?.id)
  const lay = here.kept.findLast((r) => r.what === 'layout')
  const tip = here.kept.findLast((r) => r.what === 'bore')
  const tipFitted = sinceFitted('tip')
  const { head } = here
  const labelKg = setup.wire ? (shop.wires.get(setup.wire.id)?.spoolKg ?? null) : null
  const left =
    head?.spoolKg && head.spoolUsedKg !== null ? (head.spoolKg - head.spoolUsedKg) / (labelKg ?? head.spoolKg) : null
  const wantedUnwind = setup.feeder?.unwind ?? null
  return {
    setup,
    linerUsed: linerUsed(hung, shop),
    kink: setup.cableM === null ? null : kinkedAt(hung.stateOf(hung.now.gunId)?.now?.stuck ?? [], setup.cableM * 1000),
    spoolKg: labelKg,
    spoolLeft: left,
    isReversed: wantedUnwind !== null && setup.settings.unwind !== undefined && setup.settings.unwind !== wantedUnwind,
    slip: isForThisWire ? calibration : null,
    friction: lastNumber(here, 'pull', sinceFitted('liner')),
    hubN: lastNumber(here, 'hubDrag', null),
    gapMm: lastNumber(here, 'gap', sinceFitted('outlet')),
    coils: lastNumber(here, 'layout', null),
    conduit: conduitRead(here),
    hasSecondDrive: hasSecondDrive(hung),
    layGrade: lay?.grade ? { grade: lay.grade, atMs: lay.atMs } : null,
    tip: tip && (tipFitted === null || tip.atMs > tipFitted) ? { is: tip.is, atMs: tip.atMs } : null,
    knob: lastNumber(here, 'tension', null),
  }
}

function conduitRead(here: ReadHere): DragFacts['conduit'] {
  const last = here.kept.findLastIndex((r) => r.what === 'conduitPull' && r.value !== null)
  const read = lastNumber(here, 'conduitPull', null)
  const bends = here.rows[last]?.madeFrom['bends']
  return read && { ...read, bends: typeof bends === 'number' ? bends : null }
}
/** Rolls on the gun beside those of its feeder. */
function hasSecondDrive(hung: Hung): boolean {
  const hasRolls = (id: CarrierId | null) =>
    (hung.stateOf(id)?.rows ?? []).some((r) => kindOfPosition(r.position) === 'rolls')
  return hasRolls(hung.now.gunId) && hasRolls(hung.now.headId)
}
/** Whether its wire comes out of a drum, by what its wire comes in. */
export function isFromDrum(hung: Hung, shop: ShopFit): boolean {
  const kg = hung.spoolWireId ? (shop.wires.get(hung.spoolWireId)?.spoolKg ?? null) : null
  return kg !== null && isDrum(kg)
}

/** Share of the liner's limit that it has done, up to its clock's last entry. */
function linerUsed(hung: Hung, shop: ShopModel): number | null {
  const rows = carrierIdsOf(hung.now, shop).flatMap((id) => hung.stateOf(id)?.rows ?? [])
  const row = rows.find((r) => kindOfPosition(r.position) === 'liner')
  const kind = shop.kindByKey.get('liner')
  const limit = shop.ruleFor('liner', hung.station.classKey)?.changeLimit
  if (!row || !kind || !limit || !isMeasured(kind.lifeUnit)) return null
  const used = row.sinceFitted?.[kind.lifeUnit]?.amount
  const wire = setupOf(hung, shop).wire
  return used === undefined ? null : used / (limit * lengthTimes(kind, wire))
}

export interface DragHere {
  facts: DragFacts
  made: DragOfGun | null
}
export function dragHere(hung: Hung, shop: ShopModel, here: ReadHere): DragHere {
  const facts = dragFactsOf(hung, shop, here)
  return { facts, made: dragOfGun(facts) }
}

/** The knob's window in marks; null where the feeder is not calibrated: then no mark can be told. */
export function knobWindow({ facts, made }: DragHere): { lowMark: number; highMark: number } | null {
  if (!made || !facts.slip) return null
  const { lowMark, highMark } = tensionWindow(pathOf(made.drag))
  return lowMark === null ? null : { lowMark, highMark }
}
