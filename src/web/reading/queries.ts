import { useQuery } from '@tanstack/react-query'
import { readingAnswer, readingDone, type readingRequest } from '@contract/reading.ts'
import { getJson } from '@web/api/client.ts'
import { useWrite, type Body } from '@web/api/write.ts'

export const useReadings = (stationId: string) =>
  useQuery({
    queryKey: ['reading', stationId],
    queryFn: () => getJson(`/reading?stationId=${stationId}`, readingAnswer),
    enabled: stationId !== '',
  })

/** The key is the form's own: the same reading sent again is the same reading. */
export const useRead = () =>
  useWrite<Body<typeof readingRequest> & { key: string }, typeof readingDone>('/reading', readingDone)
