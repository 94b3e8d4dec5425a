import { useQuery } from '@tanstack/react-query'
import { pairsAnswer, type pairRequest } from '@contract/classes.ts'
import { done } from '@contract/common.ts'
import { getJson } from '@web/api/client.ts'
import { useWrite, type Body } from '@web/offline/write.ts'

export const usePairs = () => useQuery({ queryKey: ['pairs'], queryFn: () => getJson('/classes/pairs', pairsAnswer) })
export const useSavePair = () => useWrite<Body<typeof pairRequest>, typeof done>('/classes/pair', done)
