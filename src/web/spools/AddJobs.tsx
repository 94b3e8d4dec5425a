import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { MODES, type Mode } from '@core/rightparts/facts.ts'
import { type JobJoint } from '@core/spools/jobwire.ts'
import { type JobsAnswer } from '@contract/jobs.ts'
import { type Units } from '@web/format/numbers.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { asItIs, needed, neededWords, quantity, useReadForm, type Reader } from '@web/kit/readform.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { PickTyped, QuantityField, TypedField } from '@web/kit/TypedField.tsx'
import { useSave } from '@web/shopmodel/queries.ts'
import { readJobs, readJoint, suitedWords } from './jobwords.ts'

/** A job typed, or a list of them pasted. */
export function AddJobs({ at, units }: { at: JobsAnswer; units: Units }) {
  const [isPasting, setPasting] = useState(false)
  return (
    <section aria-label="A job">
      <h2>A job</h2>
      {at.wires.length === 0 ? (
        <p className="dim">Say in Our shop which wires you weld with; then jobs are reckoned here.</p>
      ) : isPasting ? (
        <Paste at={at} units={units} />
      ) : (
        <OneJob at={at} units={units} />
      )}
      {at.wires.length === 0 ? null : (
        <p>
          <Bare onClick={() => setPasting(!isPasting)}>{isPasting ? 'one by one' : 'paste a list'}</Bare>
        </p>
      )}
    </section>
  )
}

const jointReader =
  (units: Units): Reader<JobJoint> =>
  (text) => {
    const read = readJoint(text, units)
    return read.ok ? { ok: true, value: read.joint } : read
  }

function OneJob({ at, units }: { at: JobsAnswer; units: Units }) {
  const save = useSave('/spools/jobs')
  const begin = {
    ...{ name: '', wireId: at.wires.length === 1 ? (at.wires[0]?.id ?? '') : '', joint: '', lengthM: '' },
    ...{ pieces: '1', starts: '1', mode: '', thick: '' },
  }
  const form = useReadForm(
    {
      name: neededWords('What is the job called?'),
      wireId: neededWords('Which wire?'),
      joint: jointReader(units),
      lengthM: needed({ of: 'cable', units, above: 0 }),
      pieces: needed({ of: 'count', from: 1 }),
      starts: needed({ of: 'count', from: 0 }),
      mode: asItIs<string>(),
      thick: quantity({ of: 'rule', units, above: 0 }),
    },
    begin,
  )
  const thick = form.typed('thick')
  const read = quantity({ of: 'rule', units, above: 0 })(thick)
  const send = form.submit(({ mode, name, wireId, joint, lengthM, pieces, starts }) =>
    save.mutate(
      { jobs: [{ name, wireId, joint, lengthM, pieces, starts, mode: (mode || null) as Mode | null }] },
      { onSuccess: () => form.begin({ ...begin, wireId }) },
    ),
  )
  return (
    <Form noValidate onSubmit={send}>
      <div className="built-form">
        <TypedField form={form} name="name" id="job-name" label="what" maxLength={80} />
        <TypedField
          form={form}
          name="joint"
          id="job-joint"
          label="joint"
          placeholder={units === 'us' ? 'fillet 1/4' : 'fillet 6, a4, V 60 on 10 gap 2'}
          autoComplete="off"
        />
        <QuantityField
          form={form}
          name="lengthM"
          id="job-length"
          label={`weld on a piece (${units === 'us' ? 'ft' : 'm'})`}
        />
        <QuantityField form={form} name="pieces" id="job-pieces" label="pieces" />
        <QuantityField form={form} name="starts" id="job-starts" label="starts on a piece" />
        <QuantityField
          form={form}
          name="thick"
          id="job-thick"
          label={`thinnest plate (${units === 'us' ? 'in' : 'mm'}), if unsure which wire`}
        />
        <PickTyped
          form={form}
          name="wireId"
          id="job-wire"
          label="wire"
          none="which wire?"
          options={at.wires.map((w) => [w.id, w.name])}
        />
        <PickTyped
          form={form}
          name="mode"
          id="job-mode"
          label="arc"
          none="not said"
          options={MODES.map((m) => [m, m])}
        />
      </div>
      {read.ok && read.value !== null ? <p className="dim">{suitedWords(read.value, { ...at, units })}</p> : null}
      <Button type="submit" variant="chalk" disabled={save.isPending}>
        Reckon it
      </Button>
      <Trouble problem={save.error} />
    </Form>
  )
}

const ROWS = 6
function Paste({ at, units }: { at: JobsAnswer; units: Units }) {
  const save = useSave('/spools/jobs')
  const [text, setText] = useState('')
  const { jobs, bad } = readJobs(text, { ...at, units })
  return (
    <>
      <Form.Control
        as="textarea"
        rows={ROWS}
        aria-label="Jobs, one a line"
        placeholder={`name; joint; weld on a piece; pieces; wire\nramp hinges; fillet 6; 0.8 m; 40; ${at.wires[0]?.name ?? ''}`}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      {bad.map((b) => (
        <p className="trouble" key={b.row}>
          Line {b.row}: {b.why}
        </p>
      ))}
      <Button
        variant="chalk"
        disabled={jobs.length === 0 || bad.length > 0 || save.isPending}
        onClick={() => save.mutate({ jobs }, { onSuccess: () => setText('') })}
      >
        {jobs.length === 0 ? 'Reckon them' : `Reckon ${jobs.length}`}
      </Button>
      <Trouble problem={save.error} />
    </>
  )
}
