import { PAYBACK_DAYS, type PaybackAnswer } from '@contract/payback.ts'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { useMe } from '@web/people/queries.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { PhoneMore } from '@web/sections/PhoneMore.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useAddress } from '@web/kit/useAddress.ts'
import { EachStop } from './EachStop.tsx'
import { Heaps } from './Heaps.tsx'
import { Helped } from './Helped.tsx'
import {
  beforeWords,
  cheapPartSentence,
  costWords,
  nestDetail,
  nestSentence,
  notFeedSentence,
  paybackSentence,
  unpricedWords,
} from './paybackwords.ts'
import { usePayback } from './queries.ts'
import { RatesTable } from './RatesTable.tsx'
import { WhereTable } from './WhereTable.tsx'

/** What did it cost, did it help? Minutes and money heaped on the path. */
export function PaybackPage() {
  const { get, put } = useAddress()
  const me = useMe()
  const isPhone = useIsPhone()
  const areaId = get('area') || (me.data?.device?.areaId ?? '')
  const days = Number(get('days') || 90)
  const payback = usePayback(days, areaId)
  if (!payback.data)
    return (
      <main className="walk" aria-busy={payback.isPending}>
        {payback.isPending ? <h1 className="sentence dim">Reckoning what it cost and how much was welded …</h1> : null}
        <Trouble problem={payback.error} />
      </main>
    )
  const at = payback.data
  const isMoney = at.isMoney && get('by') !== 'minutes'
  return (
    <main className="walk payback">
      <h1 className="sentence">{paybackSentence(at)}</h1>
      <p className="honesty dim">
        {beforeWords(at)} {cheapPartSentence(at)} {unpricedWords(at)}
      </p>
      <div className="walk-which">
        <PickOne
          id="payback-days"
          label="How long"
          value={String(days)}
          options={PAYBACK_DAYS.map((d) => [String(d), `${d} days`] as const)}
          onPick={(d) => put({ days: d })}
        />
        <PickOne
          id="payback-area"
          label="Where"
          value={areaId}
          none="everywhere"
          options={at.areas.map((a) => [a.id, a.name] as const)}
          onPick={(a) => put({ area: a })}
        />
        {at.isMoney ? (
          <PickOne
            id="payback-by"
            label="Heaps of"
            value={isMoney ? 'money' : 'minutes'}
            options={[
              ['money', 'money'],
              ['minutes', 'minutes'],
            ]}
            onPick={(by) => put({ by })}
          />
        ) : null}
      </div>
      <Heaps at={at} isMoney={isMoney} isNarrow={isPhone} />
      <WhereTable at={at} />
      {notFeedSentence(at) ? <p className="payback-exits">{notFeedSentence(at)}</p> : null}
      <EachStop days={days} areaId={areaId} n={at.total.now.stops} />
      <Nests at={at} units={me.data?.units ?? 'metric'} />
      <RatesTable rates={at.rates} units={me.data?.units ?? 'metric'} />
      <Helped at={at} areaId={areaId} units={me.data?.units ?? 'metric'} />
      {isPhone ? <PhoneMore /> : null}
    </main>
  )
}

function Nests({ at, units }: { at: PaybackAnswer; units: 'metric' | 'us' }) {
  if (!at.nests) return null
  return (
    <section aria-label="Nests">
      <h2>{nestSentence(at)}</h2>
      <p className="dim">{nestDetail(at, units)}</p>
      {at.total.now.cost ? (
        <p className="dim">
          All stops of these {at.days} days: {costWords(at.total.now.cost, at.currency)}. Hands count an hour a stop at
          most (guess).
        </p>
      ) : null}
    </section>
  )
}
