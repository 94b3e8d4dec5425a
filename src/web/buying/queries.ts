import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { kitAnswer, stockAnswer } from '@contract/stock.ts'
import { getJson } from '@web/api/client.ts'

/** What will be wanted, what is there, what to buy; to a day too, where one is asked for. */
export const useStock = (until: string) =>
  useQuery({
    queryKey: ['stock', until],
    queryFn: () => getJson(until ? `/parts?until=${until}` : '/parts', stockAnswer),
    placeholderData: keepPreviousData,
  })
/** What to take along; asked for when somebody packs. */
export const useKits = (areaId: string) =>
  useQuery({
    queryKey: ['kits', areaId],
    queryFn: () => getJson(areaId ? `/parts/kit?areaId=${areaId}` : '/parts/kit', kitAnswer),
    placeholderData: keepPreviousData,
  })
