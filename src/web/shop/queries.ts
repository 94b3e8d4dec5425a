import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type z } from 'zod'
import { done } from '@contract/common.ts'
import { importAnswer, importPreview, type ImportRequest } from '@contract/ingest.ts'
import { placesAnswer, shopAnswer, type placesRequest } from '@contract/shop.ts'
import { getJson, newKey, postJson } from '@web/api/client.ts'

export const useShop = () =>
  useQuery({ queryKey: ['shop'], queryFn: () => getJson('/shop', shopAnswer), staleTime: 30_000 })

function useAll() {
  const client = useQueryClient()
  return () => client.invalidateQueries()
}

/** Any change of the set-up: what is sent, and a fresh key for it. */
export function useSave(path: string) {
  const onSuccess = useAll()
  return useMutation({
    mutationFn: (body: Record<string, unknown>) => postJson(path, { key: newKey(), ...body }, done),
    onSuccess,
  })
}
export function useMakePlaces() {
  const onSuccess = useAll()
  return useMutation({
    mutationFn: (body: Omit<z.input<typeof placesRequest>, 'key'>) =>
      postJson('/shop/places', { key: newKey(), ...body }, placesAnswer),
    onSuccess,
  })
}
export const usePreview = () =>
  useMutation({ mutationFn: (r: ImportRequest) => postJson('/ingest/preview', r, importPreview) })
export function useTakeIn() {
  const onSuccess = useAll()
  return useMutation({ mutationFn: (r: ImportRequest) => postJson('/ingest', r, importAnswer), onSuccess })
}
