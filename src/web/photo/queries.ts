import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type PhotoOf } from '@core/photo/photo.ts'
import { done } from '@contract/common.ts'
import { photoKept, photosAnswer } from '@contract/photo.ts'
import { getJson, newKey, postFile, postJson } from '@web/api/client.ts'
import { shrink } from './shrink.ts'

const query = (of: PhotoOf) => new URLSearchParams({ type: of.type, key: of.key }).toString()

export const usePhotos = (of: PhotoOf) =>
  useQuery({ queryKey: ['photo', of.type, of.key], queryFn: () => getJson(`/photo?${query(of)}`, photosAnswer) })

export function useKeepPhoto(of: PhotoOf) {
  const client = useQueryClient()
  return useMutation({
    mutationFn: async (file: File) => postFile(`/photo?${query(of)}&once=${newKey()}`, await shrink(file), photoKept),
    onSuccess: () => client.invalidateQueries({ queryKey: ['photo'] }),
  })
}
export function useHidePhoto() {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (id: string) => postJson('/photo/hide', { key: newKey(), id }, done),
    onSuccess: () => client.invalidateQueries({ queryKey: ['photo'] }),
  })
}
