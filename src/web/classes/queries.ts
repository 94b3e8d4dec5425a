import { useQuery } from '@tanstack/react-query'
import {
  calendarAnswer,
  classesAnswer,
  type entryDrop,
  entryAnswer,
  type entryRequest,
  foundAnswer,
  type foundRequest,
  type groupRequest,
  groupsAnswer,
  icsPreview,
  icsTaken,
  type icsTakeRequest,
  type moveRequest,
  type taughtRequest,
  teachAnswer,
} from '@contract/classes.ts'
import { done } from '@contract/common.ts'
import { getJson } from '@web/api/client.ts'
import { useBoothWrite, useWrite, type Body } from '@web/offline/write.ts'

export const useClasses = (asked?: { entryId: string; day: string }) =>
  useQuery({
    queryKey: ['classes', asked?.entryId ?? '', asked?.day ?? ''],
    queryFn: () => getJson(`/classes${asked ? `?entryId=${asked.entryId}&day=${asked.day}` : ''}`, classesAnswer),
    refetchInterval: 60_000,
  })
export const useGroups = () =>
  useQuery({ queryKey: ['groups'], queryFn: () => getJson('/classes/groups', groupsAnswer) })
export const useTeach = () => useQuery({ queryKey: ['teach'], queryFn: () => getJson('/classes/teach', teachAnswer) })
export const useCalendar = (from: string) =>
  useQuery({
    queryKey: ['calendar', from],
    queryFn: () => getJson(`/calendar${from ? `?from=${from}` : ''}`, calendarAnswer),
  })

/** Nothing moves under the hands of whoever goes from booth to booth. */
export const useFound = () =>
  useBoothWrite<typeof foundRequest, typeof foundAnswer>({
    path: '/classes/found',
    answer: foundAnswer,
    says: () => 'A booth looked at before class',
  })
export const useSaveGroup = () => useWrite<Body<typeof groupRequest>, typeof done>('/classes/group', done)
export const useTaught = () => useWrite<Body<typeof taughtRequest>, typeof done>('/classes/taught', done)
export const useSaveEntry = () =>
  useWrite<Body<typeof entryRequest>, typeof entryAnswer>('/calendar/entry', entryAnswer)
export const useDropEntry = () => useWrite<Body<typeof entryDrop>, typeof done>('/calendar/drop', done)
export const useMove = () => useWrite<Body<typeof moveRequest>, typeof entryAnswer>('/calendar/move', entryAnswer)
export const useTakeIcs = () => useWrite<Body<typeof icsTakeRequest>, typeof icsTaken>('/calendar/take', icsTaken)
export const usePreviewIcs = () => useWrite<{ text: string }, typeof icsPreview>('/calendar/preview', icsPreview)
