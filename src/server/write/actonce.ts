import { type ActKind } from '@core/ledger/acts.ts'
import { once } from '@server/call/once.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { actByKey } from '@server/ledger/lines.ts'
import { keyOf, writeAct, type Writing } from './act.ts'
import { OK } from './changing.ts'

/** One act under its key that answers nothing but that it stands: sent again it is not written again. */
export function actOnce(
  deps: Deps,
  who: Who,
  { kind, key, say }: { kind: ActKind; key: string; say: (w: Writing) => Promise<void> },
): Promise<typeof OK> {
  mustRead(who)
  return once(
    async () => ((await actByKey(deps.db, kind, keyOf(key))) ? OK : null),
    async () => {
      await writeAct(deps, who, say)
      return OK
    },
  )
}
