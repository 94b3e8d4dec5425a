import { type HandItemKey, type PairKey } from '@core/classes/items.ts'
import { type KindKey, type LifeUnit } from '@core/path/columns.ts'
import { type LinerTerms } from '@core/liner/clauses.ts'
import { type School } from '@core/life/chooserule.ts'

/**
 * What was changed about how the shop is set up, as it stands in the ledger: fields, so that "did it help?" and the history of a rule ask for what they
 * mean. `other` keeps a sentence of an older version that could not be read as anything else.
 */
export type ShopChange =
  | {
      of: 'houseRule'
      kindKey: KindKey
      /** `*`: every class of place. */
      classKey: string
      changeAt: number | null
      cleanAt: number | null
      lookDays: number | null
      /** By which school it was chosen, and from how many lives; null: set by hand. */
      school: School | null
      lives: number | null
      /** What its limits are counted in; absent: what the kind was shipped with. */
      unit?: LifeUnit
    }
  | {
      of: 'school'
      code: string
      scopeType: string
      scopeKey: string
      /** Null: the usual. */
      option: string | null
      /** What it was before; absent: an older version did not say. */
      was?: string | null
      terms: LinerTerms | null
    }
  /** The lead's word on how long a kind lasts; without numbers it was taken back. */
  | { of: 'word'; kindKey: KindKey; usual: number | null; early: number | null; unit?: LifeUnit }
  /** What a word of this shop means; null: no part of a gun. */
  | { of: 'called'; word: string; kindKey: KindKey | null }
  | { of: 'tryout'; question: string; nameA: string; nameB: string; places: number }
  | { of: 'tryoutEnd'; isConfirmed: boolean }
  | { of: 'site'; name: string; zone: string }
  | Named
  | { of: 'rates'; classKey: string }
  /** `unit`: what its life is counted in from now on, where that was changed. */
  | { of: 'kind'; kindKey: KindKey; unit?: LifeUnit }
  | { of: 'shifts'; count: number }
  | { of: 'finding'; rule: string; at: KindKey | 'off'; isKept: boolean }
  | { of: 'counted'; parts: number }
  | { of: 'received' }
  | { of: 'carried'; parts: number }
  | { of: 'store'; name: string; isClosed: boolean }
  | { of: 'necksGoRound'; places: number }
  | { of: 'neck'; name: string }
  | { of: 'supplier'; name: string }
  | { of: 'offer'; part: string; supplier: string }
  | { of: 'shelf'; part: string }
  | { of: 'ordered'; supplier: string; lines: number }
  | { of: 'orderClosed'; supplier: string }
  | { of: 'kit'; name: string; isClosed: boolean }
  | { of: 'jobs'; count: number }
  | { of: 'job'; name: string; isDone: boolean }
  | { of: 'tin'; kindKey: KindKey; grams: number; isEmptied: boolean }
  | { of: 'guideWords'; guide: string; step: string; isOwn: boolean }
  | { of: 'cautionWords'; hazard: string; isOwn: boolean }
  | { of: 'knowledge'; isShipped: boolean }
  | { of: 'person'; isNew: boolean }
  | { of: 'device' }
  | { of: 'photo'; ofType: string }
  | { of: 'sheet'; list: 'parts' | 'purchases' | 'families'; lines: number }
  | { of: 'group'; name: string; isActive: boolean }
  | { of: 'calendar'; name: string; is: 'made' | 'changed' | 'moved' | 'dropped' | 'takenIn'; count: number }
  | { of: 'taught'; group: string; item: HandItemKey }
  | { of: 'drillSet'; name: string; group: string | null; isEnded: boolean }
  | { of: 'pairWords'; pair: PairKey; isWrongHere: boolean }
  | { of: 'other'; said: string }
/** A limit as it was set. */
export type RuleChange = Extract<ShopChange, { of: 'houseRule' }>
export type ShopChangeOf = ShopChange['of']
/** Made or changed, under its name. */
type NamedThing = 'area' | 'place' | 'part' | 'wire' | 'family' | 'feederType' | 'procedure' | 'gun'
type Named = { [K in NamedThing]: { of: K; name: string } }[NamedThing]
