import { isDuplicate, transact, type Tx } from '@server/db/db.ts'
import { mustLead, type Deps, type Who } from '@server/http/context.ts'
import { DomainError } from '@server/http/problem.ts'
import { append, eventByKey, factDraft, nothingTouched, type Draft, type Touched } from '@server/ledger/append.ts'
import { project } from '@server/projection/project.ts'

export const OK = { ok: true as const }

/** A change of the set-up is a line of the ledger too, and is refolded where clocks depend on it. Same key: done before. */
export async function changing(
  deps: Deps,
  who: Who,
  at: { key: string; what: string; work: (tx: Tx) => Promise<Touched | void> },
): Promise<typeof OK> {
  mustLead(who)
  try {
    await transact(deps.db, async (tx) => {
      if (await eventByKey(tx, at.key)) return
      const touched = (await at.work(tx)) ?? nothingTouched()
      await append(tx, [shopDraft(deps, who, at)])
      await project(tx, touched, { calendar: deps.calendar, nowMs: deps.now() })
    })
  } catch (problem) {
    if (isDuplicate(problem) && !(await eventByKey(deps.db, at.key)))
      throw new DomainError('name-taken', 'There is one with that name already.', ['Choose another name.'])
    if (!isDuplicate(problem)) throw problem
  }
  return OK
}

export const shopDraft = (deps: Deps, who: Who, at: { key: string; what: string }): Draft =>
  factDraft(deps, who, {
    fact: { kind: 'shopChanged', what: at.what.slice(0, 120) },
    happenedMs: deps.now(),
    precision: 'exact',
    stationId: null,
    idempotencyKey: at.key,
  })
