import { type CellLine } from '@contract/cell.ts'
import { type Units } from '@web/format/numbers.ts'
import { Plain } from '@web/kit/Keys.tsx'
import { lengthsOf, pullState, pullWords, type Length } from './cellwords.ts'

/** The way of the wire as it really runs at one cell: a tick at each joint, a length by its own length, a tooth where it pulls harder than it did. */
export function Way(props: { cell: CellLine; units: Units; openPiece: number | null; onOpen: (l: Length) => void }) {
  const { cell, units } = props
  return (
    <ol className="way" aria-label={`Way of the wire at ${cell.name}`}>
      {lengthsOf(cell, units).map((l) => (
        <li
          key={l.key}
          className={`way-${l.piece === null ? 'node' : pullState(l.piece, cell.pulls)}`}
          style={{ flexGrow: l.metres === null ? 0 : Math.max(1, l.metres) }}
        >
          {l.piece === null ? (
            <span className="way-name">
              {l.name}
              <small className="dim">{l.says}</small>
            </span>
          ) : (
            <Plain
              className="way-name"
              aria-pressed={props.openPiece === l.piece}
              aria-label={`${l.name}: ${pullWords(l.piece, cell.pulls, units) || 'not pulled yet'}`}
              onClick={() => props.onOpen(l)}
            >
              {l.name}
              <small className="dim">{l.says}</small>
              <small>{pullWords(l.piece, cell.pulls, units)}</small>
            </Plain>
          )}
        </li>
      ))}
    </ol>
  )
}
