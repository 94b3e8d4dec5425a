import { Button } from 'react-bootstrap'
import { Link } from 'react-router'
import { GUIDE_KEYS, type GuideKey } from '@core/guide/keys.ts'
import { kindOfPosition, type Position } from '@core/path/columns.ts'
import { READINGS } from '@core/reading/keys.ts'
import { READING } from '@core/reading/specs.ts'
import { type GunAnswer, type GunPosition } from '@contract/gun.ts'
import { type Units } from '@web/format/numbers.ts'
import { capital, liesWord, partName } from '@web/format/words.ts'
import { type Choice } from '@web/log/logkeys.ts'
import { type LogKeysDriver } from '@web/log/useLogKeys.ts'
import { PartRules } from '@web/houserule/PartRules.tsx'
import { positionKey } from '@core/photo/photo.ts'
import { Photos } from '@web/photo/Photos.tsx'
import { lifeLines } from './verdict.ts'

/** One column opened: what is on, how long, and everything that can be logged there. */
export function PartPanel(props: {
  gun: GunAnswer
  positions: readonly GunPosition[]
  units: Units
  driver: LogKeysDriver
}) {
  const { gun, positions, driver } = props
  return (
    <div className="part-panel">
      {positions.map((p) => (
        <section key={p.position} aria-label={partName(p.position)}>
          <h2>{capital(partName(p.position))}</h2>
          <p>
            {p.partCode ? (
              <>
                {p.partName}{' '}
                <span className="dim">
                  ({p.partCode}
                  {p.onHand === null ? '' : `, ${liesWord(p.lies, p.onHand)}`})
                </span>
              </>
            ) : (
              <span className="dim">which one is on is not known</span>
            )}
          </p>
          {lifeLines(p, gun, props.units).map((line) => (
            <p key={line} className="small-print">
              {line}
            </p>
          ))}
          <div className="part-acts">
            {actsFor(p).map((choice) => (
              <Button key={choice.act} variant="" onClick={() => driver.tell({ type: 'chose', choice })}>
                {WORD[choice.act]}
              </Button>
            ))}
          </div>
          <ReadIt gun={gun} position={p.position} />
          <HowTo gun={gun} position={p.position} />
          <Photos of={{ type: 'position', key: positionKey(gun.stationId, p.position) }} />
          <PartRules gun={gun} position={p.position} />
        </section>
      ))}
    </div>
  )
}

/** What can be read here, each one tap away. */
function ReadIt({ gun, position }: { gun: GunAnswer; position: Position }) {
  const here = READINGS.filter((what) => READING[what].at === position)
  if (here.length === 0) return null
  return (
    <p className="read-here">
      {here.map((what) => (
        <Link key={what} className="btn" to={`/read?gun=${gun.stationId}&what=${what}`}>
          read {READING[what].name}
        </Link>
      ))}
    </p>
  )
}

/** The guide of a part is one tap away where it is looked at. */
function HowTo({ gun, position }: { gun: GunAnswer; position: Position }) {
  const guide = guideFor(position)
  if (!guide) return null
  return (
    <p>
      {guide === 'liner' ? (
        <Link className="btn" to={`/liner?gun=${gun.stationId}`}>
          liner job
        </Link>
      ) : null}{' '}
      <Link className="btn" to={`/guide?gun=${gun.stationId}&do=${guide}`}>
        how it is done
      </Link>
    </p>
  )
}

/** The guide that shows the work on a position. */
export function guideFor(position: Position): GuideKey | null {
  const kind = kindOfPosition(position)
  if (kind === 'hub') return 'wire'
  if (kind === 'inlet' || kind === 'outlet') return 'guides'
  if (kind === 'gas') return 'cylinder'
  if (kind === 'clampring') return 'diffuser'
  return GUIDE_KEYS.find((k) => k === kind) ?? null
}

const WORD: Partial<Record<Choice['act'], string>> = {
  changed: 'changed',
  cleaned: 'cleaned',
  seen: 'looked at: good',
  removed: 'taken out',
  putBack: 'the same put back',
  newSpool: 'new spool',
}

export function actsFor(p: GunPosition): Choice[] {
  const acts: Choice[] = p.position === 'hub' ? [{ act: 'newSpool', position: null }] : []
  acts.push({ act: 'changed', position: p.position })
  if (p.canClean) acts.push({ act: 'cleaned', position: p.position })
  acts.push({ act: 'seen', position: p.position })
  if (p.fittedMs !== null) acts.push({ act: 'removed', position: p.position })
  // Nothing is on: what was taken out may go back. A hub is never out.
  else if (p.position !== 'hub') acts.push({ act: 'putBack', position: p.position })
  return acts
}
