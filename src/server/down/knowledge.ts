import { reliedFaults } from '@core/diagnose/relied.ts'
import { type z } from 'zod'
import { knowledgeFaults, type Knowledge } from '@core/diagnose/knowledge.ts'
import { SHIPPED } from '@core/diagnose/shipped/knowledge.ts'
import { makeId } from '@core/ids/id.ts'
import { type knowledgeAnswer, type knowledgeRequest } from '@contract/down.ts'
import { knowledge } from '@server/db/schema.ts'
import { mustLead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { knowledgeNow, type KnowledgeNow } from '@server/knowledge/now.ts'
import { changing } from '@server/write/changing.ts'

export async function readKnowledge(deps: Deps, who: Who): Promise<z.input<typeof knowledgeAnswer>> {
  mustLead(who)
  return writable(await knowledgeNow(deps.db))
}
/** As the contract has it: lists that may be written to. */
const writable = (now: KnowledgeNow) => now as unknown as z.input<typeof knowledgeAnswer>

/** A new version; one with a fault in it is refused whole, with every place that is off. */
export async function setKnowledge(deps: Deps, who: Who, r: z.output<typeof knowledgeRequest>) {
  mustLead(who)
  const body = r.knowledge as Knowledge | null
  const { knowledge: before } = await knowledgeNow(deps.db)
  const faults = body ? [...knowledgeFaults(body), ...reliedFaults(before, body)] : []
  if (faults.length > 0)
    throw new DomainError(
      'sheet-refused',
      'Something in it does not hold together; nothing was changed.',
      faults.slice(0, MOST).map((f) => `${f.where}: ${f.says}.`),
    )
  return changing(deps, who, {
    key: r.key,
    change: { of: 'knowledge', isShipped: !body },
    work: async (tx) => {
      const id = makeId('knowledge', deps.now(), deps.random)
      const base = body ? SHIPPED : null
      await tx.insert(knowledge).values({ id, body, base, atMs: deps.now(), byId: who.person?.id ?? null })
    },
  })
}
const MOST = 20
