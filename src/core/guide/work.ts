import { fitOf, partWords, type GuideAt } from './guideat.ts'
import { type GuideRules } from './rules.ts'
import { guideWork, rollWork } from './feederwork.ts'
import { type GuideKey } from './keys.ts'
import { look } from './look.ts'
import { type Step } from './step.ts'

/** What becomes of the tip that is off (D18), and of a thread that is damaged (D19). */
const OLD_TIP: Record<GuideRules['oldTip'], string> = {
  byBore: 'Oval or widened: it goes. Only spatter on its face: clean it, and it may stay.',
  change: 'It goes, whatever it looks like; what it looks like tells why: oval is wear, a ball in it is a burnback.',
  clean:
    'Spatter scraped or filed off its face, the bore cleared: it goes back on. Oval it burns back sooner: look again at the next break.',
}
const BAD_THREAD: Record<GuideRules['thread'], string> = {
  once: 'Damaged: clean it and try by hand once. If a tip does not run freely then, both go.',
  scrap: 'Damaged: both go, tip and diffuser. It never seats again.',
  file: 'Damaged: file it clean, then try by hand. A tip that stands askew in it shorts later.',
}
/** What is done while it is open, before it is closed again. */
export const WORK: Partial<Record<GuideKey, (at: GuideAt) => Step[]>> = {
  tip: (at) => [
    look(
      'oldTip',
      {
        do: 'Hold the old tip end-on beside a fresh one.',
        look: OLD_TIP[at.rules.oldTip],
      },
      { hazards: ['hot'], works: ['tip'], drawing: 'bore', needs: ['tipOff'], byRule: 'D18' },
    ),
    look(
      'seatOfTip',
      {
        do: 'Look into the diffuser’s thread. Brush out crumbs.',
        look: BAD_THREAD[at.rules.thread],
      },
      { hazards: ['hot'], works: ['diffuser'], needs: ['tipOff'], byRule: 'D19' },
    ),
  ],
  nozzle: () => [
    look(
      'cleanNozzle',
      {
        do: 'Twist the plier’s noses inside it, or scrape; tap out the crumbs.',
        look: 'Rim broken, inside rough, or loose where it sits: a new one. Loose with a good nozzle: that is the insulator.',
      },
      { hazards: ['hot'], works: ['nozzle'], needs: ['nozzleOff'], drawing: 'nozzleOpening', minutes: 1 },
    ),
    look(
      'tipFace',
      {
        do: 'While it is off: look at the tip’s face and the diffuser’s holes.',
        look: 'One small ball can drag the wire.',
      },
      { hazards: ['hot'], works: ['tip'], needs: ['nozzleOff'], drawing: 'spatterBall' },
    ),
  ],
  insulator: () => [
    look(
      'oldInsulator',
      {
        do: 'Look at it: cracked, burnt through, or loose on its thread?',
        look: 'Between tip and nozzle nothing may conduct: a meter says so, power off.',
      },
      { hazards: ['hot'], works: ['insulator'], needs: ['insulatorOff'] },
    ),
  ],
  diffuser: (at) => [
    look(
      'diffuserHoles',
      {
        do: 'Brush or wheel the build-up off its gas holes, outside and in.',
        look: 'Every hole open. Thread torn, or the shape eaten: a new one.',
      },
      { hazards: ['hot'], works: ['diffuser'], needs: ['diffuserOff'], drawing: 'holes', minutes: 1.5 },
    ),
    look(
      'linerEndSeen',
      { do: 'Look at the liner’s end in the neck.', look: linerEndLook(at) },
      { hazards: ['stab'], works: ['diffuser'], needs: ['diffuserOff'], drawing: 'linerEnd' },
    ),
  ],
  rolls: rollWork,
  guides: guideWork,
  orings: (at) => [
    look(
      'oringsNew',
      {
        do: `${partWords(at, 'orings', 'New O-rings')}: the old ones off with a blunt pick, the new ones rolled on, not scratched on.`,
        look: 'Whole, soft, none twisted. A trace of the maker’s own grease, where it names one.',
      },
      {
        hazards: ['stab'],
        works: ['orings'],
        needs: ['gunOut'],
        drawing: 'oring',
        minutes: at.minutesOf('orings'),
        swap: 'orings',
        settles: 'orings',
      },
    ),
  ],
  gun: () => [
    look(
      'ready',
      {
        do: 'Check the ready gun: its liner and tip are for this wire, O-rings on its pin, plug whole.',
        look: 'Tag the other one: what is wrong with it, and since when.',
      },
      { hazards: ['stab'], works: ['pin', 'orings'], needs: ['gunOut'], drawing: 'oring' },
    ),
  ],
}

function linerEndLook(at: GuideAt): string {
  const fit = fitOf(at)
  if (fit?.linerRule === 'A' && fit.seatDepthMm !== null)
    return `${at.ruleWord(fit.seatDepthMm)} stand out of the neck, square, no burr.`
  if (fit?.linerRule === 'B') return 'Level with the tip holder, square, no burr.'
  return 'Square, no burr, neither short nor squeezed.'
}
