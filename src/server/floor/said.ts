import { randomBytes } from 'node:crypto'
import { type StationId } from '@core/ids/id.ts'
import { type FloorGun } from '@contract/floor.ts'
import { type Surveyed } from './survey.ts'

/** Browsers that look at a floor at once, through one server, and a little more. */
const MOST_STAMPS = 64

/** What of a line does not come from the place itself. */
export type LineBeside = Pick<FloorGun, 'rank' | 'minutes' | 'isArcOn' | 'downMinutes' | 'wrong' | 'by' | 'downSays'>

/**
 * What was said of a floor, so that a browser which has it is told only what is another.
 * 1. A line is the same object as long as nothing of it is another: a place judged the same, with the same beside it.
 * 2. A stamp stands for the lines of one answer. One that is not known (another server's, an old one) is answered whole.
 */
export class FloorSaid {
  private readonly lines = new Map<string, { surveyed: Surveyed; beside: LineBeside; line: FloorGun }>()
  private readonly stamps = new Map<string, ReadonlyMap<StationId, FloorGun>>()
  private last = 0
  /** No two servers have the same, also where their world's chance is drawn from one seed. */
  private readonly own = randomBytes(5).toString('hex')

  /** The line as it was said before, where it is the same. */
  line(of: { surveyed: Surveyed; column: string | null; beside: LineBeside }, make: () => FloorGun): FloorGun {
    const { surveyed, column, beside } = of
    const key = `${column ?? ''} ${surveyed.station.id}`
    const known = this.lines.get(key)
    if (known?.surveyed === surveyed && isSame(known.beside, beside)) return known.line
    const line = make()
    this.lines.set(key, { surveyed, beside, line })
    return line
  }

  stamp(guns: readonly FloorGun[]): string {
    const stamp = `${this.own}-${++this.last}`
    this.stamps.set(stamp, new Map(guns.map((g) => [g.stationId, g])))
    for (const old of this.stamps.keys()) if (this.stamps.size > MOST_STAMPS) this.stamps.delete(old)
    return stamp
  }

  /** Of these, those that are another since; null: not known, so all of them are to be said. */
  moved(guns: readonly FloorGun[], since: string): FloorGun[] | null {
    const then = this.stamps.get(since)
    // A gun more or less is another floor.
    if (!then || then.size !== guns.length || guns.some((g) => !then.has(g.stationId))) return null
    return guns.filter((g) => then.get(g.stationId) !== g)
  }
}

const isSame = (a: LineBeside, b: LineBeside) =>
  a.rank === b.rank &&
  a.minutes === b.minutes &&
  a.isArcOn === b.isArcOn &&
  a.downSays === b.downSays &&
  JSON.stringify(a.by) === JSON.stringify(b.by) &&
  a.downMinutes === b.downMinutes &&
  (a.wrong === b.wrong || (a.wrong.length === 0 && b.wrong.length === 0))
