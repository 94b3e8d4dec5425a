import { Button, Form } from 'react-bootstrap'
import { type PairLine } from '@contract/classes.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { Tick } from '@web/kit/Tick.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { TypedField } from '@web/kit/TypedField.tsx'
import { useReadForm, words } from '@web/kit/readform.ts'
import { useState } from 'react'
import { useSavePair } from './pairqueries.ts'

/** A card in the shop’s own words; emptied it says again what it came with. Who writes it has looked it over. */
export function PairForm({ pair, onDone }: { pair: PairLine; onDone: () => void }) {
  const save = useSavePair()
  const [isWrongHere, setWrong] = useState(pair.isWrongHere)
  const form = useReadForm(
    { right: words, wrong: words, why: words, exercise: words, image: words, source: words },
    {
      ...{ right: pair.right, wrong: pair.wrong, why: pair.why, exercise: pair.exercise, image: pair.image ?? '' },
      source: pair.isOwn || pair.reviewedBy ? pair.source : '',
    },
  )
  const text = (name: 'right' | 'wrong' | 'why' | 'exercise' | 'image' | 'source', label: string, maxLength = 200) => (
    <TypedField form={form} name={name} id={`pair-${name}`} label={label} maxLength={maxLength} />
  )
  return (
    <Form
      noValidate
      className="pair-form"
      onSubmit={form.submit((read) => save.mutate({ pair: pair.key, ...read, isWrongHere }, { onSuccess: onDone }))}
    >
      {text('right', 'Right')}
      {text('wrong', 'Wrong')}
      {text('why', 'Why it matters')}
      {text('exercise', 'Two minutes with a real one')}
      {text('image', 'A picture that stays in the head, in your own words')}
      {text('source', 'Where it comes from: manual, standard, your own count', 120)}
      <Tick isOn={isWrongHere} onTick={setWrong}>
        Wrong here: not shown to learners and not printed
      </Tick>
      <p>
        <Button type="submit" variant="chalk" disabled={save.isPending}>
          Keep it: I have looked it over
        </Button>{' '}
        <Bare onClick={onDone}>leave it</Bare>
      </p>
      <Trouble problem={save.error} />
    </Form>
  )
}
