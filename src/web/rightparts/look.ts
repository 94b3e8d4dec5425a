import { type Position } from '@core/path/columns.ts'
import {
  ANTI_SPATTERS,
  GASES,
  MODES,
  POLARITIES,
  ROLL_SETTINGS,
  UNWINDS,
  type SettingName,
} from '@core/rightparts/facts.ts'
import { type LookAnswer, type LookGun } from '@contract/rightparts.ts'
import { NOMINAL_MM } from '@core/units/wiresize.ts'
import { type ShopAnswer } from '@contract/shop.ts'

/** What somebody saw on one gun, before it is sent: the bay's description, and what differs. */
export interface Seen {
  wireId: string | null
  /** By position: a part, null where it is not one of the shop's, missing where nobody looked. */
  parts: Partial<Record<Position, string | null>>
  reads: (number | null)[]
  /** Set-up beside the parts, where somebody looked. */
  settings: Partial<Record<SettingName, string>>
}

/** Positions that are worth a look: those of which the shop has parts to tell apart. */
export function lookedAt(gun: LookGun, shop: ShopAnswer): LookGun['positions'] {
  const kinds = new Set(shop.parts.map((p) => p.kindKey))
  return gun.positions.filter((p) => kinds.has(p.kindKey))
}

export function asTheBay(gun: LookGun, shop: ShopAnswer): Seen {
  const parts: Seen['parts'] = {}
  for (const p of lookedAt(gun, shop)) {
    const id = p.bayPartId ?? p.partId
    if (id) parts[p.position] = id
  }
  return {
    wireId: gun.wireId,
    parts,
    reads: Array.from({ length: gun.rollCount }, () => gun.bayReadMm),
    settings: {},
  }
}

/** As the request wants it: only what was said. */
export function lookBody(gun: LookGun, seen: Seen) {
  return {
    stationId: gun.stationId,
    wireId: seen.wireId,
    parts: gun.positions.flatMap(({ position }) => {
      const partId = seen.parts[position]
      return partId === undefined ? [] : [{ position, partId }]
    }),
    settings: [
      ...seen.reads.flatMap((mm, i) => {
        const name = ROLL_SETTINGS[i]
        return mm !== null && name ? [{ name, value: String(mm) }] : []
      }),
      ...Object.entries(seen.settings).map(([name, value]) => ({ name: name as SettingName, value })),
    ],
  }
}

/** What is looked at besides parts, and what it can read; asked for nobody, there for whoever looks. */
export function settingChoices(shop: ShopAnswer): { name: SettingName; values: readonly string[] }[] {
  const own = [...new Set(shop.wires.map((w) => w.diameterMm))]
  // A machine may be set for a wire that the shop has none of.
  const sizes = (own.length > 1 ? own : [...NOMINAL_MM]).sort((a, b) => a - b).map(String)
  return [
    { name: 'polarity', values: POLARITIES },
    { name: 'unwind', values: UNWINDS },
    { name: 'machineWire', values: sizes },
    { name: 'machineMode', values: MODES },
    { name: 'gas', values: GASES },
    { name: 'tipOut', values: ['-8', '-6', '-4', '-3', '-2', '0', '2', '3', '5'] },
    { name: 'antiSpatter', values: ANTI_SPATTERS },
  ]
}

/** Numbers that can be read on the faces of a roll set; where its grooves are not told, any size that wire is sold in: the wrong one too. */
export function readable(seen: Seen, shop: ShopAnswer): number[] {
  const roll = shop.parts.find((p) => p.id === seen.parts['rolls'])
  const faces = roll?.fit?.grooves?.map((g) => g.sizeMm) ?? []
  const others = roll?.fit?.grooves ? shop.wires.map((w) => w.diameterMm) : NOMINAL_MM
  return [...new Set([...faces, ...others])].sort((a, b) => a - b)
}

export const isWrong = (gun: LookGun) => gun.findings.some((f) => f.severity === 'stops' && f.kept === null)

/** "5 of 60 guns are built wrong." */
export function lookSentence(look: LookAnswer): string {
  if (look.guns.length === 0) return 'No guns here yet.'
  const seen = look.guns.filter((g) => g.positions.some((p) => p.partId !== null))
  const wrong = seen.filter(isWrong).length
  if (seen.length === 0)
    return `Nobody has looked at how ${look.guns.length} ${look.guns.length === 1 ? 'gun is' : 'guns are'} built.`
  const rest = look.guns.length - seen.length
  const unseen = rest > 0 ? ` ${rest} not looked at.` : ''
  if (wrong === 0) return `None of ${seen.length} guns is built wrong.${unseen}`
  return `${wrong} of ${seen.length} guns ${wrong === 1 ? 'is' : 'are'} built wrong.${unseen}`
}

/** Walking order goes on from the gun after this one. */
export function nextGun(look: LookAnswer, stationId: string): LookGun | null {
  const at = look.guns.findIndex((g) => g.stationId === stationId)
  return look.guns[at + 1] ?? null
}
