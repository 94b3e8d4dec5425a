import { type KindKey } from '@core/path/columns.ts'
import { type KeptFit } from '@core/life/kept.ts'
import { type Deps } from '@server/call/context.ts'
import { lifeFit } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { KeptFor } from '@server/time/keptfor.ts'

export type KeptFits = ReadonlyMap<string, KeptFit>
export const keptKey = (kindKey: KindKey, classKey: string) => `${kindKey} ${classKey}`
const KEPT_MS = 30_000

/** The fits as they are kept, read again every half minute by each server. */
export class LifeStore {
  private readonly kept = new KeptFor<KeptFits>(KEPT_MS)

  read = (db: Reader, nowMs: number): Promise<KeptFits> => this.kept.read(nowMs, () => readKept(db))
  forget = (): void => this.kept.forget()
}
export async function readKept(db: Reader): Promise<KeptFits> {
  const rows = await db.select().from(lifeFit)
  return new Map(rows.map((r) => [keptKey(r.kindKey, r.classKey), r.fit]))
}

/** What it takes to say how long a part will last: the fits, kept. */
export type KeptDeps = Deps & { lives: LifeStore }
