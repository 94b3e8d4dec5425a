import { TextField } from '@web/kit/Field.tsx'
import { Button, Table } from 'react-bootstrap'
import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { type DayAnswer, type DedicateAnswer } from '@contract/changeover.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { aboutMoney, minutes, twoFigures } from '@web/format/numbers.ts'
import { useIsLead } from '@web/people/queries.ts'
import { useShop } from '@web/shopmodel/queries.ts'
import { needed, neededWords, useReadForm } from '@web/kit/readform.ts'
import { PickTyped, QuantityField } from '@web/kit/TypedField.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'
import { readDay } from './day.ts'
import { useDay, useDedicate } from './queries.ts'
import { Sideways } from '../kit/Sideways.tsx'

/** Wires over a day: the same work with the fewest and cheapest changes, and whether a gun kept for one wire would pay. */
export function DayPage() {
  const shop = useShop()
  const isLead = useIsLead()
  if (!shop.data)
    return (
      <main className="day" aria-busy={shop.isPending}>
        <Waiting says="Looking what wires there are" problem={shop.error} />
      </main>
    )
  return (
    <main className="day">
      <GroupDay shop={shop.data} />
      {isLead ? <Dedicate shop={shop.data} /> : null}
    </main>
  )
}

function GroupDay({ shop }: { shop: ShopAnswer }) {
  const day = useDay()
  const [text, setText] = useState('')
  const [problems, setProblems] = useState<string[]>([])
  const send = () => {
    const read = readDay(text, shop)
    setProblems(read.ok ? [] : read.problems)
    if (read.ok) day.mutate({ lines: read.lines })
    else day.reset()
  }
  return (
    <section aria-label="The day">
      <h1 className="sentence">{day.data ? daySentence(day.data) : 'Which booth needs which wire, and when?'}</h1>
      <form
        onSubmit={(e) => {
          e.preventDefault()
          send()
        }}
      >
        <TextField
          id="day-lines"
          label="booth, period, wire: a line each, typed or pasted from a sheet"
          as="textarea"
          rows={8}
          placeholder={'T1, period 1, solid steel 0.9\nT2, period 1, flux-cored'}
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <div className="built-keys">
          <Button type="submit" variant="chalk" disabled={day.isPending || text.trim() === ''}>
            Group it
          </Button>
          <label className="btn">
            from a file
            <input
              type="file"
              accept=".csv,.txt,text/csv"
              className="visually-hidden"
              onChange={(e) => void e.target.files?.[0]?.text().then(setText)}
            />
          </label>
        </div>
      </form>
      {problems.length > 0 ? (
        <div className="trouble" role="alert">
          {problems.length === 1 ? 'One line can’t be read.' : `${problems.length} lines can’t be read.`}
          <ul>
            {problems.slice(0, 12).map((p) => (
              <li key={p}>{p}</li>
            ))}
          </ul>
        </div>
      ) : null}
      <Trouble problem={day.error} />
      {day.data ? <DayTable day={day.data} /> : null}
    </section>
  )
}

export function daySentence(day: DayAnswer): string {
  const saved = day.entered.minutes - day.grouped.minutes
  const { entered, grouped } = day
  if (saved < 1) return `${entered.changes} changes, ${minutes(entered.minutes)}: it is as good as it gets.`
  const paid =
    entered.minor !== null && grouped.minor !== null && entered.minor > grouped.minor
      ? ` and ${aboutMoney(entered.minor - grouped.minor, day.currency)}`
      : ''
  return `${grouped.changes} changes instead of ${entered.changes}: ${minutes(saved)}${paid} less.`
}

function DayTable({ day }: { day: DayAnswer }) {
  return (
    <>
      <p className="small-print">
        {day.isExact ? 'The least there is' : 'The least that was found'}, by what each change takes at each booth.
        Where it differs from what was entered it stands in bold; booths without work keep their wire.
      </p>
      <Sideways>
        <Table>
          <thead>
            <tr>
              <th>booth</th>
              <th>on it now</th>
              {day.periods.map((p) => (
                <th key={p}>{p}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {day.booths.map((b) => (
              <tr key={b.name}>
                <th scope="row">{b.name}</th>
                <td className="dim">{b.startsWith ?? 'not said'}</td>
                {b.plan.map((wire, i) => {
                  const isChange = wire !== (i === 0 ? b.startsWith : b.plan[i - 1])
                  const isOther = b.entered[i] !== null && b.entered[i] !== wire
                  return (
                    <td key={day.periods[i]}>
                      {isOther ? <strong>{wire}</strong> : wire}
                      {isChange ? <span className="dim"> change</span> : null}
                    </td>
                  )
                })}
              </tr>
            ))}
          </tbody>
        </Table>
      </Sideways>
    </>
  )
}

/** Would a gun kept for one wire pay at a place that is changed to and fro. */
function Dedicate({ shop }: { shop: ShopAnswer }) {
  const [params] = useSearchParams()
  const form = useReadForm(
    {
      stationId: neededWords('Which place?'),
      gunMinor: needed({ of: 'money', from: 0 }),
      gunYears: needed({ of: 'plain', above: 0 }),
    },
    { stationId: params.get('gun') ?? '', gunMinor: '', gunYears: '5' },
  )
  const answer = useDedicate(form.now())
  return (
    <section aria-label="A gun kept for one wire">
      <h2>Would a gun kept for one wire pay?</h2>
      <div className="built-form">
        <PickTyped
          form={form}
          name="stationId"
          id="ded-where"
          label="where"
          none="choose …"
          options={shop.stations.map((s) => [s.id, s.name])}
        />
        <QuantityField
          form={form}
          name="gunMinor"
          id="ded-price"
          label={`what a second gun and its parts cost, ${shop.site.currency}`}
        />
        <QuantityField form={form} name="gunYears" id="ded-years" label="for how many years" />
      </div>
      <Trouble problem={answer.error} />
      {answer.data ? <p className="said">{dedicateSentence(answer.data)}</p> : null}
    </section>
  )
}

export function dedicateSentence(a: DedicateAnswer): string {
  const counted = `${a.changes} changes in ${Math.round(a.days)} days (yours)`
  if (a.changes === 0) return `No change of wire was logged there in ${Math.round(a.days)} days: nothing to save.`
  const each = `${minutes(a.minutesPerChange)} and ${aboutMoney(a.costPerChangeMinor, a.currency)} each`
  const year = `${aboutMoney(a.perYearMinor, a.currency)} a year (${aboutMoney(a.lowMinor, a.currency)}–${aboutMoney(a.highMinor, a.currency)})`
  const even = a.breakEvenPerYear === null ? '' : ` It pays from ${twoFigures(a.breakEvenPerYear)} changes a year on.`
  const says = {
    pays: 'It pays.',
    'does not pay': 'It does not pay.',
    'too few to tell': 'Too few changes to tell yet.',
  }[a.says]
  return `${counted}, ${each}: ${year}. ${says}${even}`
}
