import { type FeederKindKey } from '@core/catalogue/feeders.ts'
import { type NozzleStyle } from '@core/rightparts/facts.ts'

const PEN = { fill: 'none', stroke: 'currentColor', strokeWidth: 2 } as const

/** A nozzle cut open from the side: a smooth seat with a ring it is pushed over, or a thread. */
export function NozzlePicture({ style }: { style: NozzleStyle }) {
  return (
    <svg viewBox="0 0 96 44" width="96" height="44" aria-hidden="true" {...PEN}>
      <path d="M4 16 H34 M4 28 H34" />
      {style === 'push-on' ? (
        <path d="M34 12 h8 v20 h-8 z" strokeDasharray="3 2" />
      ) : (
        <path d="M20 16 l3 -4 l3 4 l3 -4 l3 4 l3 -4 l3 4 M20 28 l3 4 l3 -4 l3 4 l3 -4 l3 4 l3 -4" />
      )}
      <path d={style === 'push-on' ? 'M30 8 H72 L88 13 V31 L72 36 H30' : 'M18 8 H72 L88 13 V31 L72 36 H18'} />
      <path d="M34 22 H96" stroke="var(--wire)" />
    </svg>
  )
}

const PAIRS: Record<FeederKindKey, readonly number[]> = { two: [44], four: [30, 62], pushPull: [26], spoolGun: [66] }
/** Rolls on the wire; a second pair stands in the gun, a spool on its back. */
export function RollsPicture({ kind }: { kind: FeederKindKey }) {
  return (
    <svg viewBox="0 0 96 44" width="96" height="44" aria-hidden="true" {...PEN}>
      <path d="M0 22 H96" stroke="var(--wire)" />
      {PAIRS[kind].map((x) => (
        <g key={x}>
          <circle cx={x} cy="11" r="10" />
          <circle cx={x} cy="33" r="10" />
        </g>
      ))}
      {kind === 'pushPull' ? (
        <>
          <path d="M40 22 q8 -14 16 0" />
          <circle cx="78" cy="15" r="6" />
          <circle cx="78" cy="29" r="6" />
        </>
      ) : null}
      {kind === 'spoolGun' ? (
        <>
          <circle cx="24" cy="22" r="18" />
          <circle cx="24" cy="22" r="6" />
        </>
      ) : null}
    </svg>
  )
}
