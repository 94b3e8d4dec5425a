import { createHmac } from 'node:crypto'
import { eq } from 'drizzle-orm'
import { type z } from 'zod'
import { type feederAnswer, type feederRequest } from '@contract/telemetry.ts'
import { feeder, stationNow } from '@server/db/schema.ts'
import { transact } from '@server/db/db.ts'
import { mustLead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { digest, newToken } from '@server/people/people.ts'

/** A token for a feeder that stands at a place; asked for again, the feeder gets a fresh one and the old one ends. */
export async function makeFeeder(
  deps: Deps,
  who: Who,
  request: z.infer<typeof feederRequest>,
): Promise<z.infer<typeof feederAnswer>> {
  mustLead(who)
  const token = newToken()
  await transact(deps.db, async (tx) => {
    const [now] = await tx.select().from(stationNow).where(eq(stationNow.stationId, request.stationId))
    if (!now?.headId)
      throw new DomainError('not-found', 'No feeder stands at that place.', ['Say in Our shop what stands there.'])
    const values = { headId: now.headId, tokenHash: digest(token), isActive: true }
    await tx
      .insert(feeder)
      .values({ equipmentId: request.equipmentId, ...values })
      .onDuplicateKeyUpdate({ set: values })
  })
  return { equipmentId: request.equipmentId, token }
}

/** The demo's stand-in and its server make the same token from a secret that both were started with. */
export const standInToken = (secret: string, equipmentId: string) =>
  createHmac('sha256', secret).update(equipmentId).digest('base64url')
