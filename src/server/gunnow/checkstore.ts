import { type ShopModel } from '@server/shopmodel/model.ts'
import { checkPlace, type Checked } from './findings.ts'
import { type Hung } from './setup.ts'

/**
 * What does not fit, kept by gun: a floor of 500 is checked by some thirty rules each, and between two looks at it next to
 * nothing changes.
 * 1. Kept under all that the rules read: the shop's set-up as one text, what is on the place's carriers, the wire that is on.
 * 2. The shop and what is on its guns are read anew for every request; only the rules are not run again.
 * 3. Nothing depends on one process: an empty store works everything out.
 */
export class CheckStore {
  private readonly kept = new Map<string, { under: string; checked: Checked }>()
  private set = { under: '', number: 0 }

  /** A short name for the shop as it is set up: its revision, or the same name for the same text. */
  shopName(shop: ShopModel): string {
    if (shop.revision !== null) return `revision ${shop.revision}`
    const under = JSON.stringify([
      [...shop.partById.values()],
      [...shop.familyById.values()],
      [...shop.wires.values()],
      [...shop.feederTypes.values()],
      [...shop.procedures.values()],
      shop.choices,
      [...shop.tryingAt],
      [...shop.keptByStation.values()],
      shop.areas.map((a) => [a.id, a.built]),
      shop.stations.map((s) => [s.areaId, s.classKey, s.except]),
    ])
    if (under !== this.set.under) this.set = { under, number: this.set.number + 1 }
    return String(this.set.number)
  }

  check(hung: Hung, shop: ShopModel, at: { shopName: string; fitKeys: readonly string[] }): Checked {
    const { station } = hung
    const under = `${at.shopName} ${at.fitKeys.join('|')} ${hung.spoolWireId ?? ''} ${hung.now.gunId ?? ''}`
    const known = this.kept.get(station.id)
    if (known?.under === under) return known.checked
    const checked = checkPlace(hung, shop)
    this.kept.set(station.id, { under, checked })
    return checked
  }
}
