import { useQuery } from '@tanstack/react-query'
import { done } from '@contract/common.ts'
import { floorAnswer } from '@contract/floor.ts'
import { loggedAnswer } from '@contract/guide.ts'
import {
  linerAnswer,
  type linerDoneRequest,
  type spoiledRequest,
  stuckAnswer,
  type stuckRequest,
} from '@contract/liner.ts'
import { getJson } from '@web/api/client.ts'
import { useBoothWrite } from '@web/offline/write.ts'

export const useLiner = (stationId: string) =>
  useQuery({
    queryKey: ['liner', stationId],
    queryFn: () => getJson(`/liner?stationId=${stationId}`, linerAnswer),
    enabled: stationId !== '',
    refetchOnWindowFocus: false,
  })

/** What is said on the way is kept at once; the list in hand does not change under the hands. */
const holds = 'liner'
export const useStuck = () =>
  useBoothWrite<typeof stuckRequest, typeof stuckAnswer>({
    ...{ path: '/liner/stuck', answer: stuckAnswer, holds },
    says: ({ isKinked }) => (isKinked ? 'A new liner kinked' : 'A new liner stuck'),
  })
export const useSpoiled = () =>
  useBoothWrite<typeof spoiledRequest, typeof done>({
    ...{ path: '/liner/spoiled', answer: done, holds },
    says: () => 'A new liner spoiled',
  })
/** The key is the job's own: the same job sent again is the same job. */
export const useLinerDone = () =>
  useBoothWrite<typeof linerDoneRequest, typeof loggedAnswer>({
    path: '/liner/done',
    answer: loggedAnswer,
    says: () => 'Liner changed',
  })

/** Every gun with what it wants: Floor's own answer, kept where Floor keeps it. */
export const useLinersDue = () =>
  useQuery({ queryKey: ['floor', null, null], queryFn: () => getJson('/floor?', floorAnswer) })
