import { isCored } from '@core/rightparts/facts.ts'
import { closeSteps } from './close.ts'
import { hasOn, openAt, type GuideAt } from './guideat.ts'
import { look } from './look.ts'
import { isolateStep, OPENERS, openSteps } from './open.ts'
import { step, type Step } from './step.ts'

/**
 * A nest cut out: arm open first, so that nothing holds it; snipped on both sides before anything is drawn, since loops dragged through rolls or liner
 * take the guide along. What is left in the gun goes out at its front, with the tip off. Then why, before new wire is fed.
 */
export function nestSteps(at: GuideAt): Step[] {
  const opened = [OPENERS.armOpen(), cutOut(), ...openSteps(openAt(at), ['tipOff']), drawnOut(at)]
  return [isolateStep(at), ...opened, ...whyLooks(at), ...closeSteps(at, opened, { newKind: null })]
}

const cutOut = (): Step =>
  step('off', 'off', {
    key: 'nestCut',
    do: 'Snip the wire at the spool’s side and hook its end in the flange; then between nest and guide. Lift the nest out.',
    look: 'Nothing is dragged through rolls or guide: bent and flat wire goes before you draw.',
    hazards: ['spring', 'stab'],
    minutes: 1.5,
    works: ['wire'],
    needs: ['armOpen'],
    drawing: 'nestKinds',
  })

const drawnOut = (at: GuideAt): Step =>
  step('off', 'off', {
    key: 'nestDrawn',
    do: 'Cable straight. Draw what is left out of the gun at its front, slowly, and bin it: it is not wound back.',
    look: `Hard all along, or it catches at one place: that is the liner. Fast in the tip: that was it.${at.setup.wire && isCored(at.setup.wire) ? ' Flat behind the rolls: crushed, the pressure was too high.' : ''}`,
    hazards: ['stab'],
    minutes: 1.5,
    works: ['wire'],
    needs: ['tipOff', 'armOpen'],
    makes: ['wireOut'],
    byRule: 'D15',
  })

/** What made it, in the order in which it is seen with the arm open: new wire into the same fault is the next nest. */
function whyLooks(at: GuideAt): Step[] {
  return [
    look(
      'nestSeat',
      {
        do: 'Gun home, its collar flush? Then rolls and guides: brush out chips, look at the gap between roll and guide.',
        look: 'A gun half out, a wide gap or a chewed mouth: put right before wire goes in again.',
      },
      {
        hazards: ['isolate'],
        works: ['rolls'],
        needs: ['armOpen'],
        drawing: hasOn(at, 'outlet') ? 'outletMouth' : 'pinHome',
        minutes: 1,
      },
    ),
    look(
      'nestHub',
      {
        do: 'Turn the spool by hand and let go.',
        look: 'It stops with light drag, its pin in its hole, the turns lie one by one.',
      },
      { hazards: ['spring'], works: ['hub'], needs: ['armOpen'], minutes: 0.3 },
    ),
    look(
      'nestTip',
      {
        do: 'Look through the tip you took off, and at its stamp.',
        look: 'Plugged, oval or of another size: a fresh one goes on.',
      },
      { hazards: ['hot'], works: ['tip'], needs: ['tipOff'], drawing: 'bore', minutes: 0.3 },
    ),
  ]
}
