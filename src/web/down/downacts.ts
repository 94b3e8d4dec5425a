import { type Cause } from '@core/diagnose/knowledge.ts'
import { type OutReason } from '@core/path/columns.ts'
import { type Act } from '@contract/logbook.ts'

/** Why the part came out, by what it turned out to be; what was only tried stays "to try". */
const OUT: Record<string, OutReason> = {
  tipWorn: 'worn',
  linerWorn: 'worn',
  rollWorn: 'worn',
  guideWorn: 'worn',
  orings: 'worn',
  insulatorCollar: 'worn',
  tipPlugged: 'burnedBack',
  linerDirty: 'blocked',
  linerKinked: 'kinked',
  linerFitting: 'kinked',
  linerOverlong: 'kinked',
  tipCrossed: 'stripped',
  diffuserBurned: 'poorContact',
  nozzleSlack: 'worn',
  neckWorn: 'worn',
}
export const outReasonOf = (cause: string): OutReason => OUT[cause] ?? 'notSaid'

/** What a fix logs; none: it changes nothing on the path. */
export function actOf(cause: Pick<Cause, 'key' | 'fix'>, stationId: string, isTry: boolean): Act[] {
  const { act, position } = cause.fix
  if (!act || !position) return []
  if (act === 'cleaned') return [{ stationId, act, position }]
  return [{ stationId, act, position, outReason: isTry ? 'toTry' : outReasonOf(cause.key) }]
}
/** It was done and the trouble stayed: a cleaning would end the stop, which goes on. */
export function stillActs(cause: Pick<Cause, 'key' | 'fix'>, stationId: string, isDown: boolean): Act[] {
  const acts = actOf(cause, stationId, true)
  return isDown && cause.fix.act === 'cleaned' ? [...acts, { stationId, act: 'down' }] : acts
}
