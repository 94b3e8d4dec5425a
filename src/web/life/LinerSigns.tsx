import { useState } from 'react'
import { type LinerTerms } from '@core/liner/clauses.ts'
import { type LifeAnswer } from '@contract/life.ts'
import { aboutMoney, minutes, type Units } from '@web/format/numbers.ts'
import { LinerTermsForm } from '@web/houserule/LinerTermsForm.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { ChooseRule } from './ChooseRule.tsx'
import { clauseSeenWords, forHundred, isPriced, recordWords, savingWords, type SchoolLine } from './lifewords.ts'
import { useSigns } from './queries.ts'

/** When the liner is changed by signs: each clause a switch, what it would have seen of the liners that ended here, and what the rule costs. */
export function LinerSigns({ at, units }: { at: LifeAnswer; units: Units }) {
  const { liner, money } = at
  const [terms, setTerms] = useState<LinerTerms | null>(null)
  const asked = terms ?? liner?.terms ?? null
  const other = useSigns(terms ? { where: at.where, terms } : null)
  if (!liner || !asked) return null
  const signs = other.data?.signs ?? liner
  const line = other.data?.line ?? money?.lines.find((l) => l.school === 'signs') ?? null
  const isChanged = liner.school !== 'signs' || JSON.stringify(asked) !== JSON.stringify(liner.terms)
  return (
    <section aria-label="The liner by signs" aria-busy={other.isFetching}>
      <h2>On a sign</h2>
      <p>
        {recordWords(signs)} {line ? costWords(line, at, units) : ''}
      </p>
      <LinerTermsForm id="life-signs" terms={asked} seen={(c) => clauseSeenWords(signs, c)} onTerms={setTerms} />
      <p className="dim">
        Pulls are counted at three minutes each. Its length of wire alone asks for a look. Taken out on a kink, on what
        a hand is sure of, or by the maker’s manual it is changed whatever stands here.
      </p>
      <Trouble problem={other.error} />
      <div className="built-keys">
        <ChooseRule {...{ at, units, isChanged }} school="signs" use={at.rule.changeLimit} terms={asked} />
      </div>
    </section>
  )
}

function costWords(line: SchoolLine, at: LifeAnswer, units: Units): string {
  const per = forHundred(at.money?.per, at.unit, units)
  const cost = isPriced(at) && line.cost.total > 0 ? `${aboutMoney(per.told(line.cost.total), at.currency)}, ` : ''
  const standMin = per.told(line.cost.standMin)
  const stand = standMin < 1 ? 'no standing' : `${minutes(standMin)} standing`
  const saved = at.isMoney && !isPriced(at) ? '' : `; it ${savingWords(line)} against running them to failure`
  return `For ${per.words} ${cost}${stand}${saved}.`
}
