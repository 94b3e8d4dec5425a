import { useQuery } from '@tanstack/react-query'
import { readingAnswer, readingDone, type readingRequest } from '@contract/reading.ts'
import { getJson } from '@web/api/client.ts'
import { READING } from '@core/reading/specs.ts'
import { useBoothWrite } from '@web/offline/write.ts'
import { capital } from '@web/format/words.ts'

export const useReadings = (stationId: string) =>
  useQuery({
    queryKey: ['reading', stationId],
    queryFn: () => getJson(`/reading?stationId=${stationId}`, readingAnswer),
    enabled: stationId !== '',
  })

/** The key is the form's own: the same reading sent again is the same reading. */
export const useRead = () =>
  useBoothWrite<typeof readingRequest, typeof readingDone>({
    path: '/reading',
    answer: readingDone,
    says: ({ what }) => `${capital(READING[what].name)} read`,
  })
