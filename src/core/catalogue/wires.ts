import {
  gasesFor,
  grooveFor,
  polarityFor,
  type Alloy,
  type Construction,
  type Gas,
  type GrooveShape,
  type LinerKind,
  type Polarity,
  type WireFit,
} from '@core/rightparts/facts.ts'
import { NO_ID } from '@core/ids/id.ts'
import { UNTOLD_WIRE } from '@core/rightparts/untold.ts'
import { inchName, parseWireSize } from '@core/units/wiresize.ts'

/**
 * Wires as they are sold, by what they are made of, with no maker in it. Density, spool and the sizes are the trade's usual ones, marked as guesses
 * where they show; groove, gas, polarity and liner follow from the same rules that check a gun.
 */
export interface WireKind {
  /** What it is called over the counter. */
  name: string
  /** In half a line, where the name alone may not tell somebody: how to know it. */
  told: string
  construction: Construction
  alloy: Alloy
  isSelfShielded: boolean | null
  /** g/cm³; cored wires by their usual fill. */
  densityGPerCm3: number
  sizesMm: readonly number[]
  /** Net mass of the spool it usually comes on, kg. */
  spoolKg: { metric: number; us: number }
}
export const WIRE_KINDS = {
  steel: {
    name: 'solid steel',
    told: 'copper-coloured or bare, with gas',
    ...{ construction: 'solid', alloy: 'steel', isSelfShielded: null, densityGPerCm3: 7.85 },
    sizesMm: [0.6, 0.8, 0.9, 1.0, 1.2, 1.4, 1.6],
    spoolKg: { metric: 15, us: 14.97 },
  },
  stainless: {
    name: 'stainless',
    told: 'bright, hardly magnetic, three-part or 98/2 gas',
    ...{ construction: 'solid', alloy: 'stainless', isSelfShielded: null, densityGPerCm3: 7.95 },
    sizesMm: [0.8, 0.9, 1.0, 1.2, 1.6],
    spoolKg: { metric: 15, us: 14.97 },
  },
  aluSoft: {
    name: 'aluminium 4xxx',
    told: 'the softer one, with silicon: bends like solder',
    ...{ construction: 'aluminium', alloy: 'aluminium 4xxx', isSelfShielded: null, densityGPerCm3: 2.68 },
    sizesMm: [0.8, 0.9, 1.0, 1.2, 1.6],
    spoolKg: { metric: 7, us: 7.26 },
  },
  aluStiff: {
    name: 'aluminium 5xxx',
    told: 'the stiffer one, with magnesium',
    ...{ construction: 'aluminium', alloy: 'aluminium 5xxx', isSelfShielded: null, densityGPerCm3: 2.66 },
    sizesMm: [0.8, 0.9, 1.0, 1.2, 1.6],
    spoolKg: { metric: 7, us: 7.26 },
  },
  bronze: {
    name: 'silicon bronze',
    told: 'for brazing sheet, yellow-brown, soft',
    ...{ construction: 'solid', alloy: 'copper alloy', isSelfShielded: null, densityGPerCm3: 8.5 },
    sizesMm: [0.8, 0.9, 1.0, 1.2],
    spoolKg: { metric: 12.5, us: 13.61 },
  },
  metalCored: {
    name: 'metal-cored',
    told: 'a tube of metal powder: little slag, with gas',
    ...{ construction: 'metal-cored', alloy: 'steel', isSelfShielded: false, densityGPerCm3: 6.9 },
    sizesMm: [0.9, 1.2, 1.4, 1.6],
    spoolKg: { metric: 16, us: 14.97 },
  },
  fluxCored: {
    name: 'flux-cored, with gas',
    told: 'a tube of flux: slag to chip, and a gas line',
    ...{ construction: 'flux-cored', alloy: 'steel', isSelfShielded: false, densityGPerCm3: 6.1 },
    sizesMm: [0.9, 1.2, 1.4, 1.6, 2.0],
    spoolKg: { metric: 15, us: 14.97 },
  },
  gasless: {
    name: 'flux-cored, no gas',
    told: 'shields itself: slag to chip, no gas line',
    ...{ construction: 'flux-cored', alloy: 'steel', isSelfShielded: true, densityGPerCm3: 6.3 },
    sizesMm: [0.8, 0.9, 1.2, 1.7, 2.0, 2.4],
    spoolKg: { metric: 5, us: 4.54 },
  },
} as const satisfies Record<string, WireKind>
export type WireKindKey = keyof typeof WIRE_KINDS
export const WIRE_KIND_KEYS = Object.keys(WIRE_KINDS) as [WireKindKey, ...WireKindKey[]]
export const wireKind = (key: WireKindKey): WireKind => WIRE_KINDS[key]

