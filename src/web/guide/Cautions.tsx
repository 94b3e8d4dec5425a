import { Button } from 'react-bootstrap'
import { Bare } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { hazardName } from '@core/guide/cautions.ts'
import { type CautionsAnswer } from '@contract/guide.ts'
import { when } from '@web/format/times.ts'
import { capital } from '@web/format/words.ts'
import { field, TextField } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useCautions, useSetCaution } from './queries.ts'

type Line = CautionsAnswer['cautions'][number]

/** Every caution in this site's words, and the near misses said of it: places, never people. */
export function Cautions() {
  const cautions = useCautions()
  if (!cautions.data) return <Trouble problem={cautions.error} />
  const { cautions: lines, other, zone } = cautions.data
  const all = lines.reduce((sum, l) => sum + l.nearMisses, other)
  return (
    <>
      <p className="said">
        {all === 0
          ? 'No near miss was said in a year. It takes two taps at a gun: the whole gun, near miss.'
          : `${all} near ${all === 1 ? 'miss' : 'misses'} in a year. Where one stands often, something about the place is wrong, not somebody.`}
      </p>
      <ul className="plain cautions">
        {[...lines]
          .sort((a, b) => b.nearMisses - a.nearMisses)
          .map((line) => (
            <OneCaution key={line.hazard} line={line} zone={zone} />
          ))}
      </ul>
      {other > 0 ? <p className="small-print">{other} said as something else.</p> : null}
      <p className="small-print">
        These defer to the site’s lock-out practice, the maker’s manual, local codes and licensed trades. Your own words
        stand at every step that meets the hazard.
      </p>
    </>
  )
}

function OneCaution({ line, zone }: { line: Line; zone: string }) {
  const [isOpen, setOpen] = useState(false)
  return (
    <li>
      <p>
        <strong>{capital(hazardName(line.hazard))}</strong>{' '}
        {line.nearMisses > 0 ? (
          <em>
            {line.nearMisses} near {line.nearMisses === 1 ? 'miss' : 'misses'}: {line.places.join(', ')}
            {line.lastMs === null ? '' : `, last ${when(line.lastMs, Date.now(), zone)}`}.
          </em>
        ) : null}
      </p>
      <p className="step-hazard">{line.own ?? line.shipped}</p>
      <p className="small-print">
        {line.own ? 'Your site’s words. ' : ''}
        {line.how === 'ask' ? 'Asked: the step waits for the answer. ' : ''}
        <Bare aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
          in our own words …
        </Bare>
      </p>
      {isOpen ? <CautionForm line={line} onDone={() => setOpen(false)} /> : null}
    </li>
  )
}

function CautionForm({ line, onDone }: { line: Line; onDone: () => void }) {
  const send = useSetCaution()
  const [words, setWords] = useState(line.own ?? line.shipped)
  const say = (text: string) => send.mutate({ hazard: line.hazard, words: text }, { onSuccess: onDone })
  return (
    <form
      className="own-form"
      onSubmit={(e) => {
        e.preventDefault()
        say(words)
      }}
    >
      <TextField
        id={`caution-${line.hazard}`}
        label="as it is said here"
        as="textarea"
        rows={2}
        maxLength={240}
        {...field(words, setWords)}
      />
      <div className="own-keys">
        <Button type="submit" variant="chalk" disabled={send.isPending || words.trim() === ''}>
          Keep it
        </Button>
        {line.own ? (
          <Button variant="" disabled={send.isPending} onClick={() => say('')}>
            As it was shipped
          </Button>
        ) : null}
      </div>
      <Trouble problem={send.error} />
    </form>
  )
}
