import { BOOTH_PLACES, PLACE_WORDS, type BoothPlace } from '@core/practice/places.ts'
import { type Bead } from './boothasked.ts'
import { ROWS_PER_S } from '@core/practice/bead.ts'
import { capital } from '@web/format/words.ts'

interface SceneProps {
  place: BoothPlace | null
  /** What the last bead left. */
  signs: readonly string[]
  /** Of the knob; null until the booth is set up. */
  mark: number | null
  /** Places at which something was looked at, and at which something was found. */
  looked: ReadonlySet<BoothPlace>
  found: ReadonlySet<BoothPlace>
  /** What the pull of the trigger shows now; null while nothing is pulled. */
  now: { bead: Bead; atS: number } | null
  onPlace: (place: BoothPlace) => void
}
/** Where each place is drawn, and what can be tapped there. */
const BOXES: Readonly<Record<BoothPlace, readonly [x: number, y: number, width: number, height: number]>> = {
  gas: [12, 70, 92, 280],
  machine: [118, 226, 244, 136],
  spool: [118, 40, 150, 176],
  rolls: [272, 40, 150, 176],
  pin: [426, 96, 62, 120],
  cable: [492, 60, 196, 156],
  front: [694, 20, 294, 210],
  work: [380, 240, 608, 132],
}

/** The booth as one stands before it: everything that can be looked at is where it is. */
export function Scene({ place, signs, mark, looked, found, now, onPlace }: SceneProps) {
  const row = now ? Math.min(now.bead.trace.volts.length - 1, Math.floor(now.atS * ROWS_PER_S)) : 0
  const at = now
    ? {
        turned: travelled(now.bead.trace.rollsMmS, row),
        fed: travelled(now.bead.trace.tipMmS, row),
        arcMm: now.bead.trace.arcMm[row] ?? 0,
      }
    : { turned: 0, fed: 0, arcMm: 0 }
  return (
    <svg className="booth-scene" viewBox="0 0 1000 380" role="group" aria-label="The booth: where will you look?">
      <Feeder at={at} mark={mark} />
      <Front arcMm={at.arcMm} isBurned={!now && signs.includes('burnback')} />
      {!now && signs.includes('nest') ? <Nest /> : null}
      <Around />
      {BOOTH_PLACES.map((p) => {
        const [x, y, width, height] = BOXES[p]
        return (
          <g key={p} className={`booth-place${p === place ? ' is-here' : ''}`}>
            <rect
              {...{ x, y, width, height, tabIndex: 0, role: 'button' }}
              aria-pressed={p === place}
              aria-label={`${capital(PLACE_WORDS[p])}${found.has(p) ? ', something was found' : looked.has(p) ? ', looked at' : ''}`}
              onClick={() => onPlace(p)}
              onKeyDown={(e) => (e.key === 'Enter' || e.key === ' ' ? onPlace(p) : undefined)}
            />
            {looked.has(p) ? (
              <g className={`booth-mark${found.has(p) ? ' is-found' : ''}`}>
                <circle cx={x + width - 18} cy={y + 18} r="14" />
                <text x={x + width - 18} y={y + 25} textAnchor="middle">
                  {found.has(p) ? '!' : '✓'}
                </text>
              </g>
            ) : null}
          </g>
        )
      })}
    </svg>
  )
}
/** Metal that went by till a row, mm. */
const travelled = (mmS: Float32Array, row: number) => mmS.slice(0, row + 1).reduce((a, b) => a + b, 0) / ROWS_PER_S

