import { type StockAnswer } from '@contract/stock.ts'
import { aboutMoney, money, twoFigures } from '@web/format/numbers.ts'
import { countWord, listed, lower } from '@web/format/words.ts'

/** On the shelf, and no gun takes it. */
export function Orphans({ at }: { at: StockAnswer }) {
  if (at.orphans.length === 0) return null
  const worth = at.orphans.reduce((sum, o) => sum + (o.minor ?? 0), 0)
  return (
    <section aria-label="No gun takes them">
      <h2>No gun takes them</h2>
      <p>
        {listed(at.orphans.map((o) => `${o.code} (${o.onHand})`))}: on the shelf, and on no gun there is
        {worth > 0 ? `; ${money(worth, at.currency)} as bought` : ''}. Give them back, or keep them knowing why.
      </p>
    </section>
  )
}

/** What one family in place of several would save, as far as it is told by stock. */
export function FewerKinds({ at }: { at: StockAnswer }) {
  const told = [...at.fewer].sort((a, b) => b.savedMinor - a.savedMinor)
  const saved = told.reduce((sum, f) => sum + f.savedMinor, 0)
  const [first] = told
  if (!first || saved < 100) return null
  return (
    <section aria-label="Fewer kinds">
      <h2>Fewer kinds</h2>
      <p>
        One fit family in place of {lower(countWord(Math.max(...told.map((f) => f.families))))} would save about{' '}
        {aboutMoney(saved, at.currency)} a year in what lies there, counts and orders: most at the {first.kindName} (
        {listed(first.codes)}: {twoFigures(first.safetyThen)} kept against running short instead of{' '}
        {twoFigures(first.safetyNow)}). Less what it costs to change guns over: where that is more than a few years of
        it, let them run out instead.
      </p>
    </section>
  )
}
