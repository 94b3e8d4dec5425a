import { Form } from 'react-bootstrap'
import { parseNumber } from '@core/units/number.ts'
import { PickOne, TextField } from '@web/kit/Field.tsx'

/** A field of a set of facts, as data: what it is called, and how it is typed. */
export type Spec =
  | { key: string; label: string; is: 'text' | 'number' | 'span'; scale?: number; placeholder?: string }
  | { key: string; label: string; is: 'flag' }
  | { key: string; label: string; is: 'maybe' }
  | { key: string; label: string; is: 'pick'; options: readonly (readonly [string, string])[]; none?: string }

export type Texts = Record<string, string>

/** What stands in the fields for facts that are there; "not told" is an empty field. */
export function textsOf(specs: readonly Spec[], facts: object | null | undefined): Texts {
  return Object.fromEntries(
    specs.map((spec) => [spec.key, textOf(spec, (facts as Record<string, unknown> | null | undefined)?.[spec.key])]),
  )
}

function textOf(spec: Spec, value: unknown): string {
  if (value === null || value === undefined) return ''
  const scale = 'scale' in spec ? (spec.scale ?? 1) : 1
  if (spec.is === 'span') return (value as [number, number]).map((n) => String(n * scale)).join('–')
  if (spec.is === 'number') return String(Number(((value as number) * scale).toPrecision(12)))
  if (spec.is === 'flag') return value ? 'yes' : ''
  if (spec.is === 'maybe') return value ? 'yes' : 'no'
  return typeof value === 'string' ? value : String(value as number)
}

export type Read = { ok: true; facts: Record<string, unknown> } | { ok: false; key: string; why: string }

/** Facts from what was typed; the first field that cannot be read is named. */
export function factsOf(specs: readonly Spec[], texts: Texts): Read {
  const facts: Record<string, unknown> = {}
  for (const spec of specs) {
    const text = (texts[spec.key] ?? '').trim()
    const value = readOne(spec, text)
    if (value === undefined)
      return {
        ok: false,
        key: spec.key,
        why: `${spec.label}: "${text}" can’t be read${spec.is === 'span' ? '; write it like 3–8' : '; write a number'}.`,
      }
    facts[spec.key] = value
  }
  return { ok: true, facts }
}

/** Undefined: not readable. */
function readOne(spec: Spec, text: string): unknown {
  if (spec.is === 'flag') return text === 'yes'
  if (text === '') return null
  if (spec.is === 'maybe') return text === 'yes'
  if (spec.is === 'text' || spec.is === 'pick') return text
  const scale = spec.scale ?? 1
  if (spec.is === 'number') {
    const value = parseNumber(text)
    return value === null ? undefined : value / scale
  }
  const ends = /^(-?[\d.,]+)\s*(?:–|—|-|to|\.\.)\s*(-?[\d.,]+)$/.exec(text)
  const both = ends ? [ends[1] ?? '', ends[2] ?? ''] : [text, text]
  const numbers = both.map((t) => parseNumber(t))
  const [from, to] = numbers
  return from === null || to === null || from === undefined || to === undefined
    ? undefined
    : [Math.min(from, to) / scale, Math.max(from, to) / scale]
}

/** The fields themselves. */
export function SpecFields(props: {
  id: string
  specs: readonly Spec[]
  texts: Texts
  onChange: (texts: Texts) => void
}) {
  const { specs, texts } = props
  const set = (key: string, value: string) => props.onChange({ ...texts, [key]: value })
  return specs.map((spec) => {
    const id = `${props.id}-${spec.key}`
    const value = texts[spec.key] ?? ''
    if (spec.is === 'flag')
      return (
        <label key={spec.key} className="on-gun">
          <Form.Check.Input checked={value === 'yes'} onChange={(e) => set(spec.key, e.target.checked ? 'yes' : '')} />{' '}
          {spec.label}
        </label>
      )
    if (spec.is === 'maybe' || spec.is === 'pick')
      return (
        <PickOne
          key={spec.key}
          id={id}
          label={spec.label}
          value={value}
          none={spec.is === 'pick' ? (spec.none ?? 'not told') : 'not told'}
          options={
            spec.is === 'pick'
              ? spec.options
              : [
                  ['yes', 'yes'],
                  ['no', 'no'],
                ]
          }
          onPick={(v) => set(spec.key, v)}
        />
      )
    return (
      <TextField
        key={spec.key}
        id={id}
        label={spec.label}
        value={value}
        placeholder={spec.placeholder ?? (spec.is === 'span' ? 'from–to' : '')}
        inputMode={spec.is === 'number' ? 'decimal' : 'text'}
        onChange={(e) => set(spec.key, e.target.value)}
      />
    )
  })
}

/** What cannot be read of what was typed, where that is so. */
export const Unread = ({ why }: { why: string | null }) =>
  why ? (
    <p className="trouble" role="alert">
      {why}
    </p>
  ) : null
