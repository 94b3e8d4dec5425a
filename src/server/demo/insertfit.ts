import { type Id, type WireId } from '@core/ids/id.ts'
import { ROLL_SETTINGS, type SettingName } from '@core/rightparts/facts.ts'
import { feederType, procedure, site } from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'
import { AREA_FIT, CODES_BY_WIRE, FEEDER_TYPES, OTHER_PARTS, PLACE_FIT, PROCEDURES, WIRE_FIT } from './fityard.ts'
import { EXCEPTIONS, WIRES, type AreaPlan } from './yard.ts'

export interface FitIds {
  feeders: Map<string, Id<'feederType'>>
  procedures: Map<string, Id<'procedure'>>
}
const GAS_MINOR_PER_M3 = 850

/** Feeders and procedures of the yard, and what its gas costs. */
export async function insertFit(
  tx: Tx,
  at: { id: <N extends 'feederType' | 'procedure'>(name: N) => Id<N>; wires: readonly { id: WireId; name: string }[] },
): Promise<FitIds> {
  const feeders = Object.entries(FEEDER_TYPES).map(([name, fit]) => ({ id: at.id('feederType'), name, fit }))
  await tx.insert(feederType).values(feeders)
  const procedures = Object.entries(PROCEDURES).map(([name, { wire, fit }]) => ({
    id: at.id('procedure'),
    name,
    fit: { ...fit, wireId: at.wires.find((w) => w.name === wire)?.id ?? null },
  }))
  await tx.insert(procedure).values(procedures)
  await tx.update(site).set({ gasMinorPerM3: GAS_MINOR_PER_M3 })
  return {
    feeders: new Map(feeders.map((f) => [f.name, f.id])),
    procedures: new Map(procedures.map((p) => [p.name, p.id])),
  }
}

/** How a gun of the yard is set when it is set right. */
export function rightSettings(made: {
  station: { name: string }
  plan: AreaPlan
}): { name: SettingName; value: string }[] {
  const { name } = made.station
  const wireName = EXCEPTIONS[name]?.wire ?? made.plan.wire
  const wire = WIRES.find((w) => w.name === wireName)
  const feeder = FEEDER_TYPES[AREA_FIT[made.plan.name]?.feeder ?? '']
  const rolls = OTHER_PARTS.find((p) => p.code === CODES_BY_WIRE[wireName]?.['rolls'])?.fit.grooves
  if (!wire || !feeder || !rolls) return []
  const at = rolls.findIndex((g) => g.sizeMm === wire.diameterMm)
  const read = rolls[feeder.runsFace === 'read' ? at : 1 - at]?.sizeMm ?? wire.diameterMm
  const faces = ROLL_SETTINGS.slice(0, feeder.rollCount).map((roll) => ({ name: roll, value: String(read) }))
  return [
    ...faces,
    { name: 'polarity', value: 'gun positive' },
    { name: 'unwind', value: feeder.unwind ?? 'over the top' },
    { name: 'machineWire', value: String(wire.diameterMm) },
    { name: 'machineMode', value: PLACE_FIT[name]?.mode ?? made.plan.mode },
    { name: 'machineMaterial', value: WIRE_FIT[wireName]?.alloy ?? 'steel' },
    ...(made.plan.antiSpatter ? [{ name: 'antiSpatter' as const, value: made.plan.antiSpatter }] : []),
  ]
}
