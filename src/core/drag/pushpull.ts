import { GUN_DRIVE } from './guess.ts'
import { facesOf, outletSegments, pathOf, tipOf } from './path.ts'
import { withShape, type DragSetup } from './setup.ts'
import { tensionWindow, type FeedPath, type TensionWindow } from './window.ts'

/** A second drive on the gun, ahead of the neck. */
export interface PullDrive {
  pairs: FeedPath['pairs']
  rollFriction: number
  gap: FeedPath['gap']
  scale: readonly [from: number, to: number]
}

/** The gun's drive as it usually is, with rolls that suit the wire: guesses. */
export function usualPullDrive(setup: DragSetup): PullDrive {
  const faces = facesOf({ ...setup, shape: { ...setup.shape, feeder: { ...setup.shape.feeder, drives: 'both' } } })
  return {
    pairs: [{ calibration: GUN_DRIVE.pairForceN, faces }],
    rollFriction: setup.values.rollFriction,
    gap: { ...pathOf(setup).gap, lengthMm: GUN_DRIVE.gapMm },
    scale: GUN_DRIVE.scale,
  }
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
  const alone = pathOf(withShape(setup, { secondDrive: false }))
  const [neck] = outletSegments(setup)
  return {
    alone: tensionWindow(alone),
    feeder: tensionWindow(pathOf(withShape(setup, { secondDrive: true }))),
    gun: tensionWindow({
      ...alone,
      payoff: { kind: 'drum', pullN: 0, boosterPushN: 0 },
      inletSegments: [],
      outletSegments: neck ? [neck] : [],
      tip: tipOf(setup),
      gap: drive.gap,
      pairs: drive.pairs,
      rollFriction: drive.rollFriction,
      scaleMin: drive.scale[0],
      scaleMax: drive.scale[1],
      measuredTraction: null,
    }),
  }
}
