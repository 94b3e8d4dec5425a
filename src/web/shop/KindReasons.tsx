import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import {
  OUT_REASONS,
  PART_CLASSES,
  type KindKey,
  type LifeUnit,
  type OutReason,
  type PartClass,
} from '@core/path/columns.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { UNIT_NAME } from '@web/format/numbers.ts'
import { capital, REASON_WORD } from '@web/format/words.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSave } from '@web/shopmodel/queries.ts'

const OFFERED = OUT_REASONS.filter((r) => r !== 'notSaid')
/** How a diffuser's own duties fail: no other part has them. */
const OF_DIFFUSER: ReadonlySet<OutReason> = new Set(['poorContact', 'holdsNot', 'wireCatches', 'linerSlips'])
const offeredFor = (key: KindKey) => OFFERED.filter((r) => key === 'diffuser' || !OF_DIFFUSER.has(r))

/** What each class is: counted apart, since shops mean different things by "consumable" (P011). */
const CLASS_WORD: Record<PartClass, string> = {
  'process consumable': 'used up by welding, as wire and gas are',
  'wear part': 'wears, and is changed',
  'durable part': 'lasts, and is mended',
}
/** "Wear parts: tip, nozzle, liner …": each kind under what it is to this shop, with wire and gas beside what is used up. */
export function classesSentence(kinds: ShopAnswer['kinds']): string {
  return PART_CLASSES.map((is) => {
    const names = kinds.filter((k) => k.partClass === is).map((k) => k.name)
    const all = is === 'process consumable' ? ['wire', 'gas', ...names] : names
    return `${capital(is)}s: ${all.join(', ')}.`
  }).join(' ')
}

const COUNTABLE: readonly LifeUnit[] = ['arcHours', 'kg', 'km', 'starts']
/** What a clock tells of any part, and what this one is counted in now. */
const unitsFor = (now: LifeUnit): readonly LifeUnit[] => (COUNTABLE.includes(now) ? COUNTABLE : [now, ...COUNTABLE])

/** Why a kind of part comes out: the reasons offered as the second tap when it is logged. */
export function KindReasons({ shop }: { shop: ShopAnswer }) {
  return (
    <section>
      <h2>Why parts come out</h2>
      <p className="small-print">Offered as the second tap. Few and right is better than many.</p>
      <p className="small-print">{classesSentence(shop.kinds)}</p>
      <p className="small-print">
        What rubs on the wire wears by its length: counted so, a gun that ran steel and aluminium is right. Weight and
        length are put into each other (1.0 mm steel where nobody said otherwise); limits in anything else are put aside
        and want to be set anew.
      </p>
      <ul className="plain kind-reasons">
        {shop.kinds.map((k) => (
          <KindRow key={k.key} kind={k} />
        ))}
      </ul>
    </section>
  )
}

function KindRow({ kind }: { kind: ShopAnswer['kinds'][number] }) {
  const save = useSave('/shop/kind')
  const [reasons, setReasons] = useState<OutReason[]>(kind.reasons)
  const isSame = reasons.length === kind.reasons.length && reasons.every((r) => kind.reasons.includes(r))
  const flip = (r: OutReason, isOn: boolean) =>
    setReasons(isOn ? OFFERED.filter((o) => o === r || reasons.includes(o)) : reasons.filter((x) => x !== r))
  return (
    <li>
      <strong>{kind.name}</strong>
      <span>
        {offeredFor(kind.key).map((r) => (
          <label key={r} className="on-gun">
            <Form.Check.Input checked={reasons.includes(r)} onChange={(e) => flip(r, e.target.checked)} />{' '}
            {REASON_WORD[r]}
          </label>
        ))}
      </span>
      <PickOne
        id={`class-${kind.key}`}
        label={`the ${kind.name} is`}
        value={kind.partClass}
        options={PART_CLASSES.map((c) => [c, CLASS_WORD[c]])}
        onPick={(partClass) => save.mutate({ kindKey: kind.key, partClass })}
      />
      <PickOne
        id={`unit-${kind.key}`}
        label="its life is counted in"
        value={kind.lifeUnit}
        options={unitsFor(kind.lifeUnit).map((u) => [u, UNIT_NAME[u]])}
        onPick={(lifeUnit) => save.mutate({ kindKey: kind.key, lifeUnit })}
      />
      <Button
        aria-label={`Save the reasons of the ${kind.name}`}
        disabled={isSame || reasons.length === 0 || save.isPending}
        onClick={() => save.mutate({ kindKey: kind.key, reasons })}
      >
        Save
      </Button>
      {save.isPending && save.variables?.lifeUnit ? (
        <p className="small-print" role="status">
          Every gun is counted anew: this may take a minute.
        </p>
      ) : null}
      <Trouble problem={save.error} />
    </li>
  )
}
