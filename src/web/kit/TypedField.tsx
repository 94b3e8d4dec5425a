import { type ComponentProps } from 'react'
import { Form } from 'react-bootstrap'
import { useController } from 'react-hook-form'
import { type Option } from './Field.tsx'
import { type Readers, type ReadForm } from './readform.ts'

interface Of<R extends Readers> {
  form: ReadForm<R>
  /** A field, or one of a group: "fit.neckMm". */
  name: (keyof R & string) | `${string}.${string}`
  id: string
  label: string
}
type Control = Omit<ComponentProps<typeof Form.Control>, 'id' | 'name' | 'form' | 'value' | 'onChange'>

/** A labelled field of a form; beside it what can't be read, and what to write instead. */
export function TypedField<R extends Readers>({ form, name, id, label, ...control }: Of<R> & Control) {
  const { field, fieldState } = useController({ name, control: form.control })
  const why = fieldState.error?.message
  return (
    <Form.Group controlId={id}>
      <Form.Label>{label}</Form.Label>
      <Form.Control
        {...control}
        {...field}
        value={field.value as string}
        isInvalid={why !== undefined}
        aria-describedby={`${id}-why`}
      />
      <Form.Control.Feedback type="invalid" id={`${id}-why`} role={why ? 'alert' : undefined}>
        {why}
      </Form.Control.Feedback>
    </Form.Group>
  )
}

/** A number with its unit: fractions, commas, `.035`, other units, read or refused. */
export const QuantityField = <R extends Readers>(props: Of<R> & Control) => (
  <TypedField inputMode="decimal" autoComplete="off" {...props} />
)

/** The same within a row of a table: the label is only spoken, the unit stands behind. */
export function CellField<R extends Readers>({ form, name, label, unit }: Omit<Of<R>, 'id'> & { unit: string }) {
  const { field, fieldState } = useController({ name, control: form.control })
  const why = fieldState.error?.message
  return (
    <span className="field">
      <Form.Control
        {...field}
        value={field.value as string}
        aria-label={label}
        inputMode="decimal"
        autoComplete="off"
        isInvalid={why !== undefined}
      />
      <span className="dim">{unit}</span>
      {why ? (
        <span className="invalid-feedback d-block" role="alert">
          {why}
        </span>
      ) : null}
    </span>
  )
}

/** A choice of a few, in a form. */
export function PickTyped<R extends Readers>(props: Of<R> & { options: readonly Option[]; none?: string }) {
  const { form, name, id, label, none, options } = props
  const { field, fieldState } = useController({ name, control: form.control })
  const why = fieldState.error?.message
  return (
    <Form.Group controlId={id}>
      <Form.Label>{label}</Form.Label>
      <Form.Select {...field} value={field.value as string} isInvalid={why !== undefined}>
        {none === undefined ? null : <option value="">{none}</option>}
        {options.map(([value, text]) => (
          <option key={value} value={value}>
            {text}
          </option>
        ))}
      </Form.Select>
      <Form.Control.Feedback type="invalid" role={why ? 'alert' : undefined}>
        {why}
      </Form.Control.Feedback>
    </Form.Group>
  )
}

/** What can't be read of something that is no single field. */
export function Why<R extends Readers>({ form, name }: Pick<Of<R>, 'form' | 'name'>) {
  const { fieldState } = useController({ name, control: form.control })
  return fieldState.error?.message ? (
    <p className="trouble" role="alert">
      {fieldState.error.message}
    </p>
  ) : null
}
