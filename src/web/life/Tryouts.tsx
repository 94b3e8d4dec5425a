import { useState, type SyntheticEvent } from 'react'
import { Button } from 'react-bootstrap'
import { type LifeAnswer } from '@contract/life.ts'
import { shortDate } from '@web/format/times.ts'
import { field, PickOne, TextField, type Option } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useShop } from '@web/shopmodel/queries.ts'
import { tryoutSentence } from './lifewords.ts'
import { useEndTryout, useStartTryout } from './queries.ts'
import { partLabel, listed } from '@web/format/words.ts'

/** One thing or another, at places drawn by lot, until it is answered. */
export function Tryouts({ at }: { at: LifeAnswer }) {
  const end = useEndTryout()
  return (
    <section aria-label="Try-outs">
      <h2>Try-outs</h2>
      <ul className="plain life-list">
        {at.tryouts.map((t) => (
          <li key={t.id}>
            <strong>{t.question}</strong> {tryoutSentence(t)}{' '}
            <span className="dim">
              {t.nameA} at {listed(t.placesA)}; {t.nameB} at {listed(t.placesB)}. Since {shortDate(t.fromMs, at.zone)}
              {t.toMs === null ? '' : `, ended ${shortDate(t.toMs, at.zone)}`}.
            </span>{' '}
            {t.toMs === null ? (
              <Ends t={t} isBusy={end.isPending} onEnd={(fits) => end.mutate({ id: t.id, fits })} />
            ) : null}
          </li>
        ))}
      </ul>
      <Trouble problem={end.error} />
      <NewTryout at={at} />
    </section>
  )
}

/** Ends it; where it was only said that its parts fit, with what came of that. */
function Ends(props: { t: LifeAnswer['tryouts'][number]; isBusy: boolean; onEnd: (fits: boolean) => void }) {
  const { t, isBusy, onEnd } = props
  const key = (fits: boolean, says: string) => (
    <Button size="sm" variant="outline-secondary" disabled={isBusy} onClick={() => onEnd(fits)}>
      {says}
    </Button>
  )
  if (t.unproven.length === 0) return key(false, 'End it')
  return (
    <span className="built-keys">
      {key(true, `End it: ${listed(t.unproven)} ${t.unproven.length === 1 ? 'fits' : 'fit'}, confirmed here`)}
      {key(false, 'End it: not shown to fit')}
    </span>
  )
}

const RATIOS = ['1.25', '1.5', '2', '3']
const OTHER = 'other'
function NewTryout({ at }: { at: LifeAnswer }) {
  const shop = useShop()
  const start = useStartTryout()
  const [a, setA] = useState('')
  const [b, setB] = useState('')
  const [way, setWay] = useState(['', ''])
  const [ratio, setRatio] = useState('1.5')
  const parts = (shop.data?.parts ?? []).filter((p) => p.kindKey === at.kind)
  const places = (shop.data?.stations ?? []).filter((s) => isIn(s, at))
  const nameOf = (id: string, i: number) =>
    id === OTHER ? (way[i] ?? '') : (parts.find((p) => p.id === id)?.name ?? '')
  const partOf = (id: string) => (id === OTHER ? null : id)
  const isReady =
    nameOf(a, 0) !== '' && nameOf(b, 1) !== '' && a + (way[0] ?? '') !== b + (way[1] ?? '') && places.length >= 2
  const send = (event: SyntheticEvent) => {
    event.preventDefault()
    const [nameA, nameB] = [nameOf(a, 0), nameOf(b, 1)]
    start.mutate(
      {
        ...{
          kindKey: at.kind,
          question: `${nameA} or ${nameB}?`,
          nameA,
          nameB,
          partAId: partOf(a),
          partBId: partOf(b),
        },
        ...{ stationIds: places.map((s) => s.id), ratio: Number(ratio) },
      },
      { onSuccess: () => [setA, setB].forEach((set) => set('')) },
    )
  }
  const options = [...parts.map((p) => [p.id, partLabel(p)] as const), [OTHER, 'something done, not a part'] as const]
  return (
    <details>
      <summary>Try one thing or another …</summary>
      <form className="walk-which" onSubmit={send}>
        <Side i={0} picked={a} pick={setA} way={way} setWay={setWay} options={options} />
        <Side i={1} picked={b} pick={setB} way={way} setWay={setWay} options={options} />
        <PickOne
          id="try-ratio"
          label="It would matter if one lasts"
          value={ratio}
          options={RATIOS.map((r) => [r, `${r} times as long`] as const)}
          onPick={setRatio}
        />
        <Button type="submit" disabled={!isReady || start.isPending}>
          Deal out {places.length} places by lot
        </Button>
      </form>
      <p className="dim">
        Each gun’s page says what it was dealt. It is answered when enough have worn out, earlier only where chance
        could hardly do it.
      </p>
      <Trouble problem={start.error} />
    </details>
  )
}
interface SideProps {
  i: 0 | 1
  picked: string
  pick: (id: string) => void
  way: readonly string[]
  setWay: (way: string[]) => void
  options: readonly Option[]
}
/** One of the two: a part, or something that is done. */
function Side({ i, picked, pick, way, setWay, options }: SideProps) {
  const key = i === 0 ? 'a' : 'b'
  return (
    <div>
      <PickOne
        id={`try-${key}`}
        label={i === 0 ? 'This' : 'or that'}
        value={picked}
        none="choose"
        options={options}
        onPick={pick}
      />
      {picked === OTHER ? (
        <TextField
          id={`try-way-${key}`}
          label="What is done"
          placeholder={i === 0 ? 'no dip' : 'dip at each break'}
          {...field(way[i] ?? '', (text) => setWay(way.map((old, j) => (j === i ? text : old))))}
        />
      ) : null}
    </div>
  )
}
const isIn = (s: { areaId: string; classKey: string }, at: LifeAnswer) =>
  at.where === 'all' || at.where === `class:${s.classKey}` || at.where === `area:${s.areaId}`
