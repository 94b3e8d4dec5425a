import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { stockAnswer } from '@contract/stock.ts'
import { getJson } from '@web/api/client.ts'

/** What will be wanted, what is there, what to buy; to a day too, where one is asked for. */
export const useStock = (until: string) =>
  useQuery({
    queryKey: ['stock', until],
    queryFn: () => getJson(until ? `/parts?until=${until}` : '/parts', stockAnswer),
    placeholderData: keepPreviousData,
  })
