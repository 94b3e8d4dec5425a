import { useQuery } from '@tanstack/react-query'
import { quizAnswer, quizKnown, type quizTakenRequest, techniqueAnswer, type techniqueTold } from '@contract/classes.ts'
import { done } from '@contract/common.ts'
import { getJson } from '@web/api/client.ts'
import { useBoothWrite } from '@web/offline/write.ts'

export const useQuiz = (gun: string, seed: string) =>
  useQuery({
    queryKey: ['quiz', gun, seed],
    queryFn: () => {
      const asked = new URLSearchParams({ ...(gun ? { stationId: gun } : {}), ...(seed ? { seed } : {}) }).toString()
      return getJson(`/classes/quiz${asked ? `?${asked}` : ''}`, quizAnswer)
    },
    staleTime: Infinity,
  })
export const useKeepQuiz = () =>
  useBoothWrite<typeof quizTakenRequest, typeof done>({
    path: '/classes/quiz',
    answer: done,
    says: () => 'Answers to a quiz',
    holds: 'quiz',
  })
export const useKnown = () => useQuery({ queryKey: ['known'], queryFn: () => getJson('/classes/known', quizKnown) })

export const useTechnique = (of: { stationId: string; joint: string; position: string }) =>
  useQuery({
    queryKey: ['technique', of.stationId, of.joint, of.position],
    queryFn: () => getJson(`/classes/technique?${new URLSearchParams(of).toString()}`, techniqueAnswer),
    enabled: of.stationId !== '',
  })
export const useTold = () =>
  useBoothWrite<typeof techniqueTold, typeof done>({
    path: '/classes/technique',
    answer: done,
    says: () => 'What a bead turned out to be',
  })
