import { conduitWay } from '@core/drag/conduit.ts'
import { pathOf } from '@core/drag/path.ts'
import { withShape, withValues, type DragSetup } from '@core/drag/setup.ts'
import { feedVerdict, tensionWindow, windowRatio, type Verdict } from '@core/drag/window.ts'
import { type CellFit } from '@core/rightparts/facts.ts'

/** The way from where the wire comes to the feeder, as it is or as it is planned. */
export type WayTold = Pick<CellFit, 'payoff' | 'booster' | 'conduit'>
export interface WayPull {
  /** What the rolls have to hold: push to the tip and back tension together, N; null: it cannot feed. */
  neededN: number | null
  /** Of it what the way before the feeder pulls back, N. */
  backN: number | null
  verdict: Verdict
  /** How wide the knob's window is: 2 or more is comfortable; null: it has no low edge. */
  ratio: number | null
}
export interface Compared {
  now: WayPull
  then: WayPull
  /** With the conduit as slippery, and as rough, as its guess goes. */
  best: WayPull
  worst: WayPull
}

const pullOf = (setup: DragSetup): WayPull => {
  const path = pathOf(setup)
  const window = tensionWindow(path)
  const { neededN, backTensionN } = window
  return { neededN, backN: backTensionN, verdict: feedVerdict(path, window), ratio: windowRatio(window) }
}

/** A gun's drag with another way before its feeder: what was told or read of the rest stays. */
function onWay(setup: DragSetup, way: WayTold, of: 'low' | 'typical' | 'high'): DragSetup {
  const shape = {
    ...(way.payoff ? { payoff: way.payoff } : {}),
    hasBooster: way.booster === 'air' || way.booster === 'electric',
  }
  const made = conduitWay(way.conduit ?? [])
  const shaped = withShape(setup, shape)
  return made
    ? withValues(shaped, {
        ...{ conduitMm: made.lengthMm, conduitDeg: made.bendDeg, conduitFriction: made.friction[of] },
      })
    : shaped
}

/** A gun as it feeds now against the same on a planned way, by `core/drag`, with how far the conduit's friction is off. */
export const compareWays = (setup: DragSetup, way: WayTold): Compared => ({
  now: pullOf(setup),
  then: pullOf(onWay(setup, way, 'typical')),
  best: pullOf(onWay(setup, way, 'low')),
  worst: pullOf(onWay(setup, way, 'high')),
})
