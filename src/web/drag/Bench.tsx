import { LINER_STATES, TIP_STATES, WIRE_MATERIALS, type WireMaterial } from '@core/drag/guess.ts'
import { type Source } from '@core/drag/ofgun.ts'
import { LINER_KINDS, type LinerKind } from '@core/rightparts/facts.ts'
import { COIL_PLACES, ROLL_GROOVES, type DragSetup, type Param } from '@core/drag/setup.ts'
import { force, twoFigures, wireSize, type Units } from '@web/format/numbers.ts'
import { ruleLength } from '@web/format/lengths.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { sourceWord } from './dragwords.ts'
import { type DragEvent } from './dragstate.ts'
import { MOST_BEND, MOST_COILS } from './GunPicture.tsx'

interface Slide {
  param: Param
  name: string
  from: number
  to: number
  step: number
  says: (value: number, units: Units) => string
}
const turns = (deg: number) =>
  deg < 100 ? 'nearly straight' : deg < 300 ? 'a few bends' : deg < 480 ? 'as at work' : 'tangled'
const SLIDES: readonly Slide[] = [
  { param: 'coils', name: 'Coils on the floor', from: 0, to: MOST_COILS, step: 0.25, says: (v) => twoFigures(v) },
  { param: 'bendDeg', name: 'How the cable lies', from: 0, to: MOST_BEND, step: 5, says: (v) => `${v}°, ${turns(v)}` },
  { param: 'friction', name: 'Friction in the liner', from: 0.05, to: 0.8, step: 0.005, says: (v) => v.toFixed(2) },
  {
    param: 'gapMm',
    name: 'Rolls to outlet guide',
    from: 0.5,
    to: 20,
    step: 0.5,
    says: (v, units) => ruleLength(v, units),
  },
  { param: 'brakeNm', name: 'Hub brake', from: 0.05, to: 4, step: 0.05, says: (v) => `${twoFigures(v)} N·m` },
  {
    param: 'linerBoreMm',
    name: 'Bore of the liner',
    from: 0,
    to: 4,
    step: 0.1,
    says: (v, units) => (v === 0 ? 'not told' : ruleLength(v, units)),
  },
  {
    param: 'motorPushN',
    name: 'Motor stalls at',
    from: 0,
    to: 400,
    step: 10,
    says: (v, units) => (v === 0 ? 'not told' : force(v, units)),
  },
  { param: 'kinkDeg', name: 'Kink in the liner', from: 0, to: 60, step: 5, says: (v) => (v === 0 ? 'none' : `${v}°`) },
]

/** Not told, they limit nothing, and are no guess either. */
const OPTIONAL: ReadonlySet<Param> = new Set(['linerBoreMm', 'motorPushN'])

export interface BenchProps {
  setup: DragSetup
  sources: Partial<Record<Param, Source>>
  nowMs: number
  units: Units
  tell: (event: DragEvent) => void
}

/** Everything that can be bent, worn, moved and changed, as sliders and choices: the same as pulling on the picture. */
export function Bench(props: BenchProps) {
  const { setup, sources, nowMs, units, tell } = props
  return (
    <section className="drag-bench" aria-label="Bend it, wear it, change it">
      <div className="drag-slides">
        {SLIDES.map((s) => (
          <label key={s.param} className="drag-slide">
            <span>
              {s.name} <strong>{s.says(setup.values[s.param], units)}</strong>
            </span>
            <span className="dim">
              {OPTIONAL.has(s.param) && setup.values[s.param] === 0 ? '' : sourceWord(sources[s.param], nowMs)}
            </span>
            <input
              type="range"
              min={s.from}
              max={s.to}
              step={s.step}
              value={setup.values[s.param]}
              onChange={(e) => tell({ type: 'value', param: s.param, value: Number(e.target.value) })}
            />
          </label>
        ))}
      </div>
      <Choices {...props} />
    </section>
  )
}

const SIZES = [0.6, 0.8, 0.9, 1.0, 1.2, 1.6]
const options = <T extends string>(list: readonly T[], word: Partial<Record<T, string>> = {}) =>
  list.map((v) => [v, word[v] ?? v] as const)

function Choices({ setup, units, tell }: BenchProps) {
  const { shape } = setup
  const sizes = [...new Set([...SIZES, shape.diameterMm])].sort((a, b) => a - b)
  return (
    <div className="drag-choices">
      <PickOne
        id="drag-wire"
        label="Wire"
        value={shape.material}
        options={options(WIRE_MATERIALS)}
        onPick={(v) => tell({ type: 'wire', material: v as WireMaterial, diameterMm: shape.diameterMm })}
      />
      <PickOne
        id="drag-size"
        label="Size"
        value={String(shape.diameterMm)}
        options={sizes.map((mm) => [String(mm), wireSize(mm, units)] as const)}
        onPick={(v) => tell({ type: 'wire', material: shape.material, diameterMm: Number(v) })}
      />
      <PickOne
        id="drag-liner"
        label="Liner"
        value={shape.linerKind}
        options={options(LINER_KINDS)}
        onPick={(v) => tell({ type: 'shape', over: { linerKind: v as LinerKind } })}
      />
      <PickOne
        id="drag-liner-state"
        label="It is"
        value={shape.linerState}
        options={options(LINER_STATES)}
        onPick={(v) => tell({ type: 'shape', over: { linerState: v as (typeof LINER_STATES)[number] } })}
      />
      <PickOne
        id="drag-rolls"
        label="Rolls"
        value={shape.groove}
        options={options(ROLL_GROOVES)}
        onPick={(v) => tell({ type: 'shape', over: { groove: v as (typeof ROLL_GROOVES)[number] } })}
      />
      <PickOne
        id="drag-tip"
        label="Tip"
        value={shape.tipState}
        options={options(TIP_STATES, { dragging: 'drags on the wire' })}
        onPick={(v) => tell({ type: 'shape', over: { tipState: v as (typeof TIP_STATES)[number] } })}
      />
      <PickOne
        id="drag-coils-at"
        label="Coils lie"
        value={shape.coilsAt}
        options={options(COIL_PLACES, { spread: 'along the cable', feeder: 'at the feeder', gun: 'at the gun' })}
        onPick={(v) => tell({ type: 'shape', over: { coilsAt: v as (typeof COIL_PLACES)[number] } })}
      />
      <DriveChoices shape={shape} tell={tell} />
    </div>
  )
}

/** Where the wire comes from, and what drives it. */
function DriveChoices({ shape, tell }: { shape: DragSetup['shape']; tell: BenchProps['tell'] }) {
  return (
    <>
      <PickOne
        id="drag-drives"
        label="Drives"
        value={shape.secondDrive ? 'two' : 'one'}
        options={[
          ['one', 'one, at the feeder'],
          ['two', 'push–pull: one on the gun too'],
        ]}
        onPick={(v) => tell({ type: 'shape', over: { secondDrive: v === 'two' } })}
      />
      <PickOne
        id="drag-payoff"
        label="Wire comes from"
        value={`${shape.payoff}${shape.hasBooster ? ' boosted' : ''}${shape.isReversed ? ' reversed' : ''}`}
        options={[
          ['spool', 'a spool'],
          ['spool reversed', 'a spool, wrong way round'],
          ['drum', 'a drum'],
          ['drum boosted', 'a drum with a booster'],
        ]}
        onPick={(v) =>
          tell({
            type: 'shape',
            over: {
              payoff: v.startsWith('drum') ? 'drum' : 'spool',
              hasBooster: v.endsWith('boosted'),
              isReversed: v.endsWith('reversed'),
            },
          })
        }
      />
    </>
  )
}
