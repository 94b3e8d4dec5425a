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
/** For whom a kit is: the guns of an area, the next class of a group, all. */
export type KitFor = { areaId: string } | { groupId: string } | null
/** What to take along; asked for when somebody packs. */
export const useKits = (of: KitFor) =>
  useQuery({
    queryKey: ['kits', of],
    queryFn: () => getJson(of ? `/parts/kit?${new URLSearchParams(of).toString()}` : '/parts/kit', kitAnswer),
    placeholderData: keepPreviousData,
  })
