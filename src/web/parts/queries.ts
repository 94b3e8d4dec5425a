import { useQuery } from '@tanstack/react-query'
import { supplyAnswer } from '@contract/parts.ts'
import { lateAnswer, type LateAnswer } from '@contract/stock.ts'
import { getJson } from '@web/api/client.ts'

export const useSupply = (isWanted: boolean) =>
  useQuery({ queryKey: ['supply'], queryFn: () => getJson('/parts/supply', supplyAnswer), enabled: isWanted })

const LATE_MS = 600_000
const LATE_KEPT = 'idle-spool-late'
/** As this device last heard it: a line that comes after the page would move what a glove is about to touch. */
function keptLate(): LateAnswer | undefined {
  try {
    const kept = lateAnswer.safeParse(JSON.parse(localStorage.getItem(LATE_KEPT) ?? 'null'))
    return kept.success ? kept.data : undefined
  } catch {
    return undefined
  }
}
/** Asked seldom: what is late today was late an hour ago. */
export const useLate = () =>
  useQuery({
    queryKey: ['late'],
    queryFn: async () => {
      const late = await getJson('/parts/late', lateAnswer)
      localStorage.setItem(LATE_KEPT, JSON.stringify(late))
      return late
    },
    initialData: keptLate,
    initialDataUpdatedAt: 0,
    staleTime: LATE_MS,
    refetchInterval: LATE_MS,
  })
