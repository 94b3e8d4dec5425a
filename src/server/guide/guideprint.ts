import { type z } from 'zod'
import { type guideQuery } from '@contract/guide.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { readGuide } from './read.ts'
import { loadShop } from '@server/shopmodel/model.ts'
import { dayOf } from '@server/time/wall.ts'
import { guideSheet, SHIFTS, sizesFor } from '@server/print/guidesheet.ts'
import { type Printed } from '@server/print/pdf.ts'
import { pdfOf } from '@server/print/printer.ts'

/** A guide on one page: set as large as fits on one, the smallest where none does. Answers the pages it took. */
export async function printGuide(
  deps: Deps,
  who: Who,
  query: z.output<typeof guideQuery>,
): Promise<{ pdf: Buffer; pages: number; name: string }> {
  const guide = await readGuide(deps, who, query)
  if (!guide.guide) throw new DomainError('bad-request', 'Say which guide.', ['Choose one of the list.'])
  const { site } = await loadShop(deps.db, deps.shops, deps.now())
  const date = dayOf(site.zone, deps.now())
  let made: Printed = { pdf: Buffer.alloc(0), pages: 0 }
  for (const size of sizesFor(guide))
    for (const shift of SHIFTS) {
      if (made.pages === 1) break
      made = await pdfOf(guideSheet(guide, { size, shift, shopName: site.name, date }))
    }
  return { ...made, name: `${guide.guide} ${guide.name}` }
}
