import { COLUMNS, type Column } from '@core/path/columns.ts'
import { type StockPart } from '@contract/stock.ts'
import { Plain } from '@web/kit/Keys.tsx'
import { placeName } from '@web/format/words.ts'
import { isShort, isToOrder } from './buyingwords.ts'

/** A bin is as high as so many days. */
const FULL_DAYS = 60
const [WIDTH, HEIGHT] = [30, 84]

/** The wire path once more: under each place its bins, filled to the days they last, with a notch where an order placed now would arrive. */
export function Bins(props: { parts: readonly StockPart[]; openId: string; onOpen: (partId: string) => void }) {
  const by = new Map<Column, StockPart[]>()
  for (const p of props.parts) by.set(p.column, [...(by.get(p.column) ?? []), p])
  return (
    <div className="bins" role="group" aria-label="Bins on the wire path">
      {COLUMNS.map((column) => (
        <div key={column} className={by.has(column) ? 'bin-column' : 'bin-column bin-none'}>
          <span className="bin-place dim">{placeName(column)}</span>
          <div className="bin-row">
            {(by.get(column) ?? []).map((p) => (
              <Bin key={p.partId} part={p} isOpen={p.partId === props.openId} onOpen={props.onOpen} />
            ))}
          </div>
        </div>
      ))}
    </div>
  )
}

const daysOf = (p: StockPart): number | null =>
  p.onHand === null || !p.advice ? null : (p.advice.runsOut.middle ?? Infinity)

/** What stands under a bin: its days, or what is to be done. */
export function binWord(p: StockPart): string {
  const days = daysOf(p)
  if (p.onHand === null) return 'count'
  if (days === null) return p.inUse === 0 ? 'no gun' : '?'
  if (days === Infinity) return '1 y +'
  return days < 100 ? `${Math.round(days)} d` : `${Math.round(days / 30)} mo`
}
function spoken(p: StockPart): string {
  const what = isShort(p) ? ', runs out before an order of today is in' : isToOrder(p) ? ', order now' : ''
  return `${p.code}, ${p.name}: ${p.onHand === null ? 'never counted' : `${p.onHand} here, ${binWord(p)}`}${what}`
}

function Bin({ part, isOpen, onOpen }: { part: StockPart; isOpen: boolean; onOpen: (partId: string) => void }) {
  const days = daysOf(part)
  const fill = days === null ? 0 : Math.min(1, days / FULL_DAYS) * HEIGHT
  const lead = part.advice ? Math.min(1, part.advice.leadDays / FULL_DAYS) * HEIGHT : null
  const name = ['bin', isShort(part) ? 'bin-short' : isToOrder(part) ? 'bin-order' : '', isOpen ? 'is-open' : '']
  return (
    <Plain
      className={name.filter(Boolean).join(' ')}
      aria-label={spoken(part)}
      aria-pressed={isOpen}
      onClick={() => onOpen(isOpen ? '' : part.partId)}
    >
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT + 2}`} width={WIDTH} height={HEIGHT + 2} aria-hidden>
        <path className={days === null ? 'bin-wall bin-unknown' : 'bin-wall'} d={`M2 1 V${HEIGHT} H${WIDTH - 2} V1`} />
        {fill > 0 ? <rect className="bin-fill" x={4} y={HEIGHT - fill} width={WIDTH - 8} height={fill} /> : null}
        {lead !== null ? (
          <path className="bin-notch" d={`M0 ${HEIGHT - lead} h6 M${WIDTH - 6} ${HEIGHT - lead} h6`} />
        ) : null}
      </svg>
      <span className="bin-code">{part.code}</span>
      <strong>{isShort(part) ? 'short' : isToOrder(part) ? 'order' : binWord(part)}</strong>
    </Plain>
  )
}
