import { readFor } from '@core/rightparts/rollrules.ts'
import { type DrawingKey } from '@core/drawings/drawing.ts'
import { hasOn, partWords, type GuideAt } from './guideat.ts'
import { look } from './look.ts'
import { type Step } from './step.ts'

/** Which number has to face out on these rolls: the wire's own, or the one in front of the groove that runs behind it. */
function faceWords(at: GuideAt): string {
  const { feeder, wire } = at.setup
  const roll = at.putOf('rolls') ?? at.setup.parts['rolls']
  if (!wire) return ''
  const readMm = roll ? readFor(roll, wire, feeder?.runsFace ?? 'read') : null
  if (readMm !== null) return ` Number ${at.sizeWord(readMm)} facing you.`
  return feeder?.runsFace === 'behind'
    ? ` The ${at.sizeWord(wire.diameterMm)} groove towards the plate: here the hidden one runs.`
    : ` Number ${at.sizeWord(wire.diameterMm)} facing you.`
}

export function rollWork(at: GuideAt): Step[] {
  const { feeder } = at.setup
  const count = feeder?.rollCount ?? 4
  return [
    look(
      'rollsOff',
      {
        do: `Lift the wire aside. ${count === 2 ? 'Both' : `All ${count}`} rolls off: hold the gear, twist the retainer, slide off.`,
        look: 'The lower driven ones need no holding. Brush the copper out of posts and gears.',
      },
      { hazards: ['isolate'], works: ['rolls'], needs: ['armOpen'], minutes: 2 },
    ),
    look(
      'rollsOn',
      {
        do: `${partWords(at, 'rolls', 'Rolls')} on, ${count === 2 ? 'both' : `all ${count}`} of them.${faceWords(at)}`,
        look: 'The size is read on every one: one left behind is a trap.',
      },
      {
        hazards: ['isolate'],
        works: ['rolls'],
        needs: ['armOpen'],
        drawing: feeder?.runsFace === 'behind' ? null : 'rollFace',
        minutes: Math.max(1, at.minutesOf('rolls') - 2),
        swap: 'rolls',
      },
    ),
    look(
      'outletLook',
      {
        do: 'Look at the outlet guide’s mouth while the arm is open.',
        look: 'Rolls chew it: chewed, it goes with them, with the wire out. Close to the rolls, and not in them.',
      },
      { hazards: ['isolate'], works: ['outlet'], needs: ['armOpen'], drawing: 'outletMouth', settles: 'outlet' },
    ),
  ]
}

export function guideWork(at: GuideAt): Step[] {
  const one = (kindKey: 'inlet' | 'outlet', words: { do: string; look: string }, drawing: DrawingKey | null): Step[] =>
    hasOn(at, kindKey)
      ? [
          look(`new-${kindKey}`, words, {
            hazards: ['isolate'],
            works: [kindKey],
            needs: ['wireOut'],
            drawing,
            minutes: at.minutesOf(kindKey),
            swap: kindKey,
          }),
        ]
      : []
  return [
    ...one(
      'inlet',
      {
        do: `${partWords(at, 'inlet', 'Inlet guide')} in. It fits one way only.`,
        look: 'In line with the groove; no edge that shaves the wire.',
      },
      null,
    ),
    ...one(
      'outlet',
      {
        do: `${partWords(at, 'outlet', 'Outlet guide')} in, as close to the rolls as it goes without touching.`,
        look: 'Far off, the wire nests in the gap; in the rolls, it is chewed.',
      },
      'outletMouth',
    ),
  ]
}
