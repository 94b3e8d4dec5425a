import { eq } from 'drizzle-orm'
import { type z } from 'zod'
import { isWordOf } from '@core/path/kinds.ts'
import { type wordRequest } from '@contract/ingest.ts'
import { partKind, site } from '@server/db/schema.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { changing } from '@server/write/changing.ts'

/**
 * What a word of this shop means, once for all sheets, search and hand-out: a name of a kind of part, taken away from any other kind that had it; or no part
 * of a gun, and then nobody is asked again.
 */
export const sayWord = (deps: Deps, who: Who, { key, word, kindKey }: z.infer<typeof wordRequest>) =>
  changing(deps, who, {
    key,
    change: { of: 'called', word, kindKey },
    work: async (tx) => {
      const kinds = await tx.select().from(partKind).for('update')
      for (const kind of kinds) {
        const others = kind.synonyms.filter((s) => s.toLowerCase() !== word)
        const synonyms =
          kind.key === kindKey && !isWordOf(word, { ...kind, synonyms: others }) ? [...others, word] : others
        if (synonyms.length !== kind.synonyms.length)
          await tx.update(partKind).set({ synonyms }).where(eq(partKind.key, kind.key))
      }
      const [row] = await tx.select({ otherWords: site.otherWords }).from(site)
      const rest = (row?.otherWords ?? []).filter((w) => w !== word)
      await tx.update(site).set({ otherWords: kindKey === null ? [...rest, word] : rest })
    },
  })
