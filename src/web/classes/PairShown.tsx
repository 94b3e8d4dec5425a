import { type PairLine } from '@contract/classes.ts'
import { longDay } from '@web/format/times.ts'
import { Drawing } from '@web/guide/Drawing.tsx'

/** A pair as it is shown to a room: drawn, the shop’s own photos beside, in words; whose words they are stands under it. */
export function PairShown({ pair }: { pair: PairLine }) {
  const newest = (side: 'right' | 'wrong') => pair.photos.find((p) => p.side === side)
  return (
    <div className="pair-shown">
      <Drawing of={pair.drawing} />
      <div className="pair-sides">
        {(['right', 'wrong'] as const).map((side) => {
          const photo = newest(side)
          return (
            <div key={side} className={`pair-side is-${side}`}>
              <h2>
                <span aria-hidden="true">{side === 'right' ? '✓' : '✕'}</span> {side === 'right' ? 'Right' : 'Wrong'}
              </h2>
              {photo ? <img src={`/api/photo/${photo.id}.jpg`} alt={`Photo from this shop: ${side}`} /> : null}
              <p>{pair[side]}</p>
            </div>
          )
        })}
      </div>
      <p className="pair-why">{pair.why}</p>
      {pair.image ? <blockquote className="pair-image">{pair.image}</blockquote> : null}
      <p className="dim pair-source">
        {pair.isWrongHere ? 'Marked as wrong here. ' : ''}
        Source: {pair.source}
        {pair.reviewedBy
          ? `, looked over by ${pair.reviewedBy}, ${longDay(pair.reviewedDay ?? '')}`
          : ', nobody here has looked it over yet'}
        .
      </p>
    </div>
  )
}
