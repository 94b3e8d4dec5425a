import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { type LifeAnswer } from '@contract/life.ts'
import { type Units } from '@web/format/numbers.ts'
import { SCHOOL_WORD } from '@web/format/words.ts'
import { bladeWords, costsWords, flatWords } from './lifewords.ts'
import { ChooseRule } from './ChooseRule.tsx'
import { Legend, reachOf, UsedParts, UseScale } from './UsedParts.tsx'

const STEPS = 400
type School = NonNullable<LifeAnswer['money']>['advised']

/** The row of used parts with the change line as a blade; the money moves under it. */
export function Blade({ at, marked, units }: { at: LifeAnswer; marked: number | null; units: Units }) {
  const [set, setBlade] = useState<{ use: number | null; school: School } | null>(null)
  const best = at.money?.lines.find((l) => l.school === 'leastCost')?.at ?? null
  const first =
    at.rule.changeLimit === null
      ? { use: null, school: 'runToFailure' as const }
      : { use: at.rule.changeLimit, school: 'fixed' as const }
  const blade = set ?? first
  const reach = reachOf(at)
  const to = (use: number | null, school: School) => setBlade({ use, school })
  return (
    <section className="life-row" aria-label="Used parts">
      <UsedParts at={at} blade={blade.use} marked={marked} units={units} />
      <UseScale at={at} units={units} />
      {at.money ? (
        <>
          <Form.Range
            className="life-slide"
            aria-label="Change at"
            aria-valuetext={bladeWords(at, blade.use, units)}
            min={1}
            max={STEPS}
            value={blade.use === null ? STEPS : Math.min(STEPS, Math.max(1, Math.round((blade.use / reach) * STEPS)))}
            onChange={(e) => to(rounded((Number(e.target.value) / STEPS) * reach), 'fixed')}
          />
          <p className="life-under" aria-live="polite">
            {bladeWords(at, blade.use, units)}
          </p>
          <div className="life-keys">
            {best === null ? null : (
              <Button variant="outline-secondary" onClick={() => to(rounded(best), 'leastCost')}>
                Least cost
              </Button>
            )}
            {at.rule.changeLimit === null ? null : (
              <Button variant="outline-secondary" onClick={() => to(at.rule.changeLimit, at.rule.school ?? 'fixed')}>
                As now{at.rule.school && at.rule.school !== 'fixed' ? ` (${SCHOOL_WORD[at.rule.school]})` : ''}
              </Button>
            )}
            <Button variant="outline-secondary" onClick={() => to(null, 'runToFailure')}>
              Run to failure
            </Button>
            <ChooseRule at={at} use={blade.use} school={blade.school} isChanged={set !== null} units={units} />
          </div>
          <p className="dim">
            {flatWords(at, units)} {costsWords(at)}
          </p>
        </>
      ) : null}
      <Legend at={at} />
    </section>
  )
}
/** As it would be said: two figures. */
const rounded = (use: number) => Number(use.toPrecision(2))
