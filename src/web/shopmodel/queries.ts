import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { done } from '@contract/common.ts'
import {
  importAnswer,
  importPreview,
  progressAnswer,
  readFileAnswer,
  type ImportRequest,
  type PreviewRequest,
} from '@contract/ingest.ts'
import { feederAnswer } from '@contract/telemetry.ts'
import { placesAnswer, shopAnswer, type placesRequest } from '@contract/shop.ts'
import { getJson, newKey, postFile, postJson } from '@web/api/client.ts'
import { useWrite, type Body } from '@web/offline/write.ts'

export const useShop = () =>
  useQuery({ queryKey: ['shop'], queryFn: () => getJson('/shop', shopAnswer), staleTime: 30_000 })

/** Any change of the set-up: what is sent, and a fresh key for it. */
export const useSave = (path: string) => useWrite<Record<string, unknown>, typeof done>(path, done)
export const useMakePlaces = () =>
  useWrite<Body<typeof placesRequest>, typeof placesAnswer>('/shop/places', placesAnswer)
export const useMakeFeeder = () =>
  useMutation({
    mutationFn: (body: { stationId: string; equipmentId: string }) =>
      postJson('/shop/feeder', { key: newKey(), ...body }, feederAnswer),
  })
export const useReadFile = () =>
  useMutation({
    mutationFn: ({ file, sheet }: { file: File; sheet?: string }) =>
      postFile(`/ingest/file${sheet ? `?sheet=${encodeURIComponent(sheet)}` : ''}`, file, readFileAnswer),
  })
const ASK_AGAIN_MS = 400
/** How far the import under this key is; asked for only while it runs. */
export const useProgress = (runKey: string, isRunning: boolean) =>
  useQuery({
    queryKey: ['progress', runKey],
    queryFn: () => getJson(`/ingest/progress?runKey=${runKey}`, progressAnswer),
    enabled: isRunning,
    refetchInterval: ASK_AGAIN_MS,
  })
export const useCancelImport = () =>
  useMutation({ mutationFn: (runKey: string) => postJson('/ingest/cancel', { runKey }, done) })
export const usePreview = () =>
  useMutation({ mutationFn: (r: PreviewRequest) => postJson('/ingest/preview', r, importPreview) })
export function useTakeIn() {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (r: ImportRequest) => postJson('/ingest/take', r, importAnswer),
    onSuccess: () => client.invalidateQueries(),
  })
}
