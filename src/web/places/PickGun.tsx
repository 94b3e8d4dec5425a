import { PickOne } from '@web/kit/Field.tsx'
import { usePlaces } from './usePlaces.ts'

/** One of the shop's guns, or none of them. */
export function PickGun(props: { id: string; none: string; value: string; onPick: (stationId: string) => void }) {
  const places = usePlaces().data?.places ?? []
  return <PickOne {...props} label="Gun" options={places.map((p) => [p.stationId, p.name] as const)} />
}
