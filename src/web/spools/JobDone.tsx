import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { readQuantity } from '@core/units/quantity.ts'
import { type JobLine } from '@contract/jobs.ts'
import { type Units } from '@web/format/numbers.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSave } from '@web/shopmodel/queries.ts'

/** Welded: what it took, where somebody weighed. */
export function JobDone({ job, units }: { job: JobLine; units: Units }) {
  const done = useSave('/spools/jobs/done')
  const [text, setText] = useState<string | null>(null)
  if (text === null) return <Bare onClick={() => setText('')}>welded</Bare>
  const read = readQuantity(text, { of: 'mass', units, above: 0 })
  return (
    <span className="job-done">
      <Form.Control
        aria-label={`${job.name}: wire it took, where somebody weighed`}
        placeholder={units === 'us' ? 'lb, if weighed' : 'kg, if weighed'}
        inputMode="decimal"
        value={text}
        isInvalid={!read.ok}
        onChange={(e) => setText(e.target.value)}
      />
      <Button
        variant="chalk"
        disabled={!read.ok || done.isPending}
        onClick={() => done.mutate({ jobId: job.jobId, usedKg: read.ok ? read.value : null })}
      >
        Welded
      </Button>
      {read.ok ? null : <span className="small-print">{read.why}</span>}
      <Trouble problem={done.error} />
    </span>
  )
}
