import { type KindKey } from '@core/path/columns.ts'
import { useState } from 'react'
import { Button, Modal } from 'react-bootstrap'
import { type LinerTerms } from '@core/liner/clauses.ts'
import { type LifeAnswer } from '@contract/life.ts'
import { type Units } from '@web/format/numbers.ts'
import { countWord, guns, listed } from '@web/format/words.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { SCHOOL_WORD } from '@web/format/words.ts'
import { partsName, schoolDoes } from './lifewords.ts'
import { useChooseRule, usePreview } from './queries.ts'

interface Props {
  at: LifeAnswer
  use: number | null
  school: NonNullable<LifeAnswer['money']>['advised']
  isChanged: boolean
  units: Units
  /** Of the liner's rule by signs. */
  terms?: LinerTerms
}

/** Makes where the blade stands the house rule of a kind of place; first it shows what that moves on Floor. */
export function ChooseRule({ at, use, school, isChanged, units, terms }: Props) {
  const [isOpen, setOpen] = useState(false)
  const { classKey } = at
  if (!classKey) return <span className="dim">Pick one kind of place to make it its rule.</span>
  return (
    <>
      <Button variant="primary" disabled={!isChanged} onClick={() => setOpen(true)}>
        Make it the rule …
      </Button>
      {isOpen ? (
        <Ask {...{ at, use, school, units, classKey }} {...(terms ? { terms } : {})} onClose={() => setOpen(false)} />
      ) : null}
    </>
  )
}

function Ask({
  at,
  use,
  school,
  units,
  classKey,
  terms,
  onClose,
}: Omit<Props, 'isChanged'> & { classKey: string; onClose: () => void }) {
  const choose = useChooseRule()
  const preview = usePreview({ kind: at.kind, classKey, at: use, school, ...terms })
  const does = schoolDoes(
    { school, at: use },
    { unit: at.unit, rule: { ...at.rule, changeLimit: use }, liner: at.liner },
    units,
  ).replace(', as now', '')
  return (
    <Modal show onHide={onClose} centered aria-labelledby="rule-ask">
      <Modal.Header closeButton>
        <Modal.Title id="rule-ask">
          {at.kindName}, {at.whereName.toLowerCase()}: {does}
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        {preview.data ? (
          <Moves moves={preview.data} kind={at.kind} />
        ) : (
          <p className="dim">Looking what it moves on Floor …</p>
        )}
        <p className="dim">
          Chosen as {SCHOOL_WORD[school]}
          {at.told ? `, from ${at.told.n} lives` : ''}. What was decided before stays in the Logbook.
        </p>
        <Trouble problem={preview.error ?? choose.error} />
      </Modal.Body>
      <Modal.Footer>
        <Button variant="outline-secondary" onClick={onClose}>
          Leave it as it is
        </Button>
        <Button
          variant="primary"
          disabled={choose.isPending}
          onClick={() =>
            choose.mutate(
              { kindKey: at.kind, classKey, school, at: use, ...(terms ? { terms } : {}) },
              { onSuccess: onClose },
            )
          }
        >
          Make it the rule
        </Button>
      </Modal.Footer>
    </Modal>
  )
}

const MOST_NAMES = 12
/** "Floor would open A4, A9 and B2; C1 would close." */
function Moves({ moves, kind }: { moves: { opens: string[]; closes: string[]; due: number }; kind: KindKey }) {
  const names = (list: readonly string[]) =>
    listed([...list.slice(0, MOST_NAMES), ...(list.length > MOST_NAMES ? [`${list.length - MOST_NAMES} more`] : [])])
  return (
    <p className="step-do">
      {moves.opens.length > 0 ? `On Floor ${names(moves.opens)} would open. ` : 'No gun would open on Floor. '}
      {moves.closes.length > 0 ? `${names(moves.closes)} would close. ` : ''}
      {countWord(moves.due)} {guns(moves.due)} would have {partsName(kind)} due now.
    </p>
  )
}
