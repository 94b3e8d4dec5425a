import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type z } from 'zod'
import { done } from '@contract/common.ts'
import { loggedAnswer } from '@contract/guide.ts'
import {
  linerAnswer,
  type linerDoneRequest,
  type spoiledRequest,
  stuckAnswer,
  type stuckRequest,
} from '@contract/liner.ts'
import { getJson, postJson } from '@web/api/client.ts'
import { useWrite, type Body } from '@web/api/write.ts'

export const useLiner = (stationId: string) =>
  useQuery({
    queryKey: ['liner', stationId],
    queryFn: () => getJson(`/liner?stationId=${stationId}`, linerAnswer),
    enabled: stationId !== '',
    refetchOnWindowFocus: false,
  })

const isOther = (query: { queryKey: readonly unknown[] }) => query.queryKey[0] !== 'liner'
/** What is said on the way is kept at once; the list in hand does not change under the hands. */
export function useStuck() {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (body: z.input<typeof stuckRequest>) => postJson('/liner/stuck', body, stuckAnswer),
    onSuccess: () => client.invalidateQueries({ predicate: isOther }),
  })
}
export function useSpoiled() {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (body: z.input<typeof spoiledRequest>) => postJson('/liner/spoiled', body, done),
    onSuccess: () => client.invalidateQueries({ predicate: isOther }),
  })
}
/** The key is the job's own: the same job sent again is the same job. */
export const useLinerDone = () =>
  useWrite<Body<typeof linerDoneRequest> & { key: string }, typeof loggedAnswer>('/liner/done', loggedAnswer)