const SPOOL = { x: 192, y: 130, r: 62 }
const ROLLS = [316, 366] as const
const WIRE_Y = 150
function Feeder({ at, mark }: { at: { turned: number; fed: number }; mark: number | null }) {
  const spin = (r: number) => ({ transform: `rotate(${((at.fed / r) * 180) / Math.PI}deg)` })
  const roll = (sign: number) => ({ transform: `rotate(${(sign * ((at.turned / 16) * 180)) / Math.PI}deg)` })
  return (
    <g className="scene-feeder">
      <path className="ink-line" d="M114 52H426V216H114Z" />
      <g style={{ transformOrigin: `${SPOOL.x}px ${SPOOL.y}px`, ...spin(-SPOOL.r) }}>
        <circle className="ink-body" cx={SPOOL.x} cy={SPOOL.y} r={SPOOL.r} />
        {[34, 42, 50].map((r) => (
          <circle key={r} className="scene-turns" cx={SPOOL.x} cy={SPOOL.y} r={r} />
        ))}
        {[0, 60, 120].map((a) => (
          <path
            key={a}
            className="ink-line"
            d={`M${SPOOL.x - 26} ${SPOOL.y}h52`}
            transform={`rotate(${a} ${SPOOL.x} ${SPOOL.y})`}
          />
        ))}
      </g>
      <circle className="ink-cut" cx={SPOOL.x} cy={SPOOL.y} r="13" />
      <path className="ink-wire" d={`M${SPOOL.x} ${SPOOL.y - 50}C 240 78, 262 ${WIRE_Y}, 286 ${WIRE_Y}H430`} />
      <path className="ink-body" d="M276 143h22v14h-22ZM394 143h34v14h-34Z" />
      {ROLLS.flatMap((x) =>
        [-1, 1].map((side) => (
          <g key={`${x} ${side}`} style={{ transformOrigin: `${x}px ${WIRE_Y + side * 18}px`, ...roll(side) }}>
            <circle className="ink-body" cx={x} cy={WIRE_Y + side * 18} r="16" />
            <path className="ink-line" d={`M${x - 13} ${WIRE_Y + side * 18}h26`} />
          </g>
        )),
      )}
      <path className="ink-line" d="M296 112H394V92H340" />
      <path className="ink-cut" d="M328 66h24v28h-24Z" />
      <path className="ink-line" d="M334 74h12M334 81h12M334 88h12" />
      {mark === null ? null : (
        <text className="scene-mark" x="360" y="86">
          {mark.toFixed(1)}
        </text>
      )}
    </g>
  )
}

const TIP_END_Y = 192
const PLATE_Y = 246
const MM = 4.5
/** The front larger than it is, cut open: diffuser, insulator, tip in its nozzle. */
function Front({ arcMm, isBurned }: { arcMm: number; isBurned: boolean }) {
  const arc = Math.min(10, arcMm) * MM
  const endY = isBurned ? TIP_END_Y + 4 : Math.max(TIP_END_Y, PLATE_Y - arc)
  return (
    <g className="scene-front">
      <path className="scene-cable" d="M430 150H486C 560 150, 540 90, 600 88S 650 92, 700 72" />
      <path className="ink-body" d="M436 138h44v24h-44Z" />
      <path className="ink-cut" d="M698 58h86v28h-86Z" />
      <path className="ink-line" d="M720 86v14h18" />
      <path className="scene-neck" d="M782 72C 834 72, 848 76, 850 98" />
      <path className="ink-body" d="M820 96h60v26h-60Z" />
      <path className="ink-cut" d="M814 114h72v14h-72Z" />
      <path className="ink-line scene-nozzle" d="M810 126V200M890 126V200" />
      <path className="ink-cut" d={`M840 122h20v${TIP_END_Y - 122}h-20Z`} />
      <path className="ink-wire" d={`M850 ${TIP_END_Y - 6}V${endY}`} />
      {isBurned ? <circle className="scene-ball" cx="850" cy={TIP_END_Y + 4} r="9" /> : null}
      {arcMm > 0 ? (
        <path className="scene-arc" d={`M850 ${endY}L${838 - arc / 4} ${PLATE_Y}H${862 + arc / 4}Z`} />
      ) : null}
    </g>
  )
}

/** Wire that folded between rolls and guide. */
const Nest = () => (
  <path className="scene-nest" d="M382 150c6 -22 14 -20 12 -4s-16 26 -18 8 22 -34 24 -10 -26 30 -22 10 30 -20 16 6" />
)

function Around() {
  return (
    <g>
      <path className="ink-body" d="M32 122C 32 104, 44 100, 48 92H68C 72 100, 84 104, 84 122V344H32Z" />
      <path className="ink-cut" d="M50 74h16v18h-16Z" />
      <circle className="ink-line" cx="84" cy="82" r="11" />
      <path className="ink-line" d="M66 82h8" />
      <path className="scene-hose" d="M84 96C 110 120, 92 200, 114 206" />
      <path className="ink-body" d="M124 234H356V356H124Z" />
      <path className="ink-hole" d="M140 248h90v34h-90ZM250 248h90v34h-90Z" />
      <circle className="ink-cut" cx="180" cy="318" r="16" />
      <circle className="ink-cut" cx="296" cy="318" r="16" />
      <path className="ink-body" d="M640 246H980V268H640Z" />
      <path className="scene-cable" d="M356 336C 440 372, 540 320, 622 288" />
      <path className="ink-cut" d="M610 262h46v18h-46ZM618 280h16v20h-16Z" />
    </g>
  )
}
