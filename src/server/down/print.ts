import { z } from 'zod'
import { DRAWINGS } from '@core/drawings/all.ts'
import { indexOf } from '@core/diagnose/belief.ts'
import { firstLooks } from '@core/diagnose/firstlooks.ts'
import { ownShares, turnedOf } from '@core/diagnose/learn.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { pdfOf } from '@server/print/printer.ts'
import { symptomCards } from '@server/print/symptomcards.ts'
import { loadShop } from '@server/shopmodel/model.ts'
import { dayOf } from '@server/time/wall.ts'
import { LEARNT_MS } from './down.ts'
import { countTurned, explainedSince } from './explained.ts'
import { knowledgeNow } from '@server/knowledge/now.ts'

export const symptomsQuery = z.object({ symptom: z.string().max(24).optional() })
const MOST = 4

/** Cards by symptom: the looks that come first, in the shop's own order; one symptom, or a page for each. */
export async function printSymptoms(deps: Deps, who: Who, q: z.output<typeof symptomsQuery>): Promise<Buffer> {
  mustRead(who)
  const [{ site }, { knowledge }, explained] = await Promise.all([
    loadShop(deps.db, deps.shops, deps.now()),
    knowledgeNow(deps.db),
    explainedSince(deps.db, deps.now() - LEARNT_MS),
  ])
  const wanted = knowledge.symptoms.filter((s) => !q.symptom || s.key === q.symptom)
  if (wanted.length === 0)
    throw new DomainError('not-found', 'There is no such symptom.', ['Choose one on the page Down.'])
  const index = indexOf(knowledge)
  const turned = countTurned(explained)
  const cards = wanted.map((s) => {
    const own = turnedOf(turned, s.key, index.causeAt)
    const drawn = s.drawn ? (DRAWINGS[s.drawn[0]].panels[s.drawn[1]] ?? null) : null
    return {
      says: s.says,
      drawn,
      looks: firstLooks(index, { symptom: s.key, shares: ownShares(s, own).shares, most: MOST }),
    }
  })
  const { pdf } = await pdfOf(symptomCards(cards, { shopName: site.name, date: dayOf(site.zone, deps.now()) }))
  return pdf
}
