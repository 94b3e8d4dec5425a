import { MOST_TILT_DEG, type BoreMeasured } from '@core/photomeasure/bore.ts'
import { type Ellipse } from '@core/photomeasure/ellipse.ts'
import { type NozzleMeasured } from '@core/photomeasure/nozzle.ts'
import { type SpanMeasured } from '@core/photomeasure/span.ts'
import { CROOKED, OPEN_LOOK, OVAL_LIMIT } from '@core/reading/target.ts'
import { type Answer } from './asked.ts'

type Refusal = Exclude<Answer['of'], { ok: true }>['reason']
/** Why a picture tells nothing, and what to do about it. */
export const REFUSED: Record<Refusal, string> = {
  noBore: 'No round dark bore is found there. Tap its middle, or draw the inner ring on its rim.',
  noRim: 'The outer rim of the face is not seen whole. Take it with all of the face in it, on a darker ground.',
  noTip: 'No round bright tip is found there. Tap its middle, or draw the inner ring on its edge.',
  noNozzle:
    'The nozzle’s wall is not seen. Spatter all round hides it: then it wants cleaning, say so by eye. Else take it with all of the rim in it, or draw the outer ring on the wall.',
  blurred: 'It is blurred: the rim is guesswork. Hold still, let it focus, come closer.',
  tilted: `It is taken too much from the side (over ${MOST_TILT_DEG}°). Look straight into it.`,
  noKnown:
    'No clear edge is found at the ends of the first line. Put them nearer, or let the lines stay where they are put.',
  noSpan:
    'No clear edge is found at the ends of the second line. Put them nearer, or let the lines stay where they are put.',
  tooSmall: 'It is too small in the picture: a dozen pixels tell nothing. Come closer.',
}

/** "1.29 by 1.12 mm, each to 0.02; 15 % oval, give or take 2." */
export function boreSentence(m: BoreMeasured): string {
  const mm = (n: number) => n.toFixed(2)
  const percent = (share: number) => Math.round(share * 100)
  return `${mm(m.maxMm)} by ${mm(m.minMm)} mm, each to ${mm(Math.max(0.01, 1.96 * m.sdMm))}; ${percent(m.oval)} % oval, give or take ${Math.max(1, percent(1.96 * m.ovalSd))}.`
}
/** "62 % open, give or take 4. The tip stands in the middle." */
export function nozzleSentence(m: NozzleMeasured): string {
  const off =
    m.offCentre < CROOKED ? 'The tip stands in the middle' : 'The tip stands off the middle: look how it screws in'
  return `${Math.round(m.open * 100)} % open, give or take ${Math.max(1, Math.round(196 * m.openSd))}. ${off}.`
}

/** The limit lies within what it may be off: a person would look again. */
export const isClose = (value: number, sd: number, limit: number) => Math.abs(value - limit) < 1.96 * sd
const CLOSE = ' That is too near the limit to tell: measure another way.'

/** "6.2 mm, give or take 0.3." */
export function spanSentence(m: SpanMeasured, say: (length: number) => string): string {
  return `${say(m.length)}, give or take ${say(Math.max(0.05, 1.96 * m.sd))}.`
}

export function answerSentence(answer: Answer, say: (length: number) => string = (n) => `${n.toFixed(1)} mm`): string {
  if (answer.is === 'span') return answer.of.ok ? spanSentence(answer.of, say) : REFUSED[answer.of.reason]
  if (answer.is === 'bore') {
    const m = answer.of
    return m.ok ? `${boreSentence(m)}${isClose(m.oval, m.ovalSd, OVAL_LIMIT) ? CLOSE : ''}` : REFUSED[m.reason]
  }
  const m = answer.of
  return m.ok ? `${nozzleSentence(m)}${isClose(m.open, m.openSd, OPEN_LOOK) ? CLOSE : ''}` : REFUSED[m.reason]
}

/** The two rings of what was found, inner first. */
export function ringsOf(answer: Answer | null): readonly [Ellipse, Ellipse] | null {
  if (!answer) return null
  if (answer.is === 'span') return null
  if (answer.is === 'bore') return answer.of.ok ? [answer.of.bore, answer.of.outer] : null
  return answer.of.ok ? [answer.of.tip, answer.of.inner] : null
}
