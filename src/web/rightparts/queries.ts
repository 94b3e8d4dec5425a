import { useQuery } from '@tanstack/react-query'
import { done } from '@contract/common.ts'
import {
  issueAnswer,
  jointsAnswer,
  lookAnswer,
  lookedAnswer,
  type issueRequest,
  type jointRequest,
  type keepRequest,
  type lookRequest,
  type setRequest,
  type tagRequest,
} from '@contract/rightparts.ts'
import { getJson } from '@web/api/client.ts'
import { useWrite, type Body } from '@web/api/write.ts'

export const useFirstLook = (areaId: string | null) =>
  useQuery({
    queryKey: ['look', areaId],
    queryFn: () => getJson(`/rightparts/look${areaId ? `?areaId=${areaId}` : ''}`, lookAnswer),
  })
export const useJoints = () =>
  useQuery({ queryKey: ['joints'], queryFn: () => getJson('/rightparts/joints', jointsAnswer) })

export const useLook = () => useWrite<Body<typeof lookRequest>, typeof lookedAnswer>('/rightparts/look', lookedAnswer)
export const useSet = () => useWrite<Body<typeof setRequest>, typeof done>('/rightparts/set', done)
export const useKeep = () => useWrite<Body<typeof keepRequest>, typeof done>('/rightparts/keep', done)
export const useTag = () => useWrite<Body<typeof tagRequest>, typeof done>('/rightparts/tag', done)
export const useJoint = () => useWrite<Body<typeof jointRequest>, typeof done>('/rightparts/joint', done)
export const useIssue = () => useWrite<Body<typeof issueRequest>, typeof issueAnswer>('/parts/issue', issueAnswer)
