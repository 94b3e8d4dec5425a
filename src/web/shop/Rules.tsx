import { useState } from 'react'
import { Button, Form, Table } from 'react-bootstrap'
import { kgToLb, lbToKg } from '@core/units/convert.ts'
import { parseNumber } from '@core/units/number.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { twoFigures, unitWord } from '@web/format/numbers.ts'
import { shortDate } from '@web/format/times.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { IgnoredRules } from './IgnoredRules.tsx'
import { KindReasons } from './KindReasons.tsx'
import { useSave } from '@web/shopmodel/queries.ts'

/** House rules: change and clean at so much use, look every so many days; per kind of part, and per class where it differs. */
export function Rules({ shop }: { shop: ShopAnswer }) {
  const [classKey, setClass] = useState('*')
  return (
    <>
      <p className="said">
        A limit is yours to set: none is shipped. Without a limit or a look interval a part is drawn dotted, never good.
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
      <div className="table-responsive">
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
      </div>
      <Rates shop={shop} />
      <KindReasons shop={shop} />
    </>
  )
}

function RuleRow({ shop, kind, classKey }: { shop: ShopAnswer; kind: ShopAnswer['kinds'][number]; classKey: string }) {
  const save = useSave('/shop/rule')
  const rule = shop.rules.find((r) => r.kindKey === kind.key && r.classKey === classKey)
  const { units, zone } = shop.site
  const isLb = kind.lifeUnit === 'kg' && units === 'us'
  const shown = (value: number | null | undefined) => (value == null ? '' : twoFigures(isLb ? kgToLb(value) : value))
  const [change, setChange] = useState(shown(rule?.changeLimit))
  const [clean, setClean] = useState(shown(rule?.cleanLimit))
  const [look, setLook] = useState(rule?.lookDays == null ? '' : String(rule.lookDays))
  const number = (text: string) => (text.trim() ? parseNumber(text) : null)
  const amount = (text: string) => {
    const value = number(text)
    return value !== null && isLb ? lbToKg(value) : value
  }
  const isBad = [change, clean, look].some((t) => t.trim() !== '' && !((parseNumber(t) ?? 0) > 0))
  const isSame =
    change === shown(rule?.changeLimit) &&
    clean === shown(rule?.cleanLimit) &&
    look === (rule?.lookDays == null ? '' : String(rule.lookDays))
  const word = unitWord(kind.lifeUnit, units)
  return (
    <tr>
      <td>{kind.name}</td>
      <td>
        <Field label={`${kind.name}: change at`} value={change} unit={word} onChange={setChange} />
      </td>
      <td>
        {kind.canClean ? (
          <Field label={`${kind.name}: clean at`} value={clean} unit={word} onChange={setClean} />
        ) : null}
      </td>
      <td>
        <Field label={`${kind.name}: look every`} value={look} unit="days" onChange={setLook} />
      </td>
      <td>
        <Button
          disabled={isSame || isBad || save.isPending}
          onClick={() =>
            save.mutate({
              kindKey: kind.key,
              classKey,
              changeLimit: amount(change),
              cleanLimit: amount(clean),
              lookDays: look ? Math.round(number(look) ?? 0) : null,
            })
          }
        >
          Save
        </Button>
        <Trouble problem={save.error} />
      </td>
      <td className="dim">{rule ? `${rule.chosenBy ?? ''} ${shortDate(rule.chosenMs, zone)}` : ''}</td>
    </tr>
  )
}

function Field(props: { label: string; value: string; unit: string; onChange: (v: string) => void }) {
  return (
    <span className="field">
      <Form.Control
        aria-label={props.label}
        inputMode="decimal"
        value={props.value}
        onChange={(e) => props.onChange(e.target.value)}
      />
      <span className="dim">{props.unit}</span>
    </span>
  )
}

function Rates({ shop }: { shop: ShopAnswer }) {
  return (
    <section>
      <h2>What standing costs ({shop.site.currency})</h2>
      <div className="table-responsive">
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
      </div>
    </section>
  )
}
function RateRow({ c }: { c: ShopAnswer['classes'][number] }) {
  const save = useSave('/shop/class')
  const [labour, setLabour] = useState(String(c.labourMinorPerHour / 100))
  const [stop, setStop] = useState(String(c.stopMinorPerHour / 100))
  const [scrap, setScrap] = useState(String(c.scrapMinorPerPiece / 100))
  const minor = (text: string) => Math.round((parseNumber(text) ?? NaN) * 100)
  const typed = {
    labourMinorPerHour: minor(labour),
    stopMinorPerHour: minor(stop),
    scrapMinorPerPiece: minor(scrap),
  }
  const isBad = Object.values(typed).some((n) => !(n >= 0))
  const isSame = (Object.keys(typed) as (keyof typeof typed)[]).every((key) => typed[key] === c[key])
  return (
    <tr>
      <td>{c.name}</td>
      <td>
        <Field label={`${c.name}: labour an hour`} value={labour} unit="" onChange={setLabour} />
      </td>
      <td>
        <Field label={`${c.name}: standing an hour`} value={stop} unit="" onChange={setStop} />
      </td>
      <td>
        <Field label={`${c.name}: a scrapped piece`} value={scrap} unit="" onChange={setScrap} />
      </td>
      <td>
        <Button disabled={isBad || isSame} onClick={() => save.mutate({ classKey: c.key, ...typed })}>
          Save
        </Button>
      </td>
    </tr>
  )
}
