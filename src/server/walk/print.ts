import { type Position } from '@core/path/columns.ts'
import { type WalkQuery } from '@contract/walk.ts'
import { type Who } from '@server/call/context.ts'
import { type SurveyDeps } from '@server/floor/surveystore.ts'
import { DomainError } from '@server/problem/problem.ts'
import { pdfOf } from '@server/print/printer.ts'
import { walkSheet } from '@server/print/walksheet.ts'
import { loadShop } from '@server/shopmodel/model.ts'
import { dayOf } from '@server/time/wall.ts'
import { readWalk } from './walk.ts'

/** The walk as it is chosen now, on paper. */
export async function printWalk(deps: SurveyDeps, who: Who, query: WalkQuery): Promise<Buffer> {
  const walk = await readWalk(deps, who, query)
  if (walk.stops.length === 0)
    throw new DomainError('not-found', 'There is nothing to look at on that walk.', [
      'Choose another walk or more minutes.',
    ])
  const { site, kindByKey } = await loadShop(deps.db, deps.shops, deps.now())
  const partName = (position: Position) => {
    const [kind = position, lane] = position.split('#')
    return `${kindByKey.get(kind)?.name ?? kind}${lane ? ` ${lane}` : ''}`
  }
  const { pdf } = await pdfOf(walkSheet(walk, { shopName: site.name, date: dayOf(site.zone, deps.now()), partName }))
  return pdf
}
