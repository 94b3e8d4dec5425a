import { useQuery } from '@tanstack/react-query'
import {
  downAnswer,
  downNowAnswer,
  knowledgeAnswer,
  type explainRequest,
  type knowledgeRequest,
} from '@contract/down.ts'
import { tuneAnswer, type tunedRequest, type tuneKeptRequest } from '@contract/tune.ts'
import { done } from '@contract/common.ts'
import { loggedAnswer } from '@contract/guide.ts'
import { getJson } from '@web/api/client.ts'
import { useBoothWrite, useWrite, type Body } from '@web/offline/write.ts'

export const downAddress = (stationId: string) => `/down?stationId=${stationId}`
/** What was known when the search began holds till it ends: it does not change under the hands. */
export const useDown = (stationId: string) =>
  useQuery({
    queryKey: ['down', stationId],
    queryFn: () => getJson(downAddress(stationId), downAnswer),
    enabled: stationId !== '',
    staleTime: Infinity,
    refetchOnWindowFocus: false,
  })
export const downNowAddress = (areaId: string) => `/down/now${areaId ? `?areaId=${areaId}` : ''}`
export const useDownNow = (areaId: string) =>
  useQuery({ queryKey: ['downNow', areaId], queryFn: () => getJson(downNowAddress(areaId), downNowAnswer) })
export const useExplain = () =>
  useBoothWrite<typeof explainRequest, typeof loggedAnswer>({
    ...{ path: '/down/explained', answer: loggedAnswer, holds: 'down' },
    says: () => 'What a stop turned out to be',
  })
export const useTune = (stationId: string) =>
  useQuery({
    queryKey: ['tune', stationId],
    queryFn: () => getJson(`/down/tune?stationId=${stationId}`, tuneAnswer),
    enabled: stationId !== '',
    staleTime: Infinity,
    refetchOnWindowFocus: false,
  })
export const useTrial = () =>
  useBoothWrite<typeof tunedRequest, typeof loggedAnswer>({
    ...{ path: '/down/tune', answer: loggedAnswer, holds: 'tune' },
    says: () => 'A setting changed by itself',
  })
export const useKeepTune = () =>
  useBoothWrite<typeof tuneKeptRequest, typeof loggedAnswer>({
    ...{ path: '/down/tune/kept', answer: loggedAnswer, holds: 'tune' },
    says: () => 'Settings that worked',
  })
export const useKnowledge = () =>
  useQuery({ queryKey: ['knowledge'], queryFn: () => getJson('/down/knowledge', knowledgeAnswer) })
export const useSetKnowledge = () => useWrite<Body<typeof knowledgeRequest>, typeof done>('/down/knowledge', done)
