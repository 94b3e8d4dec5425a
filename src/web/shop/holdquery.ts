import { useQuery } from '@tanstack/react-query'
import { holdingAnswer } from '@contract/holding.ts'
import { getJson } from '@web/api/client.ts'

/** How the program holds up; asked again as often as somebody looks at it. */
export const useHolding = ({ isAsked, everyMs }: { isAsked: boolean; everyMs: number }) =>
  useQuery({
    queryKey: ['holding'],
    queryFn: () => getJson('/shop/holding', holdingAnswer),
    enabled: isAsked,
    staleTime: everyMs,
    refetchInterval: everyMs,
  })
