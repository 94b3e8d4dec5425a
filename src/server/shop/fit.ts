import { eq } from 'drizzle-orm'
import { type z } from 'zod'
import { makeId } from '@core/ids/id.ts'
import { JOINTS, type FamilyFit } from '@core/rightparts/facts.ts'
import { type familyRequest, type feederTypeRequest, type procedureRequest } from '@contract/shop.ts'
import { feederType, fitFamily, procedure, wire } from '@server/db/schema.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { changing } from '@server/write/changing.ts'

const gone = (what: string) => new DomainError('not-found', `That ${what} is not there any more.`)

/** A fit family, new or changed. A joint whose step changes is counted anew from now. */
export const saveFamily = (deps: Deps, who: Who, r: z.infer<typeof familyRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'family', name: r.name },
    work: async (tx) => {
      if (!r.id) {
        const fit = r.fit ? sinceNow(r.fit, null, deps.now()) : null
        await tx.insert(fitFamily).values({ id: makeId('family', deps.now(), deps.random), name: r.name, fit })
        return
      }
      const [row] = await tx.select().from(fitFamily).where(eq(fitFamily.id, r.id)).for('update')
      if (!row) throw gone('family')
      const fit = r.fit ? sinceNow(r.fit, row.fit, deps.now()) : row.fit
      await tx.update(fitFamily).set({ name: r.name, fit }).where(eq(fitFamily.id, r.id))
    },
  })

function sinceNow(fit: FamilyFit, before: FamilyFit | null, nowMs: number): FamilyFit {
  const tightness: FamilyFit['tightness'] = {}
  for (const joint of JOINTS) {
    const [said, was] = [fit.tightness[joint], before?.tightness[joint]]
    if (said) tightness[joint] = was?.step === said.step ? was : { step: said.step, sinceMs: nowMs }
  }
  return { ...fit, tightness }
}

export const saveFeederType = (deps: Deps, who: Who, r: z.infer<typeof feederTypeRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'feederType', name: r.name },
    work: async (tx) => {
      const { name, fit } = r
      if (fit.scaleFrom !== null && fit.scaleTo !== null && fit.scaleFrom >= fit.scaleTo)
        throw new DomainError('bad-request', 'The knob’s scale ends before it begins.', ['Mend one of the two.'])
      if (!r.id) {
        await tx.insert(feederType).values({ id: makeId('feederType', deps.now(), deps.random), name, fit })
        return
      }
      const [row] = await tx.select().from(feederType).where(eq(feederType.id, r.id)).for('update')
      if (!row) throw gone('feeder')
      await tx.update(feederType).set({ name, fit }).where(eq(feederType.id, r.id))
    },
  })

export const saveProcedure = (deps: Deps, who: Who, r: z.infer<typeof procedureRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'procedure', name: r.name },
    work: async (tx) => {
      const { name, fit } = r
      if (fit.wireId) {
        const [there] = await tx.select({ id: wire.id }).from(wire).where(eq(wire.id, fit.wireId))
        if (!there) throw gone('wire')
      }
      if (!r.id) {
        await tx.insert(procedure).values({ id: makeId('procedure', deps.now(), deps.random), name, fit })
        return
      }
      const [row] = await tx.select().from(procedure).where(eq(procedure.id, r.id)).for('update')
      if (!row) throw gone('procedure')
      await tx.update(procedure).set({ name, fit }).where(eq(procedure.id, r.id))
    },
  })
