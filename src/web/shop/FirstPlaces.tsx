import { PickField, TextField } from '@web/kit/Field.tsx'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { parseNameRange } from '@core/shop/range.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useMakePlaces } from '@web/shopmodel/queries.ts'

const CLASSES = [
  ['booth', 'booth', 'booths'],
  ['training', 'booth', 'training booths'],
  ['cell', 'cell', 'robot cells'],
  ['bench', 'bench', 'repair benches'],
] as const

interface Props {
  areaNames?: readonly string[]
  /** Names that are known already, from a sheet. */
  names?: string
  onMade?: () => void
}

/** "A1–A24 in Bay A": the first guns of a shop, or more of them, in one line. */
export function FirstPlaces(props: Props) {
  const [names, setNames] = useState(props.names ?? '')
  const [areaName, setArea] = useState('')
  const [classKey, setClass] = useState<string>('booth')
  const make = useMakePlaces()
  const range = names.trim() ? parseNameRange(names) : null
  const placeWord = CLASSES.find(([key]) => key === classKey)?.[1] ?? 'booth'
  const onSuccess = () => {
    setNames('')
    props.onMade?.()
  }
  const submit = () => make.mutate({ names, areaName, classKey, placeWord }, { onSuccess })
  return (
    <Form
      className="first-places"
      onSubmit={(e) => {
        e.preventDefault()
        submit()
      }}
    >
      <TextField
        id="p-names"
        label="numbers painted on them"
        placeholder="A1–A24"
        value={names}
        onChange={(e) => setNames(e.target.value)}
      />
      <TextField
        id="p-area"
        label="where they stand"
        placeholder="Bay A"
        list="areas"
        value={areaName}
        onChange={(e) => setArea(e.target.value)}
      />
      <datalist id="areas">
        {(props.areaNames ?? []).map((a) => (
          <option key={a} value={a} />
        ))}
      </datalist>
      <PickField id="p-class" label="they are" value={classKey} onChange={(e) => setClass(e.target.value)}>
        {CLASSES.map(([key, , name]) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </PickField>
      <Button type="submit" variant="chalk" disabled={!range?.ok || !areaName.trim() || make.isPending}>
        {range?.ok ? `Set up ${range.names.length}` : 'Set them up'}
      </Button>
      <p className="small-print" role="status">
        {range && !range.ok
          ? range.reason
          : make.data
            ? `${make.data.made.length} set up${make.data.kept.length > 0 ? `, ${make.data.kept.length} were there already` : ''}.`
            : ''}
      </p>
      <Trouble problem={make.error} />
    </Form>
  )
}
