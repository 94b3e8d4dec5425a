import { useQuery } from '@tanstack/react-query'
import { supplyAnswer } from '@contract/parts.ts'
import { lateAnswer } from '@contract/stock.ts'
import { getJson } from '@web/api/client.ts'

export const useSupply = (isWanted: boolean) =>
  useQuery({ queryKey: ['supply'], queryFn: () => getJson('/parts/supply', supplyAnswer), enabled: isWanted })

const LATE_MS = 600_000
/** Asked seldom: what is late today was late an hour ago. */
export const useLate = () =>
  useQuery({
    queryKey: ['late'],
    queryFn: () => getJson('/parts/late', lateAnswer),
    staleTime: LATE_MS,
    refetchInterval: LATE_MS,
  })
