import { type ScanAnswer } from '@contract/logbook.ts'

/** Where a code that opens something leads: the gun, the look before class at that booth, the cards of right and wrong. */
export function openedBy({
  page,
  stationId,
  stationName,
}: Pick<ScanAnswer, 'page' | 'stationId' | 'stationName'>): string {
  if (page === 'beforeClass')
    return `/before-class?${new URLSearchParams({ gun: stationId, name: stationName }).toString()}`
  return page === 'pairs' ? '/pairs' : `/gun/${stationId}`
}
