import { alloyOf, isAluminium, isCored, type Alloy, type Setup, type Span, type WireFacts } from './facts.ts'
import { text, type Finding } from './finding.ts'

/**
 * Metal a wire suits, mm, by its size (P019): thin wire for thin sheet, 0.9 to 1.2 for general work, thicker for thick and
 * hot. A guess that ships with the program, marked so where it shows; cored wire carries on thicker, aluminium wants more wire.
 */
const SUITS: readonly { wireMm: number; steel: Span; cored: Span; aluminium: Span }[] = [
  { wireMm: 0.6, steel: [0.5, 2], cored: [0.5, 2], aluminium: [0.5, 1.5] },
  { wireMm: 0.8, steel: [0.6, 4], cored: [1, 5], aluminium: [0.8, 3] },
  { wireMm: 0.9, steel: [0.8, 6.5], cored: [1.5, 10], aluminium: [1, 4] },
  { wireMm: 1, steel: [1, 10], cored: [2, 12], aluminium: [1.5, 6] },
  { wireMm: 1.2, steel: [2, 25], cored: [3, 40], aluminium: [2.5, 13] },
  { wireMm: 1.4, steel: [4, 40], cored: [5, 60], aluminium: [4, 20] },
  { wireMm: 1.6, steel: [6, 80], cored: [6, 100], aluminium: [5, 40] },
  { wireMm: 2, steel: [10, 150], cored: [10, 200], aluminium: [10, 60] },
  { wireMm: 2.4, steel: [12, 200], cored: [12, 200], aluminium: [12, 80] },
]

/** Metal thickness a wire suits, mm; null for a size the table does not know. */
export function suitsMm(wire: WireFacts): Span | null {
  const row = SUITS.find((r) => Math.abs(r.wireMm - wire.diameterMm) < 0.04)
  if (!row) return null
  return isAluminium(wire) ? row.aluminium : isCored(wire) ? row.cored : row.steel
}

/** Sizes that suit a whole span of thickness, thinnest first. @example wireFor('steel', false, [3, 3]) // [0.8, 0.9, 1, 1.2] */
export function wireFor(material: Alloy, cored: boolean, thicknessMm: Span): number[] {
  const column = material.startsWith('aluminium') ? 'aluminium' : cored ? 'cored' : 'steel'
  return SUITS.filter((r) => r[column][0] <= thicknessMm[0] && thicknessMm[1] <= r[column][1]).map((r) => r.wireMm)
}

/** Wire against the job's metal, thickness and position. Missing job data gives no verdict. */
export function jobRules(setup: Setup): Finding[] {
  const { wire, procedure } = setup
  if (!wire || !procedure) return []
  return [...thicknessRule(wire, procedure.thicknessMm), ...alloyRule(wire, procedure.material), ...positionRule(setup)]
}

const job = { severity: 'harms', at: 'hub', remedy: { do: 'ask' } } as const

function thicknessRule(wire: WireFacts, metal: Span | null): Finding[] {
  const suits = suitsMm(wire)
  if (!metal || !suits) return []
  const data = {
    found: { is: 'size', mm: wire.diameterMm } as const,
    wanted: { is: 'depths', fromMm: metal[0], toMm: metal[1] } as const,
  }
  if (metal[0] < suits[0]) return [{ ...job, rule: 'wireThick', ...data }]
  return metal[1] > suits[1] ? [{ ...job, rule: 'wireThin', ...data, severity: 'note' }] : []
}

function alloyRule(wire: WireFacts, material: Alloy | null): Finding[] {
  if (!material) return []
  const isSameMetal = (a: Alloy, b: Alloy) => a.split(' ')[0] === b.split(' ')[0]
  const own = alloyOf(wire)
  // Stainless wire joins steel to stainless on purpose.
  if (isSameMetal(own, material) || (own === 'stainless' && material === 'steel')) return []
  return [{ ...job, severity: 'stops', rule: 'wrongAlloy', found: text(own), wanted: text(material) }]
}

function positionRule({ procedure, mode, wire }: Setup): Finding[] {
  const position = procedure?.position
  if (mode !== 'spray' || !wire || isCored(wire) || isAluminium(wire)) return []
  if (position !== 'vertical' && position !== 'overhead') return []
  return [{ ...job, at: 'off', rule: 'positionSpray', found: text(wire.name), wanted: text(position) }]
}
