import { useQuery } from '@tanstack/react-query'
import { type Knowledge } from '@core/diagnose/knowledge.ts'
import { SHIPPED } from '@core/diagnose/shipped/knowledge.ts'
import { type Index } from '@core/diagnose/belief.ts'
import { done } from '@contract/common.ts'
import {
  practiceAnswer,
  skillAnswer,
  type attemptRequest,
  type drillSetEnd,
  type drillSetRequest,
} from '@contract/practice.ts'
import { getJson } from '@web/api/client.ts'
import { indexed as ready } from '@web/down/reckoned.ts'
import { useBoothWrite, useWrite, type Body } from '@web/offline/write.ts'

export const usePractice = () =>
  useQuery({ queryKey: ['practice'], queryFn: () => getJson('/practice', practiceAnswer), staleTime: 60_000 })
/** It is being asked for the first time; a device without a link, or a server that does not answer, keeps nobody from a drill. */
export const isWaiting = ({ isPending, fetchStatus, failureCount }: ReturnType<typeof usePractice>) =>
  isPending && fetchStatus === 'fetching' && failureCount === 0
export const useSkill = (isOn: boolean) =>
  useQuery({ queryKey: ['skill'], queryFn: () => getJson('/practice/skill', skillAnswer), enabled: isOn })
export const useKeepAttempt = () =>
  useBoothWrite<typeof attemptRequest, typeof done>({
    path: '/practice/attempt',
    answer: done,
    says: () => 'A drill in the practice booth',
    holds: 'practice',
  })
export const useSetDrills = () => useWrite<Body<typeof drillSetRequest>, typeof done>('/practice/set', done)
export const useEndSet = () => useWrite<Body<typeof drillSetEnd>, typeof done>('/practice/end', done)

/** The shop's own knowledge, made ready once; what ships, until it has come. */
export const indexed = (knowledge: Knowledge | undefined): Index => ready(knowledge ?? SHIPPED)
