import { wireForces } from './wire.ts'
import { type Rig } from './rig.ts'

/** Looks that read a number, and which. */
export interface Meter {
  what: 'gasLpm' | 'pullN' | 'spoolN' | 'speedMmS' | 'volts'
  value: number
  /** What it should read. */
  usual: number
}
/** A spring scale pulls what the rolls would push; a meter at the gun shows what gets there; the machine shows what was set. */
export function metersOf(check: string, { rig, sound }: { rig: Rig; sound: Rig }): Meter[] {
  const gas = (r: Rig) => (r.gas.lpm ?? 0) * r.gas.arrives
  if (check === 'flow' && sound.gas.lpm !== null) return [{ what: 'gasLpm', value: gas(rig), usual: gas(sound) }]
  if (check === 'pull') return [{ what: 'pullN', value: wireForces(rig).keepN, usual: wireForces(sound).keepN }]
  if (check === 'spoolByHand') return [{ what: 'spoolN', value: wireForces(rig).backN, usual: wireForces(sound).backN }]
  if (check !== 'compare') return []
  return [
    { what: 'speedMmS', value: rig.wireSpeedMmS, usual: sound.wireSpeedMmS },
    { what: 'volts', value: rig.volts, usual: sound.volts },
  ]
}
