import { Key } from '@web/kit/Keys.tsx'
import { USUAL_CABLE_M } from '@core/guide/feed.ts'
import { PLACES } from './job.ts'

/** Where along the cable, from the feeder end, in three keys for gloves. */
export function PlaceKeys(props: { cableMm: number | null; atMm: number | null; onPick: (atMm: number) => void }) {
  const cableMm = props.cableMm ?? USUAL_CABLE_M * 1000
  return PLACES.map(({ word, part }) => {
    const mm = Math.round(cableMm * part)
    return (
      <Key key={word} size="low" aria-pressed={props.atMm === mm} onClick={() => props.onPick(mm)}>
        {word}
      </Key>
    )
  })
}
