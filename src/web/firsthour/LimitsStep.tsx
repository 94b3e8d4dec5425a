import { suggestedLimits, type SuggestedLimit } from '@core/catalogue/limits.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { amount, type Units } from '@web/format/numbers.ts'
import { capital } from '@web/format/words.ts'
import { Bare, Key } from '@web/kit/Keys.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { Link } from 'react-router'
import { useSaveLimits } from './queries.ts'

/** The trade's numbers, each with its spread: taken in one tap, or all of them; none is set without it. */
export function LimitsStep({ shop, onNext }: { shop: ShopAnswer; onNext: () => void }) {
  const save = useSaveLimits()
  const { units } = shop.site
  const ruled = new Set(shop.rules.filter((r) => r.classKey === '*').map((r) => r.kindKey))
  const there = new Set(shop.stations.flatMap((s) => s.positions.map((p) => p.replace(/#\d$/, ''))))
  const all = suggestedLimits(shop.kinds.filter((k) => there.has(k.key)))
  const open = all.filter((s) => !ruled.has(s.kindKey))
  const take = (which: readonly SuggestedLimit[], onSuccess?: () => void) =>
    save.mutate(
      {
        classKey: '*',
        limits: which.map(({ kindKey, changeAt, lookDays }) => ({ kindKey, changeLimit: changeAt, lookDays })),
      },
      { onSuccess },
    )
  return (
    <>
      <h1 className="sentence">How long parts last in the trade: yours to take, or to change.</h1>
      <p className="said dim">
        Guesses, marked “trade” until your own lives tell more. By the number given half are worn; eight shops in ten
        lie within the spread. Nothing is set without your tap.
      </p>
      <Trouble problem={save.error} />
      {open.length > 0 ? (
        <Key tone="chalk" disabled={save.isPending} onClick={() => take(open, onNext)}>
          Take all {open.length}
        </Key>
      ) : (
        <Key tone="chalk" onClick={onNext}>
          All are set: go on
        </Key>
      )}
      <ul className="plain limit-list">
        {all.map((s) => (
          <li key={s.kindKey}>
            <strong>{capital(shop.kinds.find((k) => k.key === s.kindKey)?.name ?? s.kindKey)}</strong>
            <span>{limitWords(s, units)}</span>
            {ruled.has(s.kindKey) ? (
              <span className="dim">set</span>
            ) : (
              <Key size="low" disabled={save.isPending} aria-label={`Take it: ${s.kindKey}`} onClick={() => take([s])}>
                Take it
              </Key>
            )}
          </li>
        ))}
      </ul>
      <p>
        <Link to="/shop?part=rules">change them one by one</Link> <Bare onClick={onNext}>not now</Bare>
      </p>
    </>
  )
}

/** "change at 8 h (3.2–20 h), look every 7 days". */
export function limitWords(s: SuggestedLimit, units: Units): string {
  const said: string[] = []
  if (s.changeAt !== null && s.low !== null && s.high !== null)
    said.push(`change at ${amount(s.changeAt, s.unit, units)} (${spread(s.low, s.high, { unit: s.unit, units })})`)
  if (s.lookDays !== null) said.push(`look every ${s.lookDays} days`)
  return said.join(', ')
}
/** "3.2 to 20": the numbers alone, their unit stands before them. */
const spread = (low: number, high: number, at: { unit: SuggestedLimit['unit']; units: Units }) =>
  [low, high].map((n) => amount(n, at.unit, at.units).replace(/ .*$/, '')).join(' to ')
