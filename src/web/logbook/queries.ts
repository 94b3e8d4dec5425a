import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { logbookAnswer } from '@contract/logbook.ts'
import { getJson } from '@web/api/client.ts'

export const useLogbook = (query: string) =>
  useQuery({
    queryKey: ['logbook', query],
    queryFn: () => getJson(`/logbook${query ? `?${query}` : ''}`, logbookAnswer),
    placeholderData: keepPreviousData,
  })
