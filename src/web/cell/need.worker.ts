import { necksNeeded, type NeckNeed, type NecksAt } from '@core/cell/neckneed.ts'

/** Forty worlds of weeks for each number of spares, away from the page. */
self.onmessage = ({ data }: MessageEvent<NeckNeed>) => {
  self.postMessage(necksNeeded(data) satisfies NecksAt[])
}
