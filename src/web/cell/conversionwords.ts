import { type Compared, type WayPull } from '@core/cell/conversion.ts'
import { type CellLine } from '@contract/cell.ts'
import { force, twoFigures, type Units } from '@web/format/numbers.ts'

const HOLDS: Record<WayPull['verdict'], string> = {
  'feeds with margin': 'feeds with something in hand',
  'feeds without margin': 'feeds with nothing in hand',
  'cannot feed': 'does not feed',
}

/** What the planned way asks of the rolls, against the way as it is, with how far the guess of its lining goes. */
export function planSentence({ now, then, best, worst }: Compared, units: Units): string {
  const pull = (w: WayPull) => (w.neededN === null ? null : force(w.neededN, units))
  const [has, will, low, high] = [now, then, best, worst].map(pull)
  if (!will)
    return `On that way it does not feed at all${has ? ` (now the rolls work against ${has})` : ''}: fewer bends, rollers in them, or a booster.`
  const span = low && high && low !== high ? ` (${low} to ${high}, by how slippery its lining is)` : ''
  const rough =
    then.verdict !== worst.verdict
      ? ` With a rough lining it ${HOLDS[worst.verdict]}: pull through it before you trust it.`
      : ''
  const help = then.verdict === 'feeds with margin' ? '' : ' Fewer bends, rollers in them, or a booster.'
  return `Now the rolls work against ${has ?? 'more than they can'}; on that way against ${will}${span}: it ${HOLDS[then.verdict]}.${rough}${help}`
}

/** What was measured before its wire came from a drum, and since. */
export function turnedSentences({ turned }: Pick<CellLine, 'turned'>, units: Units): string[] {
  if (!turned) return []
  const { ampsBefore, ampsAfter, pullBeforeN, pullAfterN } = turned
  const change = (before: number, after: number) => {
    const share = Math.round((after / before - 1) * 100)
    return Math.abs(share) < 5 ? 'about as before' : `${Math.abs(share)} % ${share < 0 ? 'less' : 'more'}`
  }
  return [
    ...(ampsBefore !== null && ampsAfter !== null
      ? [
          `The feed motor draws ${twoFigures(ampsAfter)} A where it drew ${twoFigures(ampsBefore)} A: ${change(ampsBefore, ampsAfter)}.`,
        ]
      : ['What the feed motor draws now against before is told once the feeder has sent some hours of both.']),
    ...(pullBeforeN !== null && pullAfterN !== null
      ? [
          `All lengths together pull ${force(pullAfterN, units)} where they pulled ${force(pullBeforeN, units)}: ${change(pullBeforeN, pullAfterN)}.`,
        ]
      : pullBeforeN === null
        ? ['Nobody pulled through the old way: there is nothing to hold the new one against.']
        : ['Pull through each length of the new way: tap it on the picture.']),
  ]
}
