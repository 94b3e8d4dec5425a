import { type ReactNode } from 'react'
import { type Column } from '@core/path/columns.ts'

/** Outlines of the parts as they sit around the wire: own drawings, x from 0 to `w`, wire at y 0, drawn behind it. */
export const PART_WIDTH: Record<Column, number> = {
  spool: 118,
  inlet: 70,
  rolls: 96,
  outlet: 70,
  pin: 78,
  liner: 196,
  neck: 104,
  diffuser: 122,
  tip: 128,
  nozzle: 132,
  gas: 84,
}

const DRAWN: Record<Column, (w: number) => ReactNode> = {
  spool: () => (
    <>
      <circle cx="46" cy="30" r="44" />
      <circle cx="46" cy="30" r="30" />
      <circle cx="46" cy="30" r="11" />
      <path d="M46 -14A44 44 0 0 1 70 -7L118 0" />
    </>
  ),
  inlet: (w) => <path d={`M8 -16L26 -7H${w - 8}V7H26L8 16Z`} />,
  rolls: (w) => (
    <>
      <circle cx={w * 0.3} cy="-23" r="18" />
      <circle cx={w * 0.3} cy="23" r="18" />
      <circle cx={w * 0.72} cy="-23" r="18" />
      <circle cx={w * 0.72} cy="23" r="18" />
      <path d={`M${w * 0.3} -46H${w * 0.72}M${w * 0.51} -46V-58M${w * 0.42} -58H${w * 0.6}`} />
    </>
  ),
  outlet: (w) => <path d={`M8 -7H${w - 24}L${w - 8} -13V13L${w - 24} 7H8Z`} />,
  pin: (w) => (
    <>
      <path d={`M6 -18H${w * 0.45}V-10H${w}V10H${w * 0.45}V18H6Z`} />
      <path d={`M${w * 0.6} -10V10M${w * 0.75} -10V10`} strokeWidth="4" />
    </>
  ),
  liner: (w) => (
    <>
      <path d={`M0 -13H${w}M0 13H${w}`} />
      {Array.from({ length: Math.floor(w / 11) }, (_, i) => (
        <path key={i} d={`M${i * 11 + 3} 8l6 -16`} className="part-faint" />
      ))}
    </>
  ),
  neck: (w) => <path d={`M0 -15H${w * 0.35}L${w} -11V11L${w * 0.35} 15H0Z`} />,
  diffuser: (w) => (
    <>
      <path d={`M0 -11H14V-24H${w - 26}V-15H${w}V15H${w - 26}V24H14V11H0Z`} />
      <circle cx={w * 0.42} cy="-15" r="3.6" />
      <circle cx={w * 0.42} cy="15" r="3.6" />
      <circle cx={w * 0.62} cy="-15" r="3.6" />
      <circle cx={w * 0.62} cy="15" r="3.6" />
    </>
  ),
  tip: (w) => <path d={`M0 -9H18V-14H${w - 40}L${w - 12} -8V8L${w - 40} 14H18V9H0Z`} />,
  nozzle: (w) => (
    <path
      d={`M0 -36H${w * 0.55}L${w - 18} -27V-21L${w * 0.55} -29H0M0 36H${w * 0.55}L${w - 18} 27V21L${w * 0.55} 29H0`}
    />
  ),
  gas: () => (
    <path d="M8 -24q18 -7 34 0t34 0M8 24q18 7 34 0t34 0M8 -34q18 -7 34 0M8 34q18 7 34 0" className="part-faint" />
  ),
}
export const drawPart = (column: Column) => DRAWN[column](PART_WIDTH[column])
