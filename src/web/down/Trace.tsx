import { useQuery } from '@tanstack/react-query'
import { traceAnswer, type TraceAnswer } from '@contract/cell.ts'
import { getJson } from '@web/api/client.ts'
import { CurveChart } from '@web/chart/CurveChart.tsx'
import { type Point, type Series } from '@web/chart/axes.ts'
import { twoFigures, wireSpeed, type Units } from '@web/format/numbers.ts'

const useTrace = (stationId: string, isDown: boolean) =>
  useQuery({
    queryKey: ['trace', stationId],
    queryFn: () => getJson(`/cells/trace?stationId=${stationId}`, traceAnswer),
    enabled: isDown,
  })

type Trace = TraceAnswer['points']
const column = (points: Trace, of: (p: Trace[number]) => number | null): Point[] =>
  points.flatMap((p) => {
    const y = of(p)
    return y === null ? [] : [{ x: p.s, y }]
  })

/** What the minute shows, in a sentence: rolls against wire first. */
export function traceSays(points: Trace, units: Units): string {
  const last = points.at(-1)
  if (!last) return ''
  const roll = last.rollMPerMin
  const isSlipping = roll !== null && roll > 0.5 && last.wireMPerMin < roll / 2
  if (isSlipping)
    return `In the end the rolls turned at ${wireSpeed(roll, units)} and ${last.wireMPerMin < 0.1 ? 'no wire came' : `only ${wireSpeed(last.wireMPerMin, units)} of wire came`}.`
  return `Wire came at ${wireSpeed(last.wireMPerMin, units)} to the end.`
}

/** The minute before it stopped, as the feeder itself sent it: wire and rolls, and under it what the motor drew. */
export function TracePicture({ stationId, isDown, units }: { stationId: string; isDown: boolean; units: Units }) {
  const trace = useTrace(stationId, isDown)
  const points = trace.data?.points ?? []
  if (!isDown || points.length < 2) return null
  const x = {
    min: points[0]?.s ?? -60,
    max: points.at(-1)?.s ?? 0,
    ticks: [-60, -40, -20, 0].map((s) => ({ value: s, says: s === 0 ? 'it stopped' : `${s} s` })),
  }
  const rolls = column(points, (p) => p.rollMPerMin)
  const motor = column(points, (p) => p.motorAmps)
  const speeds: Series[] = [
    ...(rolls.length > 1 ? [{ look: 'log' as const, label: 'rolls', points: rolls }] : []),
    { look: 'fit', label: 'wire', points: column(points, (p) => p.wireMPerMin) },
  ]
  return (
    <figure className="trace" aria-label="The minute before it stopped">
      <figcaption>{traceSays(points, units)}</figcaption>
      <CurveChart
        className="trace-chart"
        says={`Wire speed in the last minute: ${points.map((p) => twoFigures(p.wireMPerMin)).join(', ')}`}
        series={speeds}
        x={x}
        y={{ min: 0, title: 'm/min', ticks: ticksOf([...rolls, ...column(points, (p) => p.wireMPerMin)]) }}
        hasLegend
      />
      {motor.length > 1 ? (
        <CurveChart
          className="trace-chart"
          says={`Motor current in the last minute: ${motor.map((p) => twoFigures(p.y)).join(', ')}`}
          series={[{ look: 'fit', label: 'feed motor, A', points: motor }]}
          x={x}
          y={{ min: 0, title: 'A', ticks: ticksOf(motor) }}
          hasLegend
        />
      ) : null}
    </figure>
  )
}

/** Nought and the highest there was. */
function ticksOf(points: readonly Point[]): { value: number; says: string }[] {
  const top = Math.max(...points.map((p) => p.y))
  return [0, top].map((value) => ({ value, says: twoFigures(value) }))
}
