import { type PersonId } from '@core/ids/id.ts'
import { allTogether } from '@core/stock/onhand.ts'
import { rightPart, type Stocked } from '@core/rightparts/check.ts'
import { readFor, rollReads } from '@core/rightparts/rollrules.ts'
import { wireFor } from '@core/rightparts/chooser.ts'
import { alloyOf, isCored, isSameSize, ROLL_SETTINGS, type Setup } from '@core/rightparts/facts.ts'
import { type Datum } from '@core/rightparts/finding.ts'
import { type FindingLine, type PartBrief } from '@contract/rightparts.ts'
import { part } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { readLies } from '@server/projection/stock.ts'
import { type ShopFit } from '@server/shopmodel/model.ts'
import { type Checked, type Judged } from './findings.ts'
import { partFacts } from './setup.ts'

/** Every part of the shop with what is on the shelf. */
export async function stockedParts(db: Reader): Promise<Stocked[]> {
  const [rows, lies] = await Promise.all([db.select().from(part), readLies(db)])
  return rows.map((p) => {
    const at = lies.get(p.id) ?? []
    return { ...partFacts(p), onHand: allTogether(at)?.onHand ?? null, lies: at, priceMinor: p.priceMinor }
  })
}

export const brief = (p: Stocked): PartBrief => ({ partId: p.id, code: p.code, name: p.name, onHand: p.onHand })

/** Ids in a sentence become names. */
function named(datum: Datum, shop: ShopFit): Datum {
  if (datum.is !== 'text') return datum
  const [kind, id = ''] = datum.text.split(':')
  if (kind === 'family') return { is: 'text', text: shop.families.get(id) ?? 'another family' }
  return kind === 'wire' ? { is: 'text', text: shop.wires.get(id)?.name ?? 'another wire' } : datum
}

/** A finding as it is told: names for ids, and what would put it right. */
export function findingLine(
  finding: Judged,
  at: { setup: Setup; shop: ShopFit; parts: readonly Stocked[]; nameOf?: (personId: PersonId) => string | null },
): FindingLine {
  const { kept, ...plain } = finding
  const { remedy } = plain
  const put = remedy.do === 'change' ? rightPart(at.setup, remedy.kindKey, at.parts) : null
  return {
    rule: plain.rule,
    severity: plain.severity,
    at: plain.at,
    found: named(plain.found, at.shop),
    wanted: named(plain.wanted, at.shop),
    remedy: remedy.do === 'turn' ? { ...remedy, rolls: [...remedy.rolls] } : remedy,
    put: put && brief(put),
    suits: suitsOf(finding, at),
    set: settingsOf(finding, at.setup, put),
    kept: kept && {
      note: kept.note,
      by: kept.chosenById ? (at.nameOf?.(kept.chosenById) ?? null) : null,
      chosenMs: kept.chosenMs,
    },
  }
}

const BY_METAL: ReadonlySet<string> = new Set(['wireThick', 'wireThin'])
/** Sizes that suit the job's metal: those of wires the shop has, else any. */
function suitsOf({ rule }: Judged, { setup, shop }: { setup: Setup; shop: ShopFit }): number[] {
  const { wire, procedure } = setup
  if (!BY_METAL.has(rule) || !wire || !procedure?.thicknessMm) return []
  const all = wireFor(procedure.material ?? alloyOf(wire), isCored(wire), procedure.thicknessMm)
  const has = [...shop.wires.values()].map((w) => w.diameterMm)
  const here = all.filter((mm) => has.some((own) => isSameSize(own, mm)))
  return here.length > 0 ? here : all
}

/** What to log when it is put right: rolls that were turned, or fitted the right way round; a value that was set. */
function settingsOf(finding: Judged, setup: Setup, put: Stocked | null): FindingLine['set'] {
  const { remedy } = finding
  if (remedy.do === 'set') return [{ name: remedy.name, value: remedy.value }]
  const roll = put?.kindKey === 'rolls' ? put : setup.parts['rolls']
  const isRolls = remedy.do === 'turn' || put?.kindKey === 'rolls'
  if (!isRolls || !roll || !setup.wire) return []
  const read = readFor(roll, setup.wire, setup.feeder?.runsFace ?? 'read')
  if (read === null) return []
  const places = remedy.do === 'turn' ? remedy.rolls.map((r) => r - 1) : rollReads(setup).map((_, i) => i)
  return places.flatMap((i) => {
    const name = ROLL_SETTINGS[i]
    return name ? [{ name, value: String(read) }] : []
  })
}

export const findingLines = (checked: Checked, at: Omit<Parameters<typeof findingLine>[1], 'setup'>): FindingLine[] =>
  checked.findings.map((f) => findingLine(f, { ...at, setup: checked.setup }))
