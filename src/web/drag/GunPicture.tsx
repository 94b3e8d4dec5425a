import { useRef, type PointerEvent } from 'react'
import { type AtKnob, type Explained } from '@core/drag/explain.ts'
import { forceProfile } from '@core/drag/profile.ts'
import { type DragSetup, type Param } from '@core/drag/setup.ts'
import { force, type Units } from '@web/format/numbers.ts'
import { ruleLength } from '@web/format/lengths.ts'
import { AT, cablePath, coilRings, coilX, forceGraph, gapOfX, GRAPH, guideX, neckEnd, PICTURE } from './gunshape.ts'

type Grip = 'cable' | 'coils' | 'guide'
const BEND_PER_PX = 2.4
const COIL_PER_PX = 1 / 70
const clamp = (n: number, from: number, to: number) => Math.min(to, Math.max(from, n))
export const MOST_BEND = 720
export const MOST_COILS = 4

/** What a pull on the picture does to the gun as it was when it was taken hold of. */
export function pulled(grip: Grip, setup: DragSetup, by: { dx: number; dy: number }): [Param, number] {
  const { bendDeg, coils, gapMm } = setup.values
  if (grip === 'cable') return ['bendDeg', Math.round(clamp(bendDeg + by.dy * BEND_PER_PX, 0, MOST_BEND) / 5) * 5]
  if (grip === 'coils') return ['coils', Math.round(clamp(coils + by.dx * COIL_PER_PX, 0, MOST_COILS) * 4) / 4]
  return ['gapMm', Math.round(gapOfX(guideX(gapMm) + by.dx) * 2) / 2]
}

/** The gun drawn as it lies, and the force along it underneath: pull the cable down to bend it, along to coil it, the guide off the rolls. */
export function GunPicture(props: {
  setup: DragSetup
  said: Explained
  at: AtKnob
  units: Units
  onValue: (param: Param, value: number) => void
}) {
  const { setup, onValue } = props
  const svg = useRef<SVGSVGElement>(null)
  const held = useRef<{ grip: Grip; x: number; y: number; setup: DragSetup } | null>(null)
  const take = (grip: Grip) => (e: PointerEvent<SVGElement>) => {
    e.currentTarget.setPointerCapture(e.pointerId)
    held.current = { grip, x: e.clientX, y: e.clientY, setup }
  }
  const move = (e: PointerEvent<SVGElement>) => {
    const h = held.current
    if (!h) return
    const scale = PICTURE.width / (svg.current?.getBoundingClientRect().width ?? PICTURE.width)
    onValue(...pulled(h.grip, h.setup, { dx: (e.clientX - h.x) * scale, dy: (e.clientY - h.y) * scale }))
  }
  const free = () => {
    held.current = null
  }
  const grab = (grip: Grip) => ({ onPointerDown: take(grip), onPointerMove: move, onPointerUp: free })
  return (
    <svg
      ref={svg}
      className="drag-picture"
      viewBox={`0 0 ${PICTURE.width} ${PICTURE.height + GRAPH.height}`}
      role="img"
      aria-label={pictureLabel(setup)}
    >
      <Feeder setup={setup} units={props.units} />
      <g {...grab('guide')} className="grab-x">
        <rect x={guideX(setup.values.gapMm) - 4} y={AT.wireY - 30} width={64} height={60} className="grab" />
        <path
          d={`M${guideX(setup.values.gapMm)} ${AT.wireY - 9}H246M${guideX(setup.values.gapMm)} ${AT.wireY + 9}H246`}
          className="drag-part"
        />
      </g>
      <path d={cablePath(setup.values.bendDeg)} className="drag-cable" />
      {coilRings(setup).map((c) => (
        <circle
          key={`${c.x}`}
          cx={c.x}
          cy={c.y}
          r={c.r}
          className="drag-cable"
          pathLength={1}
          strokeDasharray={`${c.share} 1`}
          transform={`rotate(-90 ${c.x} ${c.y})`}
        />
      ))}
      <path d={cablePath(setup.values.bendDeg)} className="drag-wire" />
      <g {...grab('cable')} className="grab-y">
        <path d={cablePath(setup.values.bendDeg)} className="grab-line" />
      </g>
      <g {...grab('coils')} className="grab-x">
        <rect x={coilX(setup) - 60} y={AT.wireY - 36} width={120} height={110} className="grab" />
      </g>
      {setup.values.kinkDeg > 0 ? (
        <path d={`M580 ${AT.wireY - 16}l10 16l10 -16`} className="drag-part" aria-label="kink" />
      ) : null}
      <Front setup={setup} />
      <Forces {...props} />
    </svg>
  )
}

const pictureLabel = ({ values: v }: DragSetup) =>
  `The gun: cable with ${Math.round(v.bendDeg)} degrees of bends and ${v.coils} coils, guide ${v.gapMm} mm from the rolls`

