import { mean, variance } from '@core/stats/mean.ts'
import { type Line } from './traction.ts'

/** Slip pulls at one mark: the force at which the wire slid through the closed rolls, three times. */
export interface SlipPulls {
  mark: number
  forcesN: readonly number[]
}
export type Calibration =
  | {
      ok: true
      line: Line
      /** Standard error of the force the line gives at each mark, N; null from single pulls. */
      seN: readonly [number | null, number | null]
    }
  | { ok: false; reason: 'sameMark' | 'notRising' | 'unsteady' }

/** Pulls at one mark that differ by more than this share of their mean were not one and the same pull. */
export const UNSTEADY = 0.35

/**
 * Traction against the knob from slip pulls at two marks: the straight line through the means, N and N per mark; back tension counted as
 * nought, since the wire is slack behind the rolls (else it is subtracted first). Standard errors s/√n. A force that does not rise with
 * the mark tells a knob that turns freely, or marks mixed up.
 * @example calibrateKnob({ mark: 1, forcesN: [43, 45, 44] }, { mark: 4, forcesN: [150, 153, 156] }).line // 7.7 N + 36.3 N a mark
 */
export function calibrateKnob(one: SlipPulls, two: SlipPulls, backTensionN = 0): Calibration {
  const all = [...one.forcesN, ...two.forcesN]
  if (one.forcesN.length === 0 || two.forcesN.length === 0 || all.some((f) => !(f > backTensionN)))
    throw new RangeError(`calibrateKnob: expected pulls above the back tension at both marks, got ${all.join(', ')}`)
  if (one.mark === two.mark) return { ok: false, reason: 'sameMark' }
  if ([one, two].some((p) => Math.max(...p.forcesN) - Math.min(...p.forcesN) > UNSTEADY * mean(p.forcesN)))
    return { ok: false, reason: 'unsteady' }
  const [a, b] = [mean(one.forcesN) - backTensionN, mean(two.forcesN) - backTensionN]
  const perMarkN = (b - a) / (two.mark - one.mark)
  if (!(perMarkN > 0)) return { ok: false, reason: 'notRising' }
  return {
    ok: true,
    line: { atZeroN: a - perMarkN * one.mark, perMarkN },
    seN: [standardError(one), standardError(two)],
  }
}

const standardError = ({ forcesN }: SlipPulls): number | null =>
  forcesN.length < 2 ? null : Math.sqrt(variance(forcesN) / forcesN.length)
