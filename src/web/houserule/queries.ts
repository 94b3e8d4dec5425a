import { useQuery } from '@tanstack/react-query'
import { choicesAnswer, type choiceRequest } from '@contract/houserule.ts'
import { done } from '@contract/common.ts'
import { getJson } from '@web/api/client.ts'
import { useWrite, type Body } from '@web/offline/write.ts'

export const useChoices = () =>
  useQuery({ queryKey: ['houserule'], queryFn: () => getJson('/houserule', choicesAnswer), staleTime: 30_000 })

export const useChoose = () => useWrite<Body<typeof choiceRequest>, typeof done>('/houserule', done)
