import { type ImportPreview } from '@contract/ingest.ts'
import { TextField } from '@web/kit/Field.tsx'
import { type useSheet } from './useSheet.ts'

/** What holds for every row of a sheet that has no such column; sent when the field is left. */
export function FillField({
  column,
  sheet,
}: {
  column: ImportPreview['wanted'][number]
  sheet: ReturnType<typeof useSheet>
}) {
  const said = sheet.said.fill?.[column.key] ?? ''
  return (
    <TextField
      key={said}
      id={`fill-${column.key}`}
      label={`${column.label}, the same in every row`}
      defaultValue={said}
      onBlur={(e) => {
        const typed = e.target.value.trim()
        if (typed !== said) sheet.fill(column.key, typed)
      }}
    />
  )
}
