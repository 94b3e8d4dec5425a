import { useState } from 'react'
import { Table } from 'react-bootstrap'
import { breakEvenKg, packageYear, type WirePackage, type WireUse } from '@core/spools/package.ts'
import { kgToLb } from '@core/units/convert.ts'
import { shownQuantity } from '@core/units/quantity.ts'
import { type WasteAnswer } from '@contract/waste.ts'
import { aboutMoney, bulk, twoFigures, type Units } from '@web/format/numbers.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { needed, quantity, useReadForm } from '@web/kit/readform.ts'
import { Sideways } from '@web/kit/Sideways.tsx'
import { QuantityField } from '@web/kit/TypedField.tsx'
import { packageSentence, PARTS } from './wastewords.ts'

type Group = WasteAnswer['groups'][number]
const nameOf = (g: Group) => `${g.wireName}, ${g.className}`

/** Stops avoided by bigger packages against payoff, conduit, floor, stock and dead money; by group, with the use from which it pays. */
export function Packages({ at, units }: { at: WasteAnswer; units: Units }) {
  const [chosen, choose] = useState('')
  const group = at.groups.find((g) => nameOf(g) === chosen) ?? at.groups[0]
  if (!group)
    return (
      <section aria-label="Spool, bigger spool or drum">
        <h2>Spool, bigger spool or drum</h2>
        <p className="dim">
          No wire was counted yet: once it is known what a gun welds, this says what a drum would bring.
        </p>
      </section>
    )
  return (
    <section aria-label="Spool, bigger spool or drum">
      <h2>Spool, bigger spool or drum</h2>
      <div className="built-form">
        <PickOne
          id="package-group"
          label="for the guns with"
          value={nameOf(group)}
          options={at.groups.map((g) => [nameOf(g), `${nameOf(g)}: ${g.guns}, ${bulk(g.kgPerYear, units)} a year`])}
          onPick={choose}
        />
      </div>
      <Weigh key={nameOf(group)} group={group} at={at} units={units} />
    </section>
  )
}

const DRUM_KG = 250
/** What a payoff with hood and conduit costs a gun. A guess, to be written over. */
const PAYOFF_MINOR = 90_000

function Weigh({ group, at, units }: { group: Group; at: WasteAnswer; units: Units }) {
  const per = units === 'us' ? 'lb' : 'kg'
  const priced = { of: 'moneyPerMass', units, from: 0 } as const
  const form = useReadForm(
    {
      kg: needed({ of: 'mass', units, above: 0 }),
      price: needed(priced),
      now: needed(priced),
      once: quantity({ of: 'money', from: 0 }),
      floor: quantity({ of: 'money', from: 0 }),
    },
    {
      kg: units === 'us' ? String(Math.round(kgToLb(DRUM_KG))) : String(DRUM_KG),
      price: shownQuantity(group.pricePerKgMinor, priced),
      now: shownQuantity(group.pricePerKgMinor, priced),
      once: shownQuantity(PAYOFF_MINOR * group.guns, { of: 'money' }),
      floor: '0',
    },
  )
  const read = form.now()
  return (
    <>
      <div className="built-form">
        <QuantityField
          form={form}
          name="now"
          id="package-now"
          label={`now, ${twoFigures(units === 'us' ? kgToLb(group.spoolKg) : group.spoolKg)} ${per} spools: price a ${per}`}
        />
        <QuantityField form={form} name="kg" id="package-kg" label={`bigger: how much is on it (${per})`} />
        <QuantityField form={form} name="price" id="package-price" label={`its price a ${per}`} />
        <QuantityField
          form={form}
          name="once"
          id="package-once"
          label={`payoff, hood, conduit for all ${group.guns}, once`}
        />
        <QuantityField form={form} name="floor" id="package-floor" label="floor it takes, a year" />
      </div>
      {read ? (
        <Answer
          group={group}
          at={at}
          units={units}
          first={{ kg: group.spoolKg, pricePerKgMinor: read.now, onceMinor: 0, floorMinorPerYear: 0 }}
          second={{
            ...{ kg: read.kg, pricePerKgMinor: read.price },
            ...{ onceMinor: read.once ?? 0, floorMinorPerYear: read.floor ?? 0 },
          }}
        />
      ) : (
        <p className="dim">Write what both cost; then it is weighed.</p>
      )}
    </>
  )
}

function Answer(props: { group: Group; at: WasteAnswer; units: Units; first: WirePackage; second: WirePackage }) {
  const { group, at, units } = props
  const use: WireUse = group
  const [first, second] = [packageYear(props.first, use), packageYear(props.second, use)]
  const breakEven = breakEvenKg(props.first, props.second, use)
  const said = { first, second, breakEven, kgPerYear: group.kgPerYear }
  const standing =
    group.standMinorPerHour > 0 ? '' : ' What standing costs nobody has said, so that only hands count in a change.'
  return (
    <>
      <p>
        <strong>{packageSentence(said, { name: 'The bigger one', currency: at.currency, units })}</strong>
      </p>
      <Sideways>
        <Table className="payback-table">
          <thead>
            <tr>
              <th>a year</th>
              <th className="text-end">as now</th>
              <th className="text-end">bigger</th>
            </tr>
          </thead>
          <tbody>
            {PARTS.map(([part, word]) => (
              <tr key={part}>
                <th scope="row">{word}</th>
                <td className="text-end">{aboutMoney(first[part], at.currency)}</td>
                <td className="text-end">{aboutMoney(second[part], at.currency)}</td>
              </tr>
            ))}
            <tr>
              <th scope="row">together</th>
              <td className="text-end">
                <strong>{aboutMoney(first.totalMinor, at.currency)}</strong>
              </td>
              <td className="text-end">
                <strong>{aboutMoney(second.totalMinor, at.currency)}</strong>
              </td>
            </tr>
          </tbody>
        </Table>
      </Sideways>
      <p className="honesty dim">
        A change takes {twoFigures(group.changeMin)} min, {group.isMinLearnt ? 'by your jobs' : 'a guess'};{' '}
        {twoFigures(units === 'us' ? kgToLb(group.shortKg) : group.shortKg)} {units === 'us' ? 'lb' : 'kg'} come off
        with it, {group.isShortSeen ? 'as you threw away' : 'a guess'}.{standing} A drum wants its place by the gun, a
        hood against dust, air or a hand to load it, and drag through the conduit: look at Drag with it before buying.
      </p>
    </>
  )
}
