import { Form, Table } from 'react-bootstrap'
import { type NeckRoundLine } from '@contract/cell.ts'
import { aboutMoney, twoFigures } from '@web/format/numbers.ts'
import { QuantityField } from '@web/kit/TypedField.tsx'
import { needed, useReadForm } from '@web/kit/readform.ts'
import { oneMoreSentence, roundFrom, standingWords, weeksWord } from './cellwords.ts'
import { useNeed } from './useNeed.ts'

/** How many spare necks are enough: what each number would do, and what if necks came back sooner. */
export function OneMore({ round, currency }: { round: NeckRoundLine; currency: string }) {
  const form = useReadForm(
    { mend: needed({ of: 'hours', above: 0, to: 2000, kept: round.mendH.mean }) },
    { mend: twoFigures(round.mendH.mean) },
  )
  const mean = form.now()?.mend ?? round.mendH.mean
  const rows = useNeed({
    ...{ robots: round.robots, spares: round.spares, places: round.robots + round.spares },
    lifeH: { mean: round.lifeH.mean, sdLog: round.lifeH.sdLog },
    // What somebody typed is meant as it stands.
    mendH: { mean, sdLog: form.isChanged ? 0.1 : round.mendH.sdLog },
    ...{ lifeShape: round.lifeShape, mendSigma: round.mendSigma },
  })
  return (
    <section aria-label="How many necks are enough">
      <h2>One more neck?{round.familyName ? ` ${round.familyName}` : ''}</h2>
      <p className="cells-said" role="status">
        {rows ? oneMoreSentence(rows, round, (minor) => aboutMoney(minor, currency)) : 'Working it out.'}
      </p>
      {rows ? (
        <Table className="cells-need">
          <thead>
            <tr>
              <th scope="col">spare necks</th>
              <th scope="col">a robot waits</th>
              <th scope="col">8 times in 10 between</th>
              <th scope="col">stands in a week</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((r) => (
              <tr key={r.spares} aria-current={r.spares === round.spares ? 'true' : undefined}>
                <th scope="row">
                  {r.spares}
                  {r.spares === round.spares ? <span className="dim"> now</span> : null}
                </th>
                <td>{weeksWord(r.pWeekShort)}</td>
                <td className="dim">
                  {weeksWord(r.low)} and {weeksWord(r.high)}
                </td>
                <td>{standingWords(r.standingPerWeek)}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      ) : null}
      <p className="dim">{roundFrom(round)}</p>
      <Form noValidate className="cells-what" onSubmit={form.submit(() => undefined)}>
        <QuantityField form={form} name="mend" id={`mend-${round.familyId ?? ''}`} label="if a neck were back in, h" />
      </Form>
    </section>
  )
}
