import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { OUT_REASONS, type OutReason } from '@core/path/columns.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { REASON_WORD } from '@web/format/words.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSave } from '@web/shopmodel/queries.ts'

const OFFERED = OUT_REASONS.filter((r) => r !== 'notSaid')

/** Why a kind of part comes out: the reasons offered as the second tap when it is logged. */
export function KindReasons({ shop }: { shop: ShopAnswer }) {
  return (
    <section>
      <h2>Why parts come out</h2>
      <p className="small-print">Offered as the second tap. Few and right is better than many.</p>
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
        {OFFERED.map((r) => (
          <label key={r} className="on-gun">
            <Form.Check.Input checked={reasons.includes(r)} onChange={(e) => flip(r, e.target.checked)} />{' '}
            {REASON_WORD[r]}
          </label>
        ))}
      </span>
      <Button
        aria-label={`Save the reasons of the ${kind.name}`}
        disabled={isSame || reasons.length === 0 || save.isPending}
        onClick={() => save.mutate({ kindKey: kind.key, reasons })}
      >
        Save
      </Button>
      <Trouble problem={save.error} />
    </li>
  )
}
