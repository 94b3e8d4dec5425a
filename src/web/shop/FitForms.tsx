import { Bare } from '@web/kit/Keys.tsx'
import { useState, type ReactNode } from 'react'
import { Button, Form } from 'react-bootstrap'
import { JOINTS, TIGHTNESS, type Joint } from '@core/rightparts/facts.ts'
import { USUAL_STEP } from '@core/rightparts/joints.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { capital } from '@web/format/words.ts'
import { JOINT_WORD } from '@web/rightparts/words.ts'
import { type Units } from '@web/format/numbers.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { neededWords, useReadForm } from '@web/kit/readform.ts'
import { TypedField } from '@web/kit/TypedField.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { FAMILY_SPECS, FEEDER_SPECS, PROCEDURE_SPECS } from './fitspecs.ts'
import { SpecFields } from './SpecFields.tsx'
import { specsReader, textsOf, type Spec } from './specs.ts'
import { useSave } from '@web/shopmodel/queries.ts'

type Named = { id: string; name: string; fit: Record<string, unknown> | null }

/** Fit families, feeders and written procedures: what the rules of fit go by. What is not told gives no verdict. */
export function FitForms({ shop }: { shop: ShopAnswer }) {
  const { units } = shop.site
  return (
    <>
      <p className="said">
        What fits what. Leave empty what you do not know: nothing is judged by it, and nobody is accused.
      </p>
      <div className="cols fit-cols">
        <Things
          title="Fit families"
          hint="Parts that screw and seat together."
          list={shop.families}
          form={(one, onDone) => <FamilyForm family={one} units={units} onDone={onDone} />}
        />
        <Things
          title="Feeders"
          hint="A type each: which face of a roll runs, how wire leaves the spool."
          list={shop.feederTypes}
          form={(one, onDone) => (
            <ThingForm
              units={units}
              one={one}
              path="/shop/feedertype"
              specs={FEEDER_SPECS}
              fixed={numberOfRolls}
              onDone={onDone}
            />
          )}
        />
        <Things
          title="Procedures"
          hint="Which wire, gas and settings for which weld."
          list={shop.procedures}
          form={(one, onDone) => (
            <ThingForm
              units={units}
              one={one}
              path="/shop/procedure"
              specs={procedureSpecs(shop)}
              fixed={(f) => f}
              onDone={onDone}
            />
          )}
        />
      </div>
    </>
  )
}

const procedureSpecs = (shop: ShopAnswer): readonly Spec[] => [
  { key: 'wireId', label: 'wire', is: 'pick', options: shop.wires.map((w) => [w.id, w.name] as const) },
  ...PROCEDURE_SPECS,
]
const numberOfRolls = (facts: Record<string, unknown>) => ({
  ...facts,
  rollCount: facts['rollCount'] === '2' ? 2 : 4,
  runsFace: facts['runsFace'] ?? 'read',
})

function Things<T extends Named>(props: {
  title: string
  hint: string
  list: readonly T[]
  form: (one: T | null, onDone: () => void) => ReactNode
}) {
  const [open, setOpen] = useState<T | 'new' | null>(null)
  return (
    <section aria-label={props.title}>
      <h2>{props.title}</h2>
      <p className="small-print">{props.hint}</p>
      <ul className="plain">
        {props.list.map((one) => (
          <li key={one.id}>
            <Bare onClick={() => setOpen(one)}>{one.name}</Bare>
            {one.fit === null ? <span className="dim"> nothing told of it yet</span> : null}
          </li>
        ))}
      </ul>
      {open ? (
        <div key={open === 'new' ? 'new' : open.id}>
          {props.form(open === 'new' ? null : open, () => setOpen(null))}
        </div>
      ) : (
        <Button onClick={() => setOpen('new')}>a new one</Button>
      )}
    </section>
  )
}

function ThingForm(props: {
  units: Units
  one: Named | null
  path: string
  specs: readonly Spec[]
  fixed: (facts: Record<string, unknown>) => Record<string, unknown>
  onDone: () => void
  /** What is asked beside the specs. */
  children?: ReactNode
}) {
  const { one, specs, units } = props
  const save = useSave(props.path)
  const fit = { units, facts: one?.fit }
  const form = useReadForm(
    { name: neededWords('Write what it is called.'), fit: specsReader(specs, fit) },
    { name: one?.name ?? '', fit: textsOf(specs, fit) },
  )
  const send = form.submit((read) =>
    save.mutate({ id: one?.id ?? null, name: read.name, fit: props.fixed(read.fit) }, { onSuccess: props.onDone }),
  )
  return (
    <Form noValidate className="built-form boxed" onSubmit={send}>
      <TypedField form={form} name="name" id="fit-name" label="name" />
      <SpecFields id="fit" form={form} specs={specs} units={units} />
      {props.children}
      <Trouble problem={save.error} />
      <div className="built-keys">
        <Button type="submit" variant="chalk" disabled={save.isPending}>
          Save
        </Button>
        <Button onClick={props.onDone}>leave it</Button>
      </div>
    </Form>
  )
}

/** A family, with how tight each of its joints is made. */
function FamilyForm(props: { family: ShopAnswer['families'][number] | null; units: Units; onDone: () => void }) {
  const { family, units, onDone } = props
  const [steps, setSteps] = useState<Partial<Record<Joint, string>>>(() =>
    Object.fromEntries(JOINTS.map((j) => [j, String(family?.fit?.tightness[j]?.step ?? '')])),
  )
  const tightness = Object.fromEntries(
    JOINTS.flatMap((j) => (steps[j] ? [[j, { step: Number(steps[j]), sinceMs: 0 }]] : [])),
  )
  return (
    <ThingForm
      units={units}
      one={family && { ...family, fit: family.fit && { ...family.fit } }}
      path="/shop/family"
      specs={FAMILY_SPECS}
      fixed={(facts) => ({ ...facts, tightness })}
      onDone={onDone}
    >
      <p className="built-keys small-print">How tight each joint is made. Empty: the usual.</p>
      {JOINTS.map((j) => (
        <PickOne
          key={j}
          id={`fit-${j}`}
          label={JOINT_WORD[j]}
          none={`usual: ${TIGHTNESS[USUAL_STEP[j] - 1] ?? ''}`}
          value={steps[j] ?? ''}
          options={TIGHTNESS.map((t, i) => [String(i + 1), capital(t)])}
          onPick={(v) => setSteps({ ...steps, [j]: v })}
        />
      ))}
    </ThingForm>
  )
}
