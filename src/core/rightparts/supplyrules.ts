import { parseWireSize } from '@core/units/wiresize.ts'
import {
  alloyOf,
  canCarry,
  gasesFor,
  isAluminium,
  isSameSize,
  polarityFor,
  type Setup,
  type WireFacts,
} from './facts.ts'
import { size, text, type Datum, type Finding, type Remedy, type RuleKey, type Severity } from './finding.ts'

const off = (
  rule: RuleKey,
  severity: Severity,
  data: { found: Datum; wanted: Datum; remedy?: Remedy; at?: Finding['at'] },
): Finding => ({ rule, severity, at: data.at ?? 'off', remedy: data.remedy ?? { do: 'ask' }, ...data })

/** What is off the wire: spool direction, polarity, gas, the machine, the procedure. */
export function supplyRules(setup: Setup): Finding[] {
  const { wire } = setup
  return [
    ...unwindRule(setup),
    ...(wire ? [...polarityRule(setup, wire), ...gasRules(setup, wire), ...machineRules(setup, wire)] : []),
    ...procedureRules(setup),
  ]
}

function unwindRule(setup: Setup): Finding[] {
  const wanted = setup.feeder?.unwind
  const found = setup.settings.unwind
  if (!wanted || !found || wanted === found) return []
  const remedy = { do: 'set', name: 'unwind', value: wanted } as const
  return [off('unwind', 'harms', { at: 'hub', found: text(found), wanted: text(wanted), remedy })]
}

function polarityRule(setup: Setup, wire: WireFacts): Finding[] {
  const wanted = polarityFor(wire, setup.polarityBy)
  const found = setup.settings.polarity
  if (!wanted || !found || wanted === found) return []
  const remedy = { do: 'set', name: 'polarity', value: wanted } as const
  return [off('polarity', 'stops', { found: text(found), wanted: text(wanted), remedy })]
}

/** The gas that is on: said of this gun, else as its procedure or bay has it. */
export const gasOn = (setup: Setup) => setup.settings.gas ?? setup.gas ?? null

function gasRules(setup: Setup, wire: WireFacts): Finding[] {
  const gas = gasOn(setup)
  if (!gas) return []
  const wanted = gasesFor(wire)
  if (wanted && !wanted.some((g) => g === gas)) {
    const isSpoilt = isAluminium(wire) || gas === 'argon' || gas === 'argon-helium' || gas === 'none'
    const list = wanted.join(' or ')
    const isOnlyWaste = wanted.includes('none') && gas !== 'none'
    const severity = isOnlyWaste ? 'note' : isSpoilt ? 'stops' : 'harms'
    return [off('gas', severity, { at: 'gas', found: text(gas), wanted: text(list) })]
  }
  if (gas === 'CO2' && !canCarry(gas, wire, setup.mode))
    return [off('gasMode', 'harms', { at: 'gas', found: text('CO2'), wanted: text(setup.mode ?? '') })]
  return []
}

function machineRules(setup: Setup, wire: WireFacts): Finding[] {
  const { machineWire, machineMode, machineMaterial } = setup.settings
  const lines: Finding[] = []
  const set = machineWire ? parseWireSize(`${machineWire} mm`) : null
  if (set?.ok && !isSameSize(set.diameterMm, wire.diameterMm))
    lines.push(
      off('machineWire', 'harms', {
        found: size(set.diameterMm),
        wanted: size(wire.diameterMm),
        remedy: { do: 'set', name: 'machineWire', value: String(wire.diameterMm) },
      }),
    )
  if (machineMode && setup.mode && machineMode !== setup.mode)
    lines.push(
      off('machineMode', 'harms', {
        found: text(machineMode),
        wanted: text(setup.mode),
        remedy: { do: 'set', name: 'machineMode', value: setup.mode },
      }),
    )
  if (machineMaterial && machineMaterial !== alloyOf(wire))
    lines.push(
      off('machineMaterial', 'harms', {
        found: text(machineMaterial),
        wanted: text(alloyOf(wire)),
        remedy: { do: 'set', name: 'machineMaterial', value: alloyOf(wire) },
      }),
    )
  return lines
}

/** Procedure, spool, gas, mode, polarity and feeder as one chain (P027). Silent where no procedure is attached. */
function procedureRules(setup: Setup): Finding[] {
  const { procedure, wire } = setup
  if (!procedure) return []
  const lines: Finding[] = []
  if (procedure.wireId && wire && procedure.wireId !== wire.id)
    lines.push(
      off('otherWire', 'stops', { at: 'hub', found: text(wire.name), wanted: text(`wire:${procedure.wireId}`) }),
    )
  if (procedure.mode && setup.mode && procedure.mode !== setup.mode)
    lines.push(off('otherMode', 'harms', { found: text(setup.mode), wanted: text(procedure.mode) }))
  const gas = gasOn(setup)
  if (procedure.gas && gas && procedure.gas !== gas)
    lines.push(off('otherGas', 'harms', { at: 'gas', found: text(gas), wanted: text(procedure.gas) }))
  const wants = wire && procedure.wireId === wire.id ? polarityFor(wire, setup.polarityBy) : null
  if (procedure.polarity && wants && procedure.polarity !== wants)
    lines.push(off('procedurePolarity', 'harms', { found: text(procedure.polarity), wanted: text(wants) }))
  const top = setup.feeder?.topMPerMin
  if (procedure.wireMPerMin && top && procedure.wireMPerMin[1] > top)
    lines.push(
      off('feederSlow', 'harms', {
        at: 'rolls',
        found: { is: 'speed', mPerMin: top },
        wanted: { is: 'speed', mPerMin: procedure.wireMPerMin[1] },
      }),
    )
  return lines
}
