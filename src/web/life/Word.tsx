import { useState, type SyntheticEvent } from 'react'
import { Button } from 'react-bootstrap'
import { type LifeAnswer } from '@contract/life.ts'
import { kgToLb } from '@core/units/convert.ts'
import { amount, unitWord, type Units } from '@web/format/numbers.ts'
import { field, TextField } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { partsName } from './lifewords.ts'
import { useWord } from './queries.ts'

const parse = (text: string) => {
  const n = Number(text.replace(',', '.'))
  return text.trim() !== '' && Number.isFinite(n) && n > 0 ? n : null
}

/** The lead's word: two numbers that count until the shop's own lives speak. */
export function Word({ at, units }: { at: LifeAnswer; units: Units }) {
  const save = useWord()
  const shown = (kept: number | undefined) =>
    kept === undefined ? '' : amount(kept, at.unit, units).replace(/ .*/, '')
  const [usual, setUsual] = useState(shown(at.word?.usual))
  const [early, setEarly] = useState(shown(at.word?.early))
  const [u, e] = [parse(usual), parse(early)]
  const unit = unitWord(at.unit, units)
  const toKept = at.unit === 'kg' && units === 'us' ? 1 / kgToLb(1) : 1
  const send = (event: SyntheticEvent) => {
    event.preventDefault()
    if (u === null || e === null) return
    save.mutate({ kindKey: at.kind, classKey: at.classKey ?? '*', usual: u * toKept, early: e * toKept })
  }
  const hint = u !== null && e !== null && e >= u ? 'The early one must be less than the usual one.' : null
  return (
    <details className="life-word" open={at.told === null}>
      <summary>Your word on {partsName(at.kind)}</summary>
      <form className="walk-which" onSubmit={send}>
        <TextField
          id="word-usual"
          label={`Usually they do (${unit})`}
          inputMode="decimal"
          {...field(usual, setUsual)}
        />
        <TextField
          id="word-early"
          label={`One in ten is gone by (${unit})`}
          inputMode="decimal"
          {...field(early, setEarly)}
        />
        <Button type="submit" disabled={u === null || e === null || hint !== null || save.isPending}>
          Say it
        </Button>
        {at.word ? (
          <Button
            variant="outline-secondary"
            onClick={() => save.mutate({ kindKey: at.kind, classKey: at.classKey ?? '*', usual: null, early: null })}
          >
            Take it back
          </Button>
        ) : null}
      </form>
      {hint ? <p role="alert">{hint}</p> : null}
      <p className="dim">It counts as a few lives would: your own records soon outweigh it.</p>
      <Trouble problem={save.error} />
    </details>
  )
}
