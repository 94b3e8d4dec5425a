import { type Units } from '@web/format/numbers.ts'
import { measures, typed } from '@web/format/measures.ts'
import { TextField } from '@web/kit/Field.tsx'

/** Several pulls of one lay, typed with a space or Enter between; told back as forces in N. */
export function ForceList(props: {
  id: string
  label: string
  units: Units
  text: string
  /** What a row of them looks like here. */
  like?: string
  onText: (text: string) => void
}) {
  const { word } = measures(props.units).force
  const read = readForces(props.text, props.units)
  return (
    <div className="force-list">
      <TextField
        id={props.id}
        label={`${props.label}, ${word}, one after the other`}
        inputMode="text"
        autoComplete="off"
        placeholder={props.like ?? '6.1  6.4  6.0'}
        value={props.text}
        onChange={(e) => props.onText(e.target.value)}
      />
      {read.wrong.length > 0 ? <p className="step-look">Not a force: {read.wrong.join(', ')}.</p> : null}
      {read.wrong.length === 0 && read.forcesN.length > 0 ? (
        <p className="small-print">
          {read.forcesN.length === 1 ? 'One pull: no telling how sure.' : `${read.forcesN.length} pulls.`}
        </p>
      ) : null}
    </div>
  )
}

const MOST_N = 1000
/** What was typed, apart at spaces and semicolons; a comma is a decimal point. */
export function readForces(text: string, units: Units): { forcesN: number[]; wrong: string[] } {
  const words = text
    .trim()
    .split(/[\s;]+/)
    .filter(Boolean)
  const made = words.map((w) => ({ w, n: typed(w, measures(units).force) }))
  const isForce = (n: number | null): n is number => n !== null && n > 0 && n <= MOST_N
  return {
    forcesN: made.flatMap(({ n }) => (isForce(n) ? [n] : [])),
    wrong: made.flatMap(({ w, n }) => (isForce(n) ? [] : [w])),
  }
}
