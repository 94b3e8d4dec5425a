import { useMemo } from 'react'
import { LongTable, type Column } from '@web/kit/LongTable.tsx'
import { Table } from 'react-bootstrap'
import { Link } from 'react-router'
import { type LifeAnswer } from '@contract/life.ts'
import { aboutMoney, amount, money, type Units } from '@web/format/numbers.ts'
import { dayKey, shortDate } from '@web/format/times.ts'
import { REASON_WORD, listed } from '@web/format/words.ts'
import {
  BY_WORD,
  CLEANED_CAUTION,
  LONGER_CAUTION,
  alongsideWords,
  cheaperSentence,
  comparedSentence,
  hungrySentence,
  longerSentence,
  lookUpstream,
  movedWords,
  noHungryWords,
  overTipsWords,
  perTipsWords,
  groupsFor,
} from './lifewords.ts'
import { Sideways } from '../kit/Sideways.tsx'

/** Guns that take more than their share, and where to look first. Never on a wall or a print. */
export function Hungry({ at }: { at: LifeAnswer }) {
  return (
    <section aria-label="More than their share">
      <h2>Who takes more than their share</h2>
      {at.hungry.length === 0 ? <p className="dim">{noHungryWords(at)}</p> : null}
      <ul className="plain life-list">
        {at.hungry.map((h) => (
          <li key={h.stationId}>
            <Link to={`/gun/${h.stationId}`}>{hungrySentence(h, at.kind)}</Link>{' '}
            {h.verdict === 'hungry' ? <span className="dim">{lookUpstream(at.kind, h.readings)}</span> : null}
          </li>
        ))}
      </ul>
      {at.perTips ? (
        <>
          <p>{perTipsWords(at.perTips)}</p>
          <ul className="plain life-list">
            {at.perTips.over.map((o) => (
              <li key={o.stationId}>
                <Link to={`/gun/${o.stationId}`}>{overTipsWords(o)}</Link>
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </section>
  )
}

/** Groups beside each other, with a plain answer. */
export function Compared({ at, units }: { at: LifeAnswer; units: Units }) {
  if (!at.by) return null
  const isPriced = at.isMoney && at.groups.some((g) => g.cost)
  const per = groupsFor(at, units)
  const cost = (minor: number) => aboutMoney(per.told(minor), at.currency)
  return (
    <Sideways as="section" aria-label="Compared">
      <h2>By {BY_WORD[at.by]}</h2>
      {at.groups.length < 2 ? (
        <p className="dim">There is only one here, or nobody said: nothing to hold it against.</p>
      ) : null}
      <Table className="payback-table">
        <thead>
          <tr>
            <th>{BY_WORD[at.by]}</th>
            <th className="text-end">lives</th>
            <th className="text-end">half gone by</th>
            <th className="text-end">one in ten by</th>
            {isPriced ? <th className="text-end">one costs</th> : null}
            {isPriced ? <th className="text-end">{per.words} of it cost</th> : null}
          </tr>
        </thead>
        <tbody>
          {at.groups.map((g) => (
            <tr key={g.key}>
              <th scope="row">{g.name}</th>
              <td className="text-end">{g.n}</td>
              <td className="text-end">
                {g.told
                  ? `${amount(g.told.median.value, at.unit, units)} (${amount(g.told.median.low, at.unit, units)}–${amount(g.told.median.high, at.unit, units)})`
                  : '–'}
                {g.told && g.told.source !== 'yours' ? ` ${g.told.source}` : ''}
              </td>
              <td className="text-end">{g.told ? amount(g.told.b10.value, at.unit, units) : '–'}</td>
              {isPriced ? <td className="text-end">{g.cost ? money(g.cost.eachMinor, at.currency) : '–'}</td> : null}
              {isPriced ? (
                <td className="text-end">
                  {g.cost ? `${cost(g.cost.total)} (${cost(g.cost.low)}–${cost(g.cost.high)})` : '–'}
                </td>
              ) : null}
            </tr>
          ))}
        </tbody>
      </Table>
      {at.leftOut.length > 0 ? (
        <p className="dim">Without {listed(at.leftOut)}, which would stand in for the part’s own life.</p>
      ) : null}
      <ul className="plain life-list">
        {at.compared.map((c) => (
          <li key={c.second}>
            {comparedSentence(c)} {cheaperSentence(at, c, units)} <span className="dim">{movedWords(c)}</span>
          </li>
        ))}
      </ul>
    </Sideways>
  )
}

/** What makes it last, all else equal, and what cannot be told apart here. */
export function Longer({ at }: { at: LifeAnswer }) {
  if (at.longer.length === 0 && at.together.length === 0) return null
  return (
    <section aria-label="What makes it last">
      <h2>What makes it last, all else equal</h2>
      <ul className="plain life-list">
        {at.longer.map((l) => (
          <li key={`${l.by} ${l.level}`}>{longerSentence(l)}</li>
        ))}
        {at.together.map((t) => (
          <li key={t.join()} className="dim">
            Always came together here, so they cannot be told apart: {listed(t.map((by) => BY_WORD[by]))}.
          </li>
        ))}
      </ul>
      <p className="dim">
        {LONGER_CAUTION} {at.isCleaned ? CLEANED_CAUTION : ''}
      </p>
    </section>
  )
}

/** While it is open: what else is worth changing, by numbers. */
export function Alongside({ at }: { at: LifeAnswer }) {
  if (at.alongside.length === 0) return null
  return (
    <section aria-label="While it is open">
      <h2>While it’s open</h2>
      <ul className="plain life-list">
        {at.alongside.map((a) => (
          <li key={a.kind}>{alongsideWords(a)}</li>
        ))}
      </ul>
    </section>
  )
}

type Stroke = LifeAnswer['strokes'][number]
/** Each life back to its acts: the day it ended, in the Logbook. */
export function EachLife({ at, units }: { at: LifeAnswer; units: Units }) {
  const columns = useMemo(() => livesColumns(at, units), [at, units])
  const drawn = at.strokes.length
  return (
    <details className="life-each">
      <summary>Each life ({at.strokesOf})</summary>
      <LongTable
        id="lives"
        rows={at.strokes}
        columns={columns}
        keyOf={(s) => `${s.fromMs} ${s.name} ${s.toMs ?? ''} ${s.used}`}
        wordsOf={(s) => `${s.name} ${endOf(s)} ${s.group ?? ''} ${shortDate(s.fromMs, at.zone)}`}
        findLabel="find a place, a reason, a part"
        none="None yet."
      />
      {at.strokesOf > drawn ? (
        <p className="dim">The {drawn} of those drawn. The others stand in the Logbook.</p>
      ) : null}
    </details>
  )
}
const endOf = (s: Stroke) => (s.reason ? REASON_WORD[s.reason] : 'still in')
const OF: Column<Stroke> = {
  key: 'of',
  head: 'of',
  by: (s) => s.group || null,
  cell: (s) => <span className="dim">{s.group}</span>,
}
const livesColumns = (at: LifeAnswer, units: Units): Column<Stroke>[] => [
  {
    key: 'place',
    head: 'where',
    by: (s) => s.name,
    cell: (s) => (s.stationId ? <Link to={`/gun/${s.stationId}`}>{s.name}</Link> : s.name),
  },
  {
    key: 'used',
    head: 'did',
    isNumber: true,
    by: (s) => s.used,
    cell: (s) => `${amount(s.used, at.unit, units)}${s.parts > 1 ? ` each of ${s.parts}` : ''}`,
  },
  { key: 'end', head: 'came out', by: endOf, cell: endOf },
  {
    key: 'from',
    head: 'on',
    by: (s) => s.fromMs,
    cell: (s) => <LogDay ms={s.fromMs} at={at} stationId={s.stationId} />,
  },
  {
    key: 'to',
    head: 'off',
    by: (s) => s.toMs,
    cell: (s) => (s.toMs === null ? '' : <LogDay ms={s.toMs} at={at} stationId={s.stationId} />),
  },
  ...(at.strokes.some((s) => s.group) ? [OF] : []),
]
const LogDay = ({ ms, at, stationId }: { ms: number; at: LifeAnswer; stationId: string | null }) => (
  <Link to={`/logbook?day=${dayKey(ms, at.zone)}&position=${at.kind}${stationId ? `&stationId=${stationId}` : ''}`}>
    {shortDate(ms, at.zone)}
  </Link>
)
