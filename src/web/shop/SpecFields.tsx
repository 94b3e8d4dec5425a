import { Form } from 'react-bootstrap'
import { useController } from 'react-hook-form'
import { type Units } from '@web/format/numbers.ts'
import { type Readers, type ReadForm } from '@web/kit/readform.ts'
import { PickTyped, QuantityField, TypedField } from '@web/kit/TypedField.tsx'
import { specLabel, type Spec } from './specs.ts'

const YES_NO = [
  ['yes', 'yes'],
  ['no', 'no'],
] as const

/** The fields of a set of facts, as the group "fit" of a form. */
export function SpecFields<R extends Readers>(props: {
  id: string
  form: ReadForm<R>
  specs: readonly Spec[]
  units: Units
}) {
  const { form, units } = props
  return props.specs.map((spec) => {
    const of = { form, name: `fit.${spec.key}` as const, id: `${props.id}-${spec.key}`, label: specLabel(spec, units) }
    switch (spec.is) {
      case 'flag':
        return <Flag key={spec.key} {...of} />
      case 'maybe':
        return <PickTyped key={spec.key} {...of} none="not told" options={YES_NO} />
      case 'pick':
        return <PickTyped key={spec.key} {...of} none={spec.none ?? 'not told'} options={spec.options} />
      case 'quantity':
        return <QuantityField key={spec.key} {...of} />
      case 'span':
        return <TypedField key={spec.key} {...of} placeholder="from–to" />
      case 'text':
        return <TypedField key={spec.key} {...of} />
    }
  })
}

function Flag<R extends Readers>({ form, name, label }: { form: ReadForm<R>; name: `fit.${string}`; label: string }) {
  const { field } = useController({ name, control: form.control })
  return (
    <label className="on-gun">
      <Form.Check.Input
        checked={field.value === 'yes'}
        onBlur={field.onBlur}
        onChange={(e) => field.onChange(e.target.checked ? 'yes' : '')}
      />{' '}
      {label}
    </label>
  )
}
