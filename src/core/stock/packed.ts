/** One part of a kit: how many, and for which guns. */
export interface PackedLine {
  partId: string
  quantity: number
  guns: readonly string[]
}

/**
 * How many of a packed line still lie in the kit: what went on the guns it was packed for, since it was packed, is out of it.
 * @param putOnMs when the part that is on a gun now, if it is this one, went on; null: another is on, or nobody knows
 */
export function stillPacked<L extends PackedLine>(line: L, madeMs: number, putOnMs: (gun: string) => number | null): L {
  const guns = line.guns.filter((gun) => (putOnMs(gun) ?? -Infinity) < madeMs)
  return { ...line, guns, quantity: Math.max(0, line.quantity - (line.guns.length - guns.length)) }
}

/** What is still to be packed of a wanted line: guns that a kit is packed for are served. */
export function stillWanted<L extends PackedLine>(wanted: L, packed: readonly PackedLine[]): L | null {
  const served = new Set(packed.filter((p) => p.partId === wanted.partId).flatMap((p) => p.guns))
  const guns = wanted.guns.filter((gun) => !served.has(gun))
  const quantity = wanted.quantity - (wanted.guns.length - guns.length)
  return quantity > 0 ? { ...wanted, guns, quantity } : null
}
