/**
 * A small seeded source of uniform numbers on [0, 1): the 32-bit "sfc" generator by Chris Doty-Humphrey (2010),
 * good for simulation, not for secrets.
 */
export function makeRandom(seed: number): () => number {
  let a = seed >>> 0
  let b = 0x9e3779b9
  let c = 0x243f6a88
  let counter = 1
  const next = () => {
    const t = (((a + b) >>> 0) + counter) >>> 0
    counter = (counter + 1) >>> 0
    a = b ^ (b >>> 9)
    b = (c + (c << 3)) >>> 0
    c = (((c << 21) | (c >>> 11)) + t) >>> 0
    return t / 4294967296
  }
  for (let i = 0; i < 15; i++) next()
  return next
}

/** Weibull draw by inversion: λ(−ln U)^(1/k); scale and shape > 0. */
export function drawWeibull(random: () => number, shape: number, scale: number): number {
  return scale * Math.pow(-Math.log(1 - random()), 1 / shape)
}

/** Standard normal draw (Box & Muller 1958). */
export function drawNormal(random: () => number): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
}

/** Log-normal draw with the given median and sigma of the log. */
export function drawLogNormal(random: () => number, median: number, sigma: number): number {
  return median * Math.exp(sigma * drawNormal(random))
}

/** One entry of a list, each as likely. */
export function pick<T>(random: () => number, list: readonly T[]): T {
  const item = list[Math.floor(random() * list.length)]
  if (item === undefined) throw new RangeError('pick: expected a list with entries, got an empty one')
  return item
}

/** A list in another order, each as likely (Fisher and Yates); the list itself stays as it is. */
export function shuffled<T>(list: readonly T[], random: () => number): T[] {
  const out = [...list]
  for (let i = out.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1))
    ;[out[i], out[j]] = [out[j] as T, out[i] as T]
  }
  return out
}

/** A seed from a text, 32 bit: the same text, from the same beginning, gives the same. */
export const seedOf = (text: string, from = 0): number =>
  [...text].reduce((hash, c) => (Math.imul(hash, 31) + c.charCodeAt(0)) | 0, from) >>> 0
