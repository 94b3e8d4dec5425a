import { useState } from 'react'
import { Link } from 'react-router'
import { Button, Form, Table } from 'react-bootstrap'
import { shownQuantity } from '@core/units/quantity.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { lifeQuantity } from '@web/format/measures.ts'
import { unitWord } from '@web/format/numbers.ts'
import { needed, quantity, useReadForm } from '@web/kit/readform.ts'
import { CellField } from '@web/kit/TypedField.tsx'
import { shortDate } from '@web/format/times.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { IgnoredRules } from './IgnoredRules.tsx'
import { KindReasons } from './KindReasons.tsx'
import { useSave } from '@web/shopmodel/queries.ts'
import { Sideways } from '../kit/Sideways.tsx'

/** House rules: change and clean at so much use, look every so many days; per kind of part, and per class where it differs. */
export function Rules({ shop }: { shop: ShopAnswer }) {
  const [classKey, setClass] = useState('*')
  return (
    <>
      <p className="said">
        A limit is yours to set: none is shipped. Without a limit or a look interval a part is drawn dotted, never good.{' '}
        <Link to="/bay?step=limits">What the trade says</Link> can be taken in a tap.
      </p>
      <IgnoredRules shop={shop} />
      <Form.Group controlId="r-class" className="rule-class">
        <Form.Label>for</Form.Label>
        <Form.Select value={classKey} onChange={(e) => setClass(e.target.value)}>
          <option value="*">every place that has no rule of its own</option>
          {shop.classes.map((c) => (
            <option key={c.key} value={c.key}>
              {c.name}
            </option>
          ))}
        </Form.Select>
      </Form.Group>
      <Sideways>
        <Table className="rules">
          <thead>
            <tr>
              <th>part</th>
              <th>change at</th>
              <th>clean at</th>
              <th>look every</th>
              <td />
              <th>chosen</th>
            </tr>
          </thead>
          <tbody>
            {shop.kinds.map((k) => (
              <RuleRow key={`${k.key} ${classKey}`} shop={shop} kind={k} classKey={classKey} />
            ))}
          </tbody>
        </Table>
      </Sideways>
      <Rates shop={shop} />
      <KindReasons shop={shop} />
    </>
  )
}

function RuleRow({ shop, kind, classKey }: { shop: ShopAnswer; kind: ShopAnswer['kinds'][number]; classKey: string }) {
  const save = useSave('/shop/rule')
  const rule = shop.rules.find((r) => r.kindKey === kind.key && r.classKey === classKey)
  const { units, zone } = shop.site
  const [use, days] = [lifeQuantity(kind.lifeUnit, units), { of: 'days' } as const]
  type Kept = number | null | undefined
  const shownAs = (of: { change: Kept; clean: Kept; look: Kept }) => ({
    change: shownQuantity(of.change, use),
    clean: shownQuantity(of.clean, use),
    look: shownQuantity(of.look, days),
  })
  const form = useReadForm(
    {
      change: quantity({ ...use, above: 0, kept: rule?.changeLimit }),
      clean: quantity({ ...use, above: 0, kept: rule?.cleanLimit }),
      look: quantity({ ...days, from: 1, isWhole: true }),
    },
    shownAs({ change: rule?.changeLimit, clean: rule?.cleanLimit, look: rule?.lookDays }),
  )
  const word = unitWord(kind.lifeUnit, units)
  const send = form.submit(({ change, clean, look }) =>
    save.mutate(
      { kindKey: kind.key, classKey, changeLimit: change, cleanLimit: clean, lookDays: look },
      { onSuccess: () => form.begin(shownAs({ change, clean, look })) },
    ),
  )
  return (
    <tr>
      <td>{kind.name}</td>
      <td>
        <CellField form={form} name="change" label={`${kind.name}: change at`} unit={word} />
      </td>
      <td>
        {kind.canClean ? <CellField form={form} name="clean" label={`${kind.name}: clean at`} unit={word} /> : null}
      </td>
      <td>
        <CellField form={form} name="look" label={`${kind.name}: look every`} unit="days" />
      </td>
      <td>
        <Button disabled={!form.isChanged || save.isPending} onClick={send}>
          Save
        </Button>
        <Trouble problem={save.error} />
      </td>
      <td className="dim">
        {rule ? `${rule.chosenBy ?? ''} ${shortDate(rule.chosenMs, zone)}` : ''}
        {rule?.isTrade ? <small className="trade">trade: a guess</small> : null}
      </td>
    </tr>
  )
}

function Rates({ shop }: { shop: ShopAnswer }) {
  return (
    <section>
      <h2>What standing costs ({shop.site.currency})</h2>
      <Sideways>
        <Table className="rules">
          <thead>
            <tr>
              <th>places</th>
              <th>labour an hour</th>
              <th>standing an hour</th>
              <th>a scrapped piece</th>
              <td />
            </tr>
          </thead>
          <tbody>
            {shop.classes.map((c) => (
              <RateRow key={c.key} c={c} />
            ))}
          </tbody>
        </Table>
      </Sideways>
    </section>
  )
}
function RateRow({ c }: { c: ShopAnswer['classes'][number] }) {
  const save = useSave('/shop/class')
  const money = { of: 'money', from: 0 } as const
  const shownAs = (of: { labour: number; stop: number; scrap: number }) => ({
    labour: shownQuantity(of.labour, money),
    stop: shownQuantity(of.stop, money),
    scrap: shownQuantity(of.scrap, money),
  })
  const form = useReadForm(
    { labour: needed(money), stop: needed(money), scrap: needed(money) },
    shownAs({ labour: c.labourMinorPerHour, stop: c.stopMinorPerHour, scrap: c.scrapMinorPerPiece }),
  )
  const send = form.submit(({ labour, stop, scrap }) =>
    save.mutate(
      { classKey: c.key, labourMinorPerHour: labour, stopMinorPerHour: stop, scrapMinorPerPiece: scrap },
      { onSuccess: () => form.begin(shownAs({ labour, stop, scrap })) },
    ),
  )
  return (
    <tr>
      <td>{c.name}</td>
      <td>
        <CellField form={form} name="labour" label={`${c.name}: labour an hour`} unit="" />
      </td>
      <td>
        <CellField form={form} name="stop" label={`${c.name}: standing an hour`} unit="" />
      </td>
      <td>
        <CellField form={form} name="scrap" label={`${c.name}: a scrapped piece`} unit="" />
      </td>
      <td>
        <Button disabled={!form.isChanged || save.isPending} onClick={send}>
          Save
        </Button>
        <Trouble problem={save.error} />
      </td>
    </tr>
  )
}
