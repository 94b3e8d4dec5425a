export interface CusumAsked {
  mean: number
  sigma: number
  /** Slack and threshold in sigmas. */
  k: number
  h: number
  headStart?: number
  resetAfterAlarm?: boolean
}
export interface CusumAlarm {
  /** 1-based sample. */
  index: number
  direction: 'up' | 'down'
  /** First sample of the run that led here. */
  changeEstimate: number
}
export interface Cusum {
  up: number[]
  down: number[]
  alarms: CusumAlarm[]
}

/**
 * Tabular CUSUM: w = (x − mean)/σ; up = max(0, up + w − k), down = max(0, down − w − k); alarm where one is strictly above h. Equal
 * alarms: up first. Finds a step of about 2k sigmas soonest. Page 1954; Montgomery.
 */
export function cusum(x: readonly number[], of: CusumAsked): Cusum {
  const { mean, sigma, k, h, headStart = 0, resetAfterAlarm = false } = of
  if (!(sigma > 0) || !(h > 0) || !(k >= 0))
    throw new RangeError(`cusum: expected sigma, h > 0 and k >= 0, got ${sigma}, ${h}, ${k}`)
  const made: Cusum = { up: [], down: [], alarms: [] }
  let [up, down, runUp, runDown] = [headStart, headStart, 0, 0]
  x.forEach((value, i) => {
    const w = (value - mean) / sigma
    up = Math.max(0, up + w - k)
    down = Math.max(0, down - w - k)
    runUp = up > 0 ? runUp + 1 : 0
    runDown = down > 0 ? runDown + 1 : 0
    made.up.push(up)
    made.down.push(down)
    const before = made.alarms.length
    if (up > h) made.alarms.push({ index: i + 1, direction: 'up', changeEstimate: i + 2 - runUp })
    if (down > h) made.alarms.push({ index: i + 1, direction: 'down', changeEstimate: i + 2 - runDown })
    if (resetAfterAlarm && made.alarms.length > before) [up, down, runUp, runDown] = [headStart, headStart, 0, 0]
  })
  return made
}
