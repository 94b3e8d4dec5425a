import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type PhotoOf } from '@core/photo/photo.ts'
import { done } from '@contract/common.ts'
import { photosAnswer } from '@contract/photo.ts'
import { getJson, newKey, postJson } from '@web/api/client.ts'
import { outbox } from './keeping.ts'
import { filmed } from './filmed.ts'
import { shrink } from './shrink.ts'

const query = (of: PhotoOf) => new URLSearchParams({ type: of.type, key: of.key }).toString()

export const usePhotos = (of: PhotoOf) =>
  useQuery({ queryKey: ['photo', of.type, of.key], queryFn: () => getJson(`/photo?${query(of)}`, photosAnswer) })

/** Made small, kept on the device, and sent as soon as there is a link. */
export const keepPhoto = async (of: PhotoOf, file: File) =>
  outbox.add({ once: newKey(), of, blob: await shrink(file), atMs: Date.now() })
/** A film made a clip on the device; it goes by the way of photos. */
export const keepClip = async (of: PhotoOf, file: File) =>
  outbox.add({ once: newKey(), of, ...(await filmed(file)), atMs: Date.now() })
export const useKeepPhoto = (of: PhotoOf) =>
  useMutation({
    mutationFn: (file: File) => (file.type.startsWith('video/') ? keepClip(of, file) : keepPhoto(of, file)),
  })
export function useHidePhoto() {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (id: string) => postJson('/photo/hide', { key: newKey(), id }, done),
    onSuccess: () => client.invalidateQueries({ queryKey: ['photo'] }),
  })
}
