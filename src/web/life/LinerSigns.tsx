import { useState } from 'react'
import { type LinerTerms } from '@core/liner/clauses.ts'
import { type LifeAnswer } from '@contract/life.ts'
import { aboutMoney, minutes, type Units } from '@web/format/numbers.ts'
import { LinerTermsForm } from '@web/houserule/LinerTermsForm.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { ChooseRule } from './ChooseRule.tsx'
import { clauseSeenWords, recordWords, savingWords, type SchoolLine } from './lifewords.ts'
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
        {recordWords(signs)} {line ? costWords(line, at) : ''}
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

function costWords(line: SchoolLine, at: LifeAnswer): string {
  const per = at.money?.per === 'arcHours' ? '100 arc hours' : '100 of its unit'
  const cost = at.isMoney && line.cost.total > 0 ? `${aboutMoney(line.cost.total, at.currency)}, ` : ''
  const stand = line.cost.standMin < 1 ? 'no standing' : `${minutes(line.cost.standMin)} standing`
  return `For ${per} ${cost}${stand}; it ${savingWords(line)} against running them to failure.`
}
