import { necksNeeded, type NeckNeed } from '@core/cell/neckneed.ts'
import { type NeedSaid } from './needasked.ts'

/** Forty worlds of weeks for each number of spares, away from the page. */
self.onmessage = ({ data }: MessageEvent<{ id: number; need: NeckNeed }>) => {
  self.postMessage({ id: data.id, rows: necksNeeded(data.need) } satisfies NeedSaid)
}
