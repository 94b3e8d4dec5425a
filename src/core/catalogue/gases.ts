import { type Gas, type Mode } from '@core/rightparts/facts.ts'
import { asksOf, catalogueWire, wireKind, type WireKindKey } from './wires.ts'

/** Gases as they are bought, by what is in them: argon first, as it stands on the cylinder's collar. */
export interface BoughtGas {
  name: string
  /** What the rules of fit know it as. */
  gas: Gas
  /** Modes it is any good for on hard wire; empty: it is for soft wire or for none. */
  modes: readonly Mode[]
  /** One line for somebody who has to choose. */
  suits: string
}
export const BOUGHT_GASES = {
  co2: {
    name: 'CO2',
    gas: 'CO2',
    modes: ['short circuit', 'globular'],
    suits: 'Steel, short circuit, and most gas-shielded flux-cored. Cheapest, most spatter. Never sprays.',
  },
  mix75: {
    name: '75/25 argon–CO2',
    gas: 'argon mix',
    modes: ['short circuit', 'globular'],
    suits: 'Steel, short circuit, and many flux-cored. Too much CO2 to spray.',
  },
  mix80: {
    name: '80/20 argon–CO2',
    gas: 'argon mix',
    modes: ['short circuit', 'spray', 'globular'],
    suits: 'Steel, short circuit; sprays at the hot end. Metal-cored and flux-cored too.',
  },
  mix90: {
    name: '90/10 argon–CO2',
    gas: 'argon mix',
    modes: ['spray', 'pulse', 'short circuit'],
    suits: 'Steel, spray and pulse, metal-cored. Least spatter on the front.',
  },
  mix98: {
    name: '98/2 argon–CO2',
    gas: 'argon mix',
    modes: ['spray', 'pulse', 'short circuit'],
    suits: 'Stainless, all modes.',
  },
  argon: { name: 'argon', gas: 'argon', modes: [], suits: 'Aluminium and silicon bronze. Not for steel.' },
  argonHelium: {
    name: 'argon–helium',
    gas: 'argon-helium',
    modes: [],
    suits: 'Thick aluminium: hotter, dearer.',
  },
  none: { name: 'none', gas: 'none', modes: [], suits: 'Only wire that shields itself.' },
} as const satisfies Record<string, BoughtGas>
export type BoughtGasKey = keyof typeof BOUGHT_GASES
export const BOUGHT_GAS_KEYS = Object.keys(BOUGHT_GASES) as [BoughtGasKey, ...BoughtGasKey[]]

const FIRST: Partial<Record<WireKindKey, readonly BoughtGasKey[]>> = {
  stainless: ['mix98'],
  fluxCored: ['co2', 'mix75', 'mix80'],
  metalCored: ['mix90', 'mix80'],
}

/** Why a gas is no choice for a wire in a mode; null: nothing is known against it. */
export function gasAgainst(key: BoughtGasKey, of: { wire: WireKindKey | null; mode: Mode | null }): string | null {
  const gas: BoughtGas = BOUGHT_GASES[key]
  if (!of.wire) return null
  const kind = wireKind(of.wire)
  const { gases } = asksOf(catalogueWire(of.wire, kind.sizesMm[0] ?? 1, 'metric'))
  const isKnown = gases?.includes(gas.gas) ?? !['argon', 'argon-helium', 'none'].includes(gas.gas)
  if (!isKnown) return gas.gas === 'none' ? `${kind.name} wants gas` : `not for ${kind.name}`
  if (of.wire === 'stainless' && key !== 'mix98') return 'too much CO2 for stainless: it carburises and rusts'
  // Only the hot modes ask more of a gas; flux brings what they need along.
  const isHot = of.mode === 'spray' || of.mode === 'pulse'
  const isLacking = of.mode !== null && gas.modes.length > 0 && !gas.modes.includes(of.mode)
  return isHot && isLacking && kind.construction !== 'flux-cored' ? `does not go with ${of.mode}` : null
}

/** All of them, what goes with the wire first. */
export function gasesInOrder(of: { wire: WireKindKey | null; mode: Mode | null }): BoughtGasKey[] {
  const first = (of.wire && FIRST[of.wire]) ?? []
  const rank = (key: BoughtGasKey) => {
    if (gasAgainst(key, of) !== null) return 100
    const at = first.indexOf(key)
    return at < 0 ? 50 : at
  }
  return [...BOUGHT_GAS_KEYS].sort((a, b) => rank(a) - rank(b))
}
