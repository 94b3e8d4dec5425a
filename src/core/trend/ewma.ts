export interface EwmaAsked {
  mean: number
  sigma: number
  lambda: number
  /** Width of the limits in sigmas. */
  L: number
  timeVaryingLimits: boolean
}
export interface Ewma {
  z: number[]
  upper: number[]
  lower: number[]
  /** 1-based. */
  alarms: { index: number; direction: 'up' | 'down' }[]
}

/**
 * Exponentially weighted mean: z₀ = mean, z_i = λx_i + (1 − λ)z_{i−1}; limits mean ± Lσ√[λ/(2 − λ)·(1 − (1 − λ)^{2i})], the last factor
 * left out where limits do not vary; alarm strictly outside. λ = 1 is a plain chart. Roberts 1959.
 */
export function ewma(x: readonly number[], of: EwmaAsked): Ewma {
  const { mean, sigma, lambda, L, timeVaryingLimits } = of
  if (!(sigma > 0) || !(lambda > 0 && lambda <= 1) || !(L > 0))
    throw new RangeError(`ewma: expected sigma, L > 0 and 0 < lambda <= 1, got ${sigma}, ${L}, ${lambda}`)
  const made: Ewma = { z: [], upper: [], lower: [], alarms: [] }
  let z = mean
  x.forEach((value, i) => {
    z = lambda * value + (1 - lambda) * z
    const grown = timeVaryingLimits ? 1 - (1 - lambda) ** (2 * (i + 1)) : 1
    const half = L * sigma * Math.sqrt((lambda / (2 - lambda)) * grown)
    made.z.push(z)
    made.upper.push(mean + half)
    made.lower.push(mean - half)
    if (z > mean + half) made.alarms.push({ index: i + 1, direction: 'up' })
    if (z < mean - half) made.alarms.push({ index: i + 1, direction: 'down' })
  })
  return made
}
