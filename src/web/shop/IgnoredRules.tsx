import { Button } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import { ignoredAnswer, type IgnoredAnswer } from '@contract/houserule.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { getJson } from '@web/api/client.ts'
import { amount, type Units } from '@web/format/numbers.ts'
import { partName } from '@web/format/words.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSave } from '@web/shopmodel/queries.ts'

const useIgnored = () =>
  useQuery({ queryKey: ['houserule', 'ignored'], queryFn: () => getJson('/houserule/ignored', ignoredAnswer) })

/** "14 of the tips ran past 6 h here, and nothing came of it." */
export const ignoredSentence = (r: IgnoredAnswer['rules'][number], units: Units) =>
  `${partName(r.kindKey)}: ${r.past} ran past ${amount(r.limit, r.unit, units)} in 60 days, and nothing came of it.`

/** Rules that are ignored without harm ask to be changed; nothing is changed by itself. */
export function IgnoredRules({ shop }: { shop: ShopAnswer }) {
  const ignored = useIgnored()
  const save = useSave('/shop/rule')
  const rules = ignored.data?.rules ?? []
  if (rules.length === 0) return null
  const { units } = shop.site
  return (
    <section aria-label="Rules that are ignored">
      {rules.map((r) => {
        const now = shop.rules.find((x) => x.kindKey === r.kindKey && x.classKey === r.classKey)
        const place = shop.classes.find((c) => c.key === r.classKey)?.name
        return (
          <p key={`${r.kindKey} ${r.classKey}`} className="said">
            {place ? `${place}, ` : ''}
            {ignoredSentence(r, units)}{' '}
            <Button
              variant=""
              disabled={save.isPending}
              onClick={() =>
                save.mutate({
                  kindKey: r.kindKey,
                  classKey: r.classKey,
                  changeLimit: Number(r.suggested.toPrecision(2)),
                  cleanLimit: now?.cleanLimit ?? null,
                  lookDays: now?.lookDays ?? null,
                })
              }
            >
              make it {amount(r.suggested, r.unit, units)}
            </Button>
          </p>
        )
      })}
      <Trouble problem={save.error} />
    </section>
  )
}
