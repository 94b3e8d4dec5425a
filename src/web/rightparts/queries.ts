import { useQuery } from '@tanstack/react-query'
import { TAG_TEXT } from '@core/changeover/tags.ts'
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
import { useBoothWrite, useWrite, type Body } from '@web/offline/write.ts'

export const useFirstLook = (areaId: string | null) =>
  useQuery({
    queryKey: ['look', areaId],
    queryFn: () => getJson(`/rightparts/look${areaId ? `?areaId=${areaId}` : ''}`, lookAnswer),
  })
export const useJoints = () =>
  useQuery({ queryKey: ['joints'], queryFn: () => getJson('/rightparts/joints', jointsAnswer) })

export const useLook = () =>
  useBoothWrite<typeof lookRequest, typeof lookedAnswer>({
    path: '/rightparts/look',
    answer: lookedAnswer,
    says: () => 'Looked at a gun: what is on it',
  })
export const useSet = () =>
  useBoothWrite<typeof setRequest, typeof done>({
    path: '/rightparts/set',
    answer: done,
    says: ({ settings }) => (settings.length === 1 ? 'A setting' : 'Settings'),
  })
export const useKeep = () => useWrite<Body<typeof keepRequest>, typeof done>('/rightparts/keep', done)
export const useTag = () =>
  useBoothWrite<typeof tagRequest, typeof done>({
    path: '/rightparts/tag',
    answer: done,
    says: ({ tag, isBack }) => (isBack ? `Put back: ${TAG_TEXT[tag].says}` : `Tied: ${TAG_TEXT[tag].says}`),
  })
export const useJoint = () =>
  useBoothWrite<typeof jointRequest, typeof done>({
    path: '/rightparts/joint',
    answer: done,
    says: () => 'A joint that gave trouble',
  })
export const useIssue = () => useWrite<Body<typeof issueRequest>, typeof issueAnswer>('/parts/issue', issueAnswer)