/** A size as it stands on the box: `0.9` in a metric shop, `.035` in one of inches, with a fraction where the trade writes one. */
export function sizeOnBox(mm: number, units: 'metric' | 'us'): string {
  if (units === 'metric') return mm.toFixed(1)
  return inchName(mm) ?? mm.toFixed(1)
}

/** A wire of the catalogue, as the shop keeps it. */
export interface CatalogueWire {
  name: string
  construction: Construction
  diameterMm: number
  densityGPerCm3: number
  spoolKg: number
  fit: WireFit
}
/** @example catalogueWire('steel', 0.9, 'metric').name // 'solid steel 0.9' */
export function catalogueWire(key: WireKindKey, diameterMm: number, units: 'metric' | 'us'): CatalogueWire {
  const kind = wireKind(key)
  return {
    name: `${kind.name} ${sizeOnBox(diameterMm, units)}`,
    construction: kind.construction,
    diameterMm,
    densityGPerCm3: kind.densityGPerCm3,
    spoolKg: kind.spoolKg[units],
    fit: { ...UNTOLD_WIRE, alloy: kind.alloy, isSelfShielded: kind.isSelfShielded },
  }
}

/** Words by which people tell one wire from another; the first that fits is meant. "Aluminium" alone may be the soft one or the stiff one, "flux-cored" alone with gas or without (and the other polarity): neither is read. */
const WIRE_WORDS: readonly [RegExp, WireKindKey | null][] = [
  [/stainless|inox|\b(308|309|316)l?\b/, 'stainless'],
  [/\b(alu?(minium|minum)?)\b.*\b(4\d{3}|4xxx|soft)\b/, 'aluSoft'],
  [/\b(alu?(minium|minum)?)\b.*\b(5\d{3}|5xxx|stiff|hard)\b/, 'aluStiff'],
  [/bronze/, 'bronze'],
  [/metal[ -]?core/, 'metalCored'],
  [/\b(gasless|no[ -]gas|self[ -]?shield(ed|ing)?)\b/, 'gasless'],
  [/(flux|\bcored\b).*\b(with gas|gas[ -]?shield(ed)?|dual[ -]?shield)\b/, 'fluxCored'],
  [/flux|\bcored\b/, null],
  [/\b(solid|steel|mild)\b/, 'steel'],
]
/**
 * A wire as a list names it: what it is made of, and one number that is a size. Null where either is missing.
 * @example readWireWords('.035 solid', 'us')?.name // 'solid steel .035'
 */
export function readWireWords(text: string, units: 'metric' | 'us'): CatalogueWire | null {
  const plain = text.toLowerCase()
  const kind = WIRE_WORDS.find(([words]) => words.test(plain))?.[1]
  const sizes = [...plain.matchAll(/(?<!\d)(?:\d*[.,]\d+|\d{1,2}\/\d{1,2})(?:\s*(?:mm|in\b|"))?/g)].flatMap(
    ([word]) => {
      const read = parseWireSize(word)
      return read.ok ? [read.diameterMm] : []
    },
  )
  const [size] = sizes
  return kind && size !== undefined && new Set(sizes).size === 1 ? catalogueWire(kind, size, units) : null
}

/** What a wire asks of the gun it runs through, by the rules that check guns. */
export interface WireAsks {
  groove: GrooveShape
  liner: LinerKind
  polarity: Polarity | null
  gases: readonly Gas[] | null
}
export function asksOf(wire: CatalogueWire): WireAsks {
  const facts = { ...wire, id: NO_ID }
  const groove = grooveFor(facts)
  return {
    groove,
    liner: groove === 'U' ? 'polymer' : 'steel coil',
    polarity: polarityFor(facts, 'gasless'),
    gases: gasesFor(facts),
  }
}
