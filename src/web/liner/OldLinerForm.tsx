import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { AUTOPSY_FINDS, type AutopsyFind } from '@core/ledger/event.ts'
import { readLength } from '@core/units/length.ts'
import { field, TextField } from '@web/kit/Field.tsx'
import { answered } from './answered.ts'
import { type GateProps } from './LinerGate.tsx'
import { PlaceKeys } from './PlaceKeys.tsx'
import { unitOf } from '@web/format/lengths.ts'
import { FIND_WORD } from './linerwords.ts'

const PLACED: readonly AutopsyFind[] = ['worn', 'bunched', 'separated', 'kinked', 'shredded']
/** The old liner on the bench: what it shows, how sure that is, where along it, how long it is. All of it may be left open. */
export function OldLinerForm({ job, onJob, liner, units }: GateProps) {
  const [old, setOld] = useState(job.old)
  const [length, setLength] = useState('')
  const read = length.trim() ? readLength(length, unitOf(units)) : null
  const bad = read && (!read.ok || read.mm <= 0 || read.mm > 60_000)
  const flip = (f: AutopsyFind) => {
    if (f === 'nothing') return setOld({ ...old, found: old.found.includes(f) ? [] : [f], atMm: null })
    const rest = old.found.filter((x) => x !== 'nothing' && x !== f)
    setOld({ ...old, found: old.found.includes(f) ? rest : [...rest, f] })
  }
  return (
    <div className="gate-form">
      <div className="gate-keys">
        {AUTOPSY_FINDS.map((f) => (
          <Key key={f} size="low" aria-pressed={old.found.includes(f)} onClick={() => flip(f)}>
            {FIND_WORD[f]}
          </Key>
        ))}
      </div>
      {old.found.some((f) => PLACED.includes(f)) ? (
        <>
          <p className="step-look">Where along it?</p>
          <div className="gate-keys">
            <PlaceKeys cableMm={liner.cableMm} atMm={old.atMm} onPick={(atMm) => setOld({ ...old, atMm })} />
            <Key size="low" aria-pressed={!old.isCertain} onClick={() => setOld({ ...old, isCertain: !old.isCertain })}>
              may be from pulling it out
            </Key>
          </div>
        </>
      ) : null}
      <TextField
        id="old-length"
        label={`its whole length, ${unitOf(units)} (may be left open)`}
        inputMode="decimal"
        {...field(length, setLength)}
      />
      {bad ? <p className="step-look">{read.ok ? 'No liner is so long or so short.' : `${read.reason}.`}</p> : null}
      <div className="step-keys is-gate">
        <Key
          tone="chalk"
          disabled={Boolean(bad)}
          onClick={() => onJob(answered(job, liner.steps, { old: { ...old, lengthMm: read?.ok ? read.mm : null } }))}
        >
          {old.found.length === 0 && !read ? 'Not looked at: go on' : 'That is what it shows'}
        </Key>
      </div>
    </div>
  )
}
