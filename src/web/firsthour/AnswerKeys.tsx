import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { sizeOnBox, WIRE_KIND_KEYS, wireKind, type WireKindKey } from '@core/catalogue/wires.ts'
import { type BayAnswers, type BayQuestion } from '@core/catalogue/bay.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { Bare, Key } from '@web/kit/Keys.tsx'
import { needed, neededWords, useReadForm } from '@web/kit/readform.ts'
import { QuantityField, TypedField } from '@web/kit/TypedField.tsx'
import { measures } from '@web/format/measures.ts'
import { ASK, choicesOf, type Choice } from './questions.tsx'

interface Props {
  question: BayQuestion
  answers: BayAnswers
  shop: ShopAnswer
  onAnswer: (said: Partial<BayAnswers>) => void
  onPass: () => void
}
/** The keys of one question: big, with a picture where words differ; and "don't know", which is an answer too. */
export function AnswerKeys({ question, answers, shop, onAnswer, onPass }: Props) {
  const { units } = shop.site
  const gunNames = shop.families.map((f) => f.name)
  return (
    <div className="bay-answer" role="group" aria-label={ASK[question].ask}>
      <p className="small-print">{ASK[question].why}</p>
      {question === 'wire' ? <WireKeys units={units} wire={answers.wire} onAnswer={onAnswer} /> : null}
      <div className="bay-keys">
        {choicesOf(question, { answers, units, gunNames }).map((choice) => (
          <ChoiceKey key={choice.name} choice={choice} onPick={() => onAnswer(choice.answer)} />
        ))}
      </div>
      {question === 'gunName' ? <NameField onAnswer={onAnswer} /> : null}
      {question === 'cableM' ? <CableField units={units} onAnswer={onAnswer} /> : null}
      <Bare onClick={onPass}>don’t know</Bare>
    </div>
  )
}

function ChoiceKey({ choice, onPick }: { choice: Choice; onPick: () => void }) {
  return (
    <Key className={choice.against ? 'bay-key is-doubted' : 'bay-key'} onClick={onPick}>
      {choice.picture}
      <span>
        {choice.name}
        {(choice.against ?? choice.told) ? <small>{choice.against ?? choice.told}</small> : null}
      </span>
    </Key>
  )
}

type Units = ShopAnswer['site']['units']
/** What it is made of, then its size as it stands on the box. */
function WireKeys({ units, wire, onAnswer }: { units: Units; wire: BayAnswers['wire']; onAnswer: Props['onAnswer'] }) {
  const [kind, setKind] = useState<WireKindKey | null>(wire?.kind ?? null)
  return (
    <>
      <div className="bay-keys">
        {WIRE_KIND_KEYS.map((key) => (
          <Key key={key} className="bay-key" aria-pressed={kind === key} onClick={() => setKind(key)}>
            <span>
              {wireKind(key).name}
              <small>{wireKind(key).told}</small>
            </span>
          </Key>
        ))}
      </div>
      {kind ? (
        <div className="bay-sizes" role="group" aria-label="Size on the box">
          <p className="dim">{units === 'us' ? 'inches, as on the box' : 'mm, as on the box'}</p>
          {wireKind(kind).sizesMm.map((sizeMm) => (
            <Key key={sizeMm} onClick={() => onAnswer({ wire: { kind, sizeMm } })}>
              {sizeOnBox(sizeMm, units)}
            </Key>
          ))}
        </div>
      ) : null}
    </>
  )
}

function NameField({ onAnswer }: { onAnswer: Props['onAnswer'] }) {
  const form = useReadForm({ name: neededWords('Any name will do.') }, { name: '' })
  return (
    <Form noValidate className="bay-typed" onSubmit={form.submit(({ name }) => onAnswer({ gunName: name }))}>
      <TypedField form={form} name="name" id="bay-gun" label="its name here" maxLength={40} />
      <Key type="submit" size="low">
        That is it
      </Key>
    </Form>
  )
}

function CableField({ units, onAnswer }: { units: Units; onAnswer: Props['onAnswer'] }) {
  const form = useReadForm({ cable: needed({ of: 'cable', units, above: 0 }) }, { cable: '' })
  return (
    <Form noValidate className="bay-typed" onSubmit={form.submit(({ cable }) => onAnswer({ cableM: cable }))}>
      <QuantityField
        form={form}
        name="cable"
        id="bay-cable"
        label={`or another length, ${measures(units).cable.word}`}
      />
      <Key type="submit" size="low">
        That is it
      </Key>
    </Form>
  )
}
