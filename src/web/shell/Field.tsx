import { type ComponentProps } from 'react'
import { Form } from 'react-bootstrap'

/** A labelled field; everything else goes to the control as it is. */
export function TextField({
  id,
  label,
  ...control
}: { id: string; label: string } & ComponentProps<typeof Form.Control>) {
  return (
    <Form.Group controlId={id}>
      <Form.Label>{label}</Form.Label>
      <Form.Control {...control} />
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
