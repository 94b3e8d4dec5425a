import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { readLength, type Slip } from '@core/units/length.ts'
import { type Units } from '@web/format/numbers.ts'
import { TextField } from '@web/kit/Field.tsx'
import { ruleLength, unitOf } from '@web/format/lengths.ts'

const SLIP_WORD = { minus: 'without the minus', cm: 'in cm', in: 'in inches', m: 'in m', mm: 'in mm' } as const

/** One length off a rule: what is no length is said while it is typed; a likely slip of the unit is offered, not taken. */
export function LengthField(props: {
  id: string
  label: string
  units: Units
  word: string
  slipOf?: (mm: number) => Slip | null
  onSay: (mm: number) => void
}) {
  const { units, slipOf } = props
  const [text, setText] = useState('')
  const read = text.trim() === '' ? null : readLength(text, unitOf(units))
  const slip = read?.ok ? (slipOf?.(read.mm) ?? null) : null
  const isNegative = read?.ok === true && read.mm < 0
  return (
    <form
      className="length-field"
      onSubmit={(e) => {
        e.preventDefault()
        if (read?.ok && !isNegative) props.onSay(read.mm)
      }}
    >
      <TextField
        id={props.id}
        label={`${props.label}, ${unitOf(units)}`}
        inputMode={units === 'us' ? 'text' : 'decimal'}
        autoComplete="off"
        autoFocus
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      {read && !read.ok ? <p className="step-look">{read.reason}.</p> : null}
      {isNegative ? <p className="step-look">Nothing is shorter than nothing: measure it again.</p> : null}
      {slip ? (
        <Key onClick={() => props.onSay(slip.mm)}>
          Did you mean {ruleLength(slip.mm, units)}, {SLIP_WORD[slip.as]}?
        </Key>
      ) : null}
      <Key type="submit" tone={slip ? undefined : 'chalk'} disabled={!read?.ok || isNegative}>
        {slip && read?.ok ? `No, ${ruleLength(read.mm, units)} it is` : props.word}
      </Key>
    </form>
  )
}
