import { eq } from 'drizzle-orm'
import { type LifeAnswer } from '@contract/life.ts'
import { person } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { type School } from '@core/life/chooserule.ts'
import { linerAskedBy } from '@core/liner/clauses.ts'
import { linerRule } from '@server/gunnow/rulehere.ts'
import { type KindRow, type RuleRow, type ShopModel, type ShopRules } from '@server/shopmodel/model.ts'
import { ruleHistory } from './history.ts'

/** The school that holds; of liners the shop's answer to when they are changed goes before what was chosen in money. */
function schoolNow(
  shop: ShopRules,
  at: { kind: KindRow; classKey: string | null },
  rule: RuleRow | null,
): School | null {
  const chosen = rule?.basis?.school ?? (rule?.changeLimit ? 'fixed' : null)
  if (at.kind.key !== 'liner') return chosen
  const { school } = linerRule({ class: at.classKey }, shop.choices)
  const by = linerAskedBy(school)
  if (by === 'signs') return 'signs'
  return by === 'use' ? chosen : 'runToFailure'
}

/** The rule that holds, what it rested on when it was chosen, and what held before. */
export async function ruleNow(
  db: Reader,
  shop: ShopModel,
  at: { kind: KindRow; classKey: string | null; basis: string },
): Promise<Pick<LifeAnswer, 'rule' | 'history'>> {
  const rule = shop.ruleFor(at.kind.key, at.classKey ?? '*')
  const [chooser] = rule?.chosenById ? await db.select().from(person).where(eq(person.id, rule.chosenById)) : []
  const basis = rule?.basis ?? null
  return {
    rule: {
      changeLimit: rule?.changeLimit ?? null,
      school: schoolNow(shop, at, rule),
      isForAll: rule?.classKey === '*',
      chosenMs: rule?.chosenMs ?? null,
      chosenBy: chooser?.name ?? null,
      n: basis && basis.n > 0 ? basis.n : null,
      median: basis && basis.median > 0 ? basis.median : null,
      isNewer: Boolean(basis?.basis && basis.basis !== at.basis),
    },
    history: await ruleHistory(db, shop, { kindKey: at.kind.key, classKey: at.classKey }),
  }
}
