import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type z } from 'zod'
import { choicesAnswer, type choiceRequest } from '@contract/houserule.ts'
import { done } from '@contract/common.ts'
import { getJson, newKey, postJson } from '@web/api/client.ts'

export const useChoices = () =>
  useQuery({ queryKey: ['houserule'], queryFn: () => getJson('/houserule', choicesAnswer), staleTime: 30_000 })

export function useChoose() {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (r: Omit<z.input<typeof choiceRequest>, 'key'>) =>
      postJson('/houserule', { key: newKey(), ...r }, done),
    onSuccess: () => client.invalidateQueries(),
  })
}
