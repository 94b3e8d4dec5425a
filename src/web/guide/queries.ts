import { useQuery } from '@tanstack/react-query'
import { done } from '@contract/common.ts'
import {
  type cautionRequest,
  cautionsAnswer,
  guideAnswer,
  type guideDoneRequest,
  type guideNoteRequest,
  loggedAnswer,
  type nearMissRequest,
} from '@contract/guide.ts'
import { type followUpRequest } from '@contract/followup.ts'
import { type GuideKey } from '@core/guide/keys.ts'
import { getJson } from '@web/api/client.ts'
import { useWrite, type Body } from '@web/api/write.ts'

export interface GuideAsked {
  stationId: string | null
  familyId: string | null
  guide: GuideKey | null
}
export const useGuide = (q: GuideAsked) =>
  useQuery({
    queryKey: ['guide', q],
    queryFn: () => {
      const params = new URLSearchParams()
      if (q.stationId) params.set('stationId', q.stationId)
      if (q.familyId) params.set('familyId', q.familyId)
      if (q.guide) params.set('guide', q.guide)
      return getJson(`/guide?${params.toString()}`, guideAnswer)
    },
    // It is worked through with hands on the gun: it must not change under them.
    refetchOnWindowFocus: false,
  })
export const useCautions = () =>
  useQuery({ queryKey: ['cautions'], queryFn: () => getJson('/guide/cautions', cautionsAnswer) })

export const useGuideDone = () =>
  useWrite<Body<typeof guideDoneRequest>, typeof loggedAnswer>('/guide/done', loggedAnswer)
export const useGuideNote = () => useWrite<Body<typeof guideNoteRequest>, typeof done>('/guide/note', done)
export const useSetCaution = () => useWrite<Body<typeof cautionRequest>, typeof done>('/guide/caution', done)
export const useNearMiss = () => useWrite<Body<typeof nearMissRequest>, typeof done>('/guide/nearmiss', done)
export const useFollowedUp = () => useWrite<Body<typeof followUpRequest>, typeof done>('/followup', done)
