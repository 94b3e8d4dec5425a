import { useState } from 'react'
import { type BenchThing } from '@contract/cell.ts'
import { amount, type Units } from '@web/format/numbers.ts'
import { capital, REASON_WORD } from '@web/format/words.ts'
import { Bare, Key } from '@web/kit/Keys.tsx'
import { PickOne } from '@web/kit/Field.tsx'
import { idIn } from '@web/kit/idin.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useShop } from '@web/shopmodel/queries.ts'
import { benchWords } from './cellwords.ts'
import { useBench } from './queries.ts'

type Part = BenchThing['parts'][number]

/** A neck or gun on the bench: what is on it, and what was done to it. It is kept on the thing, wherever it hangs next. */
export function BenchOpened({ thing, units, onDone }: { thing: BenchThing; units: Units; onDone: () => void }) {
  const [open, setOpen] = useState<Part | null>(null)
  const bench = useBench()
  return (
    <section aria-label={thing.name} className="bench">
      <h2>
        {thing.name} <span className="dim">{[thing.familyName, benchWords(thing)].filter(Boolean).join('. ')}</span>
      </h2>
      <ul className="bench-parts">
        {thing.parts.map((p) => (
          <li key={p.position} className={`is-${p.state}`}>
            <Bare
              aria-expanded={open?.position === p.position}
              onClick={() => setOpen(open?.position === p.position ? null : p)}
            >
              {capital(p.name)}
            </Bare>{' '}
            <span className="dim">{partWords(p, units)}</span>
          </li>
        ))}
      </ul>
      {open ? <PartDone thing={thing} part={open} onDone={() => setOpen(null)} /> : null}
      <div className="cell-keys">
        {thing.status === 'ready' ? (
          <Key
            disabled={bench.isPending}
            onClick={() => bench.mutate({ carrierId: thing.carrierId, acts: [], status: 'toRefurbish' })}
          >
            Not ready: to mend
          </Key>
        ) : (
          <Key
            tone="chalk"
            disabled={bench.isPending}
            onClick={() =>
              bench.mutate({ carrierId: thing.carrierId, acts: [], status: 'ready' }, { onSuccess: onDone })
            }
          >
            {thing.name} is ready
            <small>tight, straight, its parts known</small>
          </Key>
        )}
      </div>
      <Bare onClick={onDone}>close</Bare>
      <Trouble problem={bench.error} />
    </section>
  )
}

function partWords(p: Part, units: Units): string {
  if (p.fittedMs === null) return 'nobody knows what is on'
  const used = p.used === null ? '' : `${amount(p.used, p.unit, units)} done`
  const of = p.limit === null ? '' : ` of ${amount(p.limit, p.unit, units)}`
  return [p.partCode, `${used}${used ? of : ''}`, p.state === 'due' ? 'at its limit' : ''].filter(Boolean).join(', ')
}

/** One part of it: changed, cleaned, or only named. */
function PartDone({ thing, part, onDone }: { thing: BenchThing; part: Part; onDone: () => void }) {
  const bench = useBench()
  const shop = useShop()
  const parts = (shop.data?.parts ?? []).filter((p) => p.kindKey === part.kindKey)
  const [partId, setPart] = useState<string>(part.partId ?? '')
  const id = idIn(parts, partId)
  const [reason, setReason] = useState<Part['reasons'][number]>('notSaid')
  const say = (act: 'changed' | 'cleaned' | 'found') =>
    bench.mutate(
      { carrierId: thing.carrierId, acts: [{ act, position: part.position, partId: id, outReason: reason }] },
      { onSuccess: onDone },
    )
  return (
    <div className="bench-part" role="group" aria-label={part.name}>
      <div className="cell-fields">
        <PickOne
          id="bench-part"
          label={`which ${part.name}`}
          value={partId}
          none="not said"
          options={parts.map((p) => [p.id, `${p.code} ${p.name}`] as const)}
          onPick={setPart}
        />
        <PickOne
          id="bench-why"
          label="why the old one came out"
          value={reason}
          options={(['notSaid', ...part.reasons] as const).map((r) => [r, REASON_WORD[r]] as const)}
          onPick={setReason}
        />
      </div>
      <div className="cell-keys">
        <Key tone="chalk" disabled={bench.isPending} onClick={() => say('changed')}>
          New one on
        </Key>
        {part.canClean ? (
          <Key disabled={bench.isPending} onClick={() => say('cleaned')}>
            Cleaned
          </Key>
        ) : null}
        <Key disabled={bench.isPending || !id} onClick={() => say('found')}>
          That one is on
          <small>nothing was changed</small>
        </Key>
      </div>
      <Trouble problem={bench.error} />
    </div>
  )
}
