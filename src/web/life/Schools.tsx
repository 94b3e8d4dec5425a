import { Table } from 'react-bootstrap'
import { type LifeAnswer } from '@contract/life.ts'
import { aboutMoney, minutes, twoFigures, type Units } from '@web/format/numbers.ts'
import { shortDate } from '@web/format/times.ts'
import { capital } from '@web/format/words.ts'
import { ruleWords } from '@web/logbook/shopwords.ts'
import { SCHOOL_WORD } from '@web/format/words.ts'
import { forHundred, isPriced, savingWords, schoolDoes } from './lifewords.ts'
import { Sideways } from '../kit/Sideways.tsx'

/** Left out on a phone. */
const WIDE = 'text-end d-none d-md-table-cell'
/** The house rules side by side in money, and what holds now. */
export function Schools({ at, units }: { at: LifeAnswer; units: Units }) {
  const { money } = at
  if (!money) return null
  const isMoney = isPriced(at)
  const isNothingPriced = at.isMoney && !isMoney
  const per = forHundred(money.per, at.unit, units)
  return (
    <Sideways as="section" aria-label="House rules in money">
      <h2>When to change it, in {isMoney ? 'money' : `minutes for ${per.words}`}</h2>
      <Table className="payback-table life-schools">
        <thead>
          <tr>
            <th>rule</th>
            {isMoney ? <th className="text-end">for {per.words.replace('arc hours', 'arc h')}</th> : null}
            <th className={WIDE}>parts</th>
            <th className={WIDE}>hands</th>
            <th className="text-end">standing</th>
          </tr>
        </thead>
        <tbody>
          {money.lines.map((l) => (
            <tr key={l.school} className={l.school === money.advised && !isNothingPriced ? 'is-advised' : ''}>
              <th scope="row">
                {capital(SCHOOL_WORD[l.school])}
                <br />
                <span className="dim">
                  {schoolDoes(l, at, units)}
                  {isNothingPriced ? '' : `; ${savingWords(l)}`}
                </span>
              </th>
              {isMoney ? <td className="text-end">{aboutMoney(per.told(l.cost.total), at.currency)}</td> : null}
              <td className={WIDE}>{twoFigures(per.told(l.cost.changes))}</td>
              <td className={WIDE}>{minutes(per.told(l.cost.handsMin))}</td>
              <td className="text-end">
                {per.told(l.cost.standMin) < 1 ? 'none' : minutes(per.told(l.cost.standMin))}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <RuleNow at={at} units={units} />
    </Sideways>
  )
}

function RuleNow({ at, units }: { at: LifeAnswer; units: Units }) {
  const { rule, classKey } = at
  const now =
    rule.school === null && rule.changeLimit === null
      ? 'No rule is set: nothing is due by its use.'
      : `The rule now: ${schoolDoes({ school: rule.school ?? 'fixed', at: rule.changeLimit }, at, units).replace(', as now', '')}${rule.isForAll && classKey ? ' (everywhere)' : ''}${rule.chosenMs ? `, since ${shortDate(rule.chosenMs, at.zone)}` : ''}${rule.chosenBy ? `, ${rule.chosenBy}` : ''}${rule.n === null ? '' : `, from ${rule.n} lives`}.`
  return (
    <>
      <p>
        {now}
        {rule.isNewer ? <strong> There is newer data since.</strong> : null}
      </p>
      {at.history.length > 0 ? (
        <details>
          <summary>What was chosen before ({at.history.length})</summary>
          <ul className="plain">
            {at.history.map((h) => (
              <li key={h.eventId}>
                {shortDate(h.atMs, at.zone)}: {h.change.of === 'houseRule' ? ruleWords(h.change, h.names, units) : ''}
              </li>
            ))}
          </ul>
        </details>
      ) : null}
    </>
  )
}
