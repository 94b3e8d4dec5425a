import { type ShopAnswer } from '@contract/shop.ts'

export interface DayLine {
  booth: string
  period: string
  wireId: string
}
export type DayRead = { ok: true; lines: DayLine[] } | { ok: false; problems: string[] }

const WORDS = { booth: 'booth', period: 'period', wire: 'wire' }

/**
 * A day as typed or pasted, a line each: booth, period, wire, parted by tab, comma or semicolon; a heading line is passed over.
 * A wire goes by its name, or any part of it that only one has. Lines that cannot be read are named, and nothing is lost.
 */
export function readDay(text: string, shop: Pick<ShopAnswer, 'wires' | 'stations'>): DayRead {
  const problems: string[] = []
  const lines = text.split(/\r?\n/).flatMap((line, i): DayLine[] => {
    if (line.trim() === '') return []
    const cells = line.split(/[\t;,]/).map((c) => c.trim())
    if (i === 0 && cells[0]?.toLowerCase().startsWith(WORDS.booth)) return []
    const [booth = '', period = '', wire = ''] = cells
    if (cells.length < 3 || !booth || !period || !wire) {
      problems.push(`Line ${i + 1}: "${line.trim()}" wants a ${WORDS.booth}, a ${WORDS.period} and a ${WORDS.wire}.`)
      return []
    }
    const place = shop.stations.find((s) => s.name.toLowerCase() === booth.toLowerCase())
    if (!place) problems.push(`Line ${i + 1}: there is no place "${booth}".`)
    const found = wiresNamed(wire, shop)
    if (found.length !== 1)
      problems.push(
        found.length === 0
          ? `Line ${i + 1}: there is no wire "${wire}".`
          : `Line ${i + 1}: "${wire}" may be ${found.map((w) => w.name).join(' or ')}.`,
      )
    const [only] = found
    return place && only && found.length === 1 ? [{ booth: place.name, period, wireId: only.id }] : []
  })
  if (problems.length > 0) return { ok: false, problems }
  return lines.length > 0 ? { ok: true, lines } : { ok: false, problems: ['Write a line for each booth and period.'] }
}

function wiresNamed(text: string, shop: Pick<ShopAnswer, 'wires'>): ShopAnswer['wires'] {
  const wanted = text.toLowerCase()
  const exact = shop.wires.filter((w) => w.name.toLowerCase() === wanted)
  return exact.length > 0 ? exact : shop.wires.filter((w) => w.name.toLowerCase().includes(wanted))
}
