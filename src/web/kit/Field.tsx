import { type ComponentProps } from 'react'
import { Form } from 'react-bootstrap'

/** A labelled field; everything else goes to the control as it is. */
export function TextField({
  id,
  label,
  why,
  ...control
}: { id: string; label: string; why?: string | undefined } & ComponentProps<typeof Form.Control>) {
  return (
    <Form.Group controlId={id}>
      <Form.Label>{label}</Form.Label>
      <Form.Control {...control} isInvalid={control.isInvalid ?? why !== undefined} />
      {why === undefined ? null : <Form.Control.Feedback type="invalid">{why}</Form.Control.Feedback>}
    </Form.Group>
  )
}

/** A labelled choice of a few. */
export function PickField({
  id,
  label,
  ...select
}: { id: string; label: string } & ComponentProps<typeof Form.Select>) {
  return (
    <Form.Group controlId={id}>
      <Form.Label>{label}</Form.Label>
      <Form.Select {...select} />
    </Form.Group>
  )
}

export type Option<V extends string = string> = readonly [value: V, text: string]

/** A choice among options given as pairs; `none` names the empty one, where there may be none. */
export function PickOne<V extends string>(props: {
  id: string
  label: string
  value: V
  options: readonly Option<V>[]
  none?: string
  onPick: (value: V) => void
}) {
  return (
    <PickField
      id={props.id}
      label={props.label}
      value={props.value}
      onChange={(e) => props.onPick(e.target.value as V)}
    >
      {props.none === undefined ? null : <option value="">{props.none}</option>}
      {props.options.map(([value, text]) => (
        <option key={value} value={value}>
          {text}
        </option>
      ))}
    </PickField>
  )
}

/** A text and what sets it, as a control takes them. */
export const field = (value: string, set: (value: string) => void) => ({
  value,
  onChange: (e: { target: { value: string } }) => set(e.target.value),
})
