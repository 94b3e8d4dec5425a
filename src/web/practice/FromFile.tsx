import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { type Scenario } from '@core/practice/drill.ts'
import { drillFile } from '@contract/practice.ts'

/** Why a file cannot be taken, in words; or its first drill. */
export function readDrills(text: string): { ok: true; scenarios: Scenario[] } | { ok: false; why: string } {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    return { ok: false, why: 'That is no drill: the file is not JSON. Take one that a practice booth gave out.' }
  }
  const file = drillFile.safeParse(json)
  if (file.success) return { ok: true, scenarios: file.data.scenarios as Scenario[] }
  const at = file.error.issues[0]
  const where = at?.path.join(' › ')
  return {
    ok: false,
    why: `That drill cannot be read${where ? ` at ${where}` : ''}: ${at?.message ?? 'it is of another kind'}.`,
  }
}

/** A drill somebody shared. */
export function FromFile({ onScenario }: { onScenario: (scenario: Scenario) => void }) {
  const [why, setWhy] = useState<string | null>(null)
  const take = async (file: File | undefined) => {
    if (!file) return
    const read = readDrills(await file.text())
    if (!read.ok) return setWhy(read.why)
    const [first] = read.scenarios
    if (first) onScenario(first)
  }
  return (
    <Form.Group controlId="drill-file">
      <Form.Label>Or a drill from a file</Form.Label>
      <Form.Control
        type="file"
        accept=".json,application/json"
        onChange={(e) => void take((e.target as HTMLInputElement).files?.[0])}
      />
      {why ? (
        <p className="trouble" role="alert">
          {why}
        </p>
      ) : null}
    </Form.Group>
  )
}
