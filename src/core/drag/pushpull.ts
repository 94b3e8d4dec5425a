import { inletSegments, outletSegments, pathOf } from './path.ts'
import { type DragSetup } from './setup.ts'
import { tensionWindow, type FeedPath, type TensionWindow } from './window.ts'

/** A second drive on the gun, ahead of the neck. */
export interface PullDrive {
  pairs: FeedPath['pairs']
  rollFriction: number
  gap: FeedPath['gap']
  scale: readonly [from: number, to: number]
}

/**
 * Push–pull: two drives on one wire, each with its window. The gun's drive pushes through the neck and the tip and takes the wire as the
 * feeder brings it, so it pulls against nothing; the feeder's pushes through the cable and ends at the gun's rolls, with nothing ahead of
 * them. That is the working state; where the gun's drive slips or stands, the feeder pushes against all of it and its own window without
 * the gun's drive counts (`alone`).
 */
export function pushPullWindows(
  setup: DragSetup,
  drive: PullDrive,
): { feeder: TensionWindow; gun: TensionWindow; alone: TensionWindow } {
  const path = pathOf(setup)
  const [neck, ...cable] = outletSegments(setup)
  const noTip = { ...path.tip, friction: 0, depositN: 0 }
  return {
    alone: tensionWindow(path),
    feeder: tensionWindow({ ...path, outletSegments: cable, tip: noTip, inletSegments: inletSegments(setup) }),
    gun: tensionWindow({
      ...path,
      payoff: { kind: 'drum', pullN: 0, boosterPushN: 0 },
      inletSegments: [],
      outletSegments: neck ? [neck] : [],
      gap: drive.gap,
      pairs: drive.pairs,
      rollFriction: drive.rollFriction,
      scaleMin: drive.scale[0],
      scaleMax: drive.scale[1],
      measuredTraction: null,
    }),
  }
}
