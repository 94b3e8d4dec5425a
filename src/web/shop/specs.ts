import { ownUnit, readSpan, shownQuantity, shownSpan, type QuantityKind } from '@core/units/quantity.ts'
import { type Units } from '@web/format/numbers.ts'
import { quantity, type Read, type Reader } from '@web/kit/readform.ts'

/** A field of a set of facts, as data: what it is called, and how it is typed. */
export type Spec = { key: string; label: string } & (
  | { is: 'text' }
  | { is: 'flag' }
  | { is: 'maybe' }
  | { is: 'quantity'; of: QuantityKind }
  | { is: 'span'; of: QuantityKind }
  | { is: 'pick'; options: readonly (readonly [string, string])[]; none?: string }
)
/** What stands in the fields, by key; a flag is "yes" or nothing. */
export type Texts = Record<string, string>
export type Facts = Record<string, unknown>
interface SpecsAt {
  units: Units
  facts: object | null | undefined
}
const keptOf = ({ facts }: SpecsAt, key: string): unknown => (facts as Facts | null | undefined)?.[key]

/** "what stands out, mm", "what stands out, in". */
export function specLabel(spec: Spec, units: Units): string {
  const unit = 'of' in spec ? ownUnit({ of: spec.of, units }) : ''
  return unit ? `${spec.label}, ${unit}` : spec.label
}

/** What stands in the fields for facts that are there; "not told" is an empty field. */
export const textsOf = (specs: readonly Spec[], at: SpecsAt): Texts =>
  Object.fromEntries(specs.map((spec) => [spec.key, textOf(spec, keptOf(at, spec.key), at.units)]))

function textOf(spec: Spec, value: unknown, units: Units): string {
  if (value === null || value === undefined) return ''
  if (spec.is === 'span') return shownSpan(value as [number, number], { of: spec.of, units })
  if (spec.is === 'quantity') return shownQuantity(value as number, { of: spec.of, units })
  if (spec.is === 'flag') return value ? 'yes' : ''
  if (spec.is === 'maybe') return value ? 'yes' : 'no'
  return String(value)
}

/** A group of fields: its facts, or which of them can't be read and why. What was left as it stood is kept as it was. */
export const specsReader =
  (specs: readonly Spec[], at: SpecsAt): Reader<Facts, Texts> =>
  (texts) => {
    const facts: Facts = {}
    const by: Record<string, string> = {}
    for (const spec of specs) {
      const kept = keptOf(at, spec.key)
      const read = readOne(spec, { text: texts[spec.key] ?? '', kept, units: at.units })
      if (read.ok) facts[spec.key] = read.value
      else by[spec.key] = read.why
    }
    const [why] = Object.values(by)
    return why === undefined ? { ok: true, value: facts } : { ok: false, why, by }
  }

function readOne(spec: Spec, at: { text: string; kept: unknown; units: Units }): Read<unknown> {
  const text = at.text.trim()
  if (spec.is === 'flag') return { ok: true, value: text === 'yes' }
  if (spec.is === 'maybe') return { ok: true, value: text === '' ? null : text === 'yes' }
  if (spec.is === 'text' || spec.is === 'pick') return { ok: true, value: text || null }
  const rule = { of: spec.of, units: at.units }
  if (spec.is === 'quantity') return quantity({ ...rule, kept: at.kept as number | null | undefined })(text)
  const kept = at.kept as [number, number] | null | undefined
  return kept && text === shownSpan(kept, rule) ? { ok: true, value: kept } : readSpan(text, rule)
}