function Feeder({ setup: { values: v, shape }, units }: { setup: DragSetup; units: Units }) {
  const r = shape.payoff === 'drum' ? 52 : clamp(v.woundRadiusMm * 0.42, 14, 56)
  const pairs = shape.feeder.pairs === 2 ? [AT.rollsX - 34, AT.rollsX] : [AT.rollsX]
  return (
    <>
      <path d={`M8 22H246V214H8Z`} className="drag-box" />
      {shape.payoff === 'drum' ? (
        <path d={`M30 ${AT.wireY}v70h80v-70q-40 -30 -80 0`} className="drag-part" />
      ) : (
        <>
          <circle cx={AT.hubX} cy={AT.wireY} r={58} className="drag-box" />
          <circle cx={AT.hubX} cy={AT.wireY} r={r} className="drag-spool" />
          <circle cx={AT.hubX} cy={AT.wireY} r={10} className="drag-part" strokeWidth={clamp(v.brakeNm * 4, 1.5, 9)} />
        </>
      )}
      <path
        d={`M${AT.hubX} ${AT.wireY - r}Q${AT.hubX + 50} ${AT.wireY - r} ${AT.rollsX - 50} ${AT.wireY}H${AT.cableFrom}`}
        className="drag-wire"
      />
      {pairs.map((x) => (
        <g key={x}>
          <circle cx={x} cy={AT.wireY - 17} r={15} className="drag-part" />
          <circle cx={x} cy={AT.wireY + 17} r={15} className="drag-part" />
        </g>
      ))}
      <text x={14} y={40} className="drag-label">
        {shape.payoff === 'drum' ? 'drum' : 'spool'}
      </text>
      <text x={AT.rollsX - 20} y={72} className="drag-label">
        rolls
      </text>
      <text x={242} y={AT.wireY + 52} textAnchor="end" className="drag-label">
        guide {ruleLength(v.gapMm, units)}
      </text>
    </>
  )
}

function Front({ setup: { values: v, shape } }: { setup: DragSetup }) {
  const end = neckEnd(v.neckDeg)
  const drive = shape.secondDrive ? [-11, 11] : []
  const spots = { clean: 0, 'in service': 1, spattered: 3, dragging: 5, frozen: 6 }[shape.tipState]
  return (
    <>
      {drive.map((dy) => (
        <circle key={dy} cx={AT.cableTo + 8} cy={AT.wireY + dy} r={9} className="drag-part" />
      ))}
      <path d={end.d} className="drag-cable" />
      <path d={end.d} className="drag-wire" />
      <g transform={`translate(${end.x} ${end.y}) rotate(${end.deg})`}>
        <path d="M-6 -24H58V-18M-6 24H58V18" className="drag-part" />
        <path d="M0 -10H52L58 -5V5L52 10H0Z" className="drag-part" />
        <path d={shape.tipState === 'frozen' ? 'M0 0H60' : 'M0 0H84'} className="drag-wire" />
        {Array.from({ length: spots }, (_, i) => (
          <circle key={i} cx={57 + (i % 2) * 4} cy={-8 + i * 4} r={3.2} className="drag-spot" />
        ))}
      </g>
      <text x={end.x - 40} y={end.y - 34} className="drag-label">
        tip
      </text>
    </>
  )
}

/** Force along the way, the grip of the rolls at the knob and what the gap bears. */
function Forces({ setup, said, at, units }: { setup: DragSetup; said: Explained; at: AtKnob; units: Units }) {
  const { window: w } = said
  const profile = forceProfile(setup)
  const graph = forceGraph(profile, { cableMm: setup.values.cableMm, nestN: w.nest.nestForceN })
  const isTold = w.pushN !== null
  const line = (n: number) => graph.yOf(n)
  // A low curve leaves no room under it for words.
  const pushY = GRAPH.base - line(w.pushN ?? 0) > 34 ? GRAPH.base - 6 : line(w.pushN ?? 0) - 7
  return (
    <g transform={`translate(0 ${PICTURE.height})`}>
      <path d={`M${AT.rollsX} ${GRAPH.base}H${AT.tipX}`} className="drag-axis" />
      <path d={graph.area} className="drag-force-area" />
      <path d={graph.line} className="drag-force" />
      <path d={`M8 ${line(w.nest.nestForceN)}H${AT.tipX}`} className="drag-nest" />
      <text x={AT.tipX} y={line(w.nest.nestForceN) - 5} className="drag-label" textAnchor="end">
        the gap bears {force(w.nest.nestForceN, units)}: above it nests
      </text>
      <path d={`M8 ${line(at.tractionN)}H${AT.rollsX}`} className="drag-grip" />
      <text x={8} y={line(at.tractionN) + (at.tractionN > w.nest.nestForceN ? 15 : -6)} className="drag-label">
        grip {force(at.tractionN, units)}
      </text>
      {isTold ? (
        <text x={AT.rollsX + 12} y={pushY} className="drag-label">
          push {force(w.pushN ?? 0, units)}
        </text>
      ) : null}
      <text x={AT.tipX} y={GRAPH.base - 6} className="drag-label" textAnchor="end">
        tip {force(profile.outlet.at(-1)?.forceN ?? w.tip.dragN, units)}
      </text>
      {graph.breaksAtX === null ? null : (
        <text x={AT.rollsX + 12} y={GRAPH.top + 12} className="drag-label">
          grows beyond anything here
        </text>
      )}
    </g>
  )
}
