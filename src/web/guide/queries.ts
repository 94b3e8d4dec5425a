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
import { readingDone, type readingRequest } from '@contract/reading.ts'
import { FOLLOW_UP_TEXT } from '@core/followup/followup.ts'
import { GUIDES } from '@core/guide/guides.ts'
import { type followUpRequest } from '@contract/followup.ts'
import { type GuideKey } from '@core/guide/keys.ts'
import { capital } from '@web/format/words.ts'
import { getJson } from '@web/api/client.ts'
import { useBoothWrite, useWrite, type Body } from '@web/offline/write.ts'

export interface GuideAsked {
  stationId: string | null
  familyId: string | null
  guide: GuideKey | null
}
export function guideAddress(q: GuideAsked): string {
  const params = new URLSearchParams()
  if (q.stationId) params.set('stationId', q.stationId)
  if (q.familyId) params.set('familyId', q.familyId)
  if (q.guide) params.set('guide', q.guide)
  return `/guide?${params.toString()}`
}
export const useGuide = (q: GuideAsked) =>
  useQuery({
    queryKey: ['guide', q],
    queryFn: () => getJson(guideAddress(q), guideAnswer),
    // It is worked through with hands on the gun: it must not change under them.
    refetchOnWindowFocus: false,
  })
export const useCautions = () =>
  useQuery({ queryKey: ['cautions'], queryFn: () => getJson('/guide/cautions', cautionsAnswer) })

export const useGuideDone = () =>
  useBoothWrite<typeof guideDoneRequest, typeof loggedAnswer>({
    path: '/guide/done',
    answer: loggedAnswer,
    says: ({ guide }) => `${GUIDES[guide].name}: done`,
  })
/** The knob as it stands, before anybody opens its arm. */
export const useNoteMark = () =>
  useBoothWrite<typeof readingRequest, typeof readingDone>({
    path: '/reading',
    answer: readingDone,
    says: ({ value }) => `Knob at ${value ?? ''}`,
  })
export const useGuideNote = () => useWrite<Body<typeof guideNoteRequest>, typeof done>('/guide/note', done)
export const useSetCaution = () => useWrite<Body<typeof cautionRequest>, typeof done>('/guide/caution', done)
export const useNearMiss = () =>
  useBoothWrite<typeof nearMissRequest, typeof done>({
    path: '/guide/nearmiss',
    answer: done,
    says: () => 'A near miss',
  })
export const useFollowedUp = () =>
  useBoothWrite<typeof followUpRequest, typeof done>({
    path: '/followup',
    answer: done,
    says: ({ task }) => capital(FOLLOW_UP_TEXT[task].done),
  })
