import { useQuery } from '@tanstack/react-query'
import { calibrateAnswer, dragAnswer, type calibrateRequest } from '@contract/drag.ts'
import { getJson } from '@web/api/client.ts'
import { useWrite, type Body } from '@web/offline/write.ts'

export const useDrag = (stationId: string) =>
  useQuery({
    queryKey: ['drag', stationId],
    queryFn: () => getJson(`/drag?stationId=${stationId}`, dragAnswer),
    enabled: stationId !== '',
    refetchOnWindowFocus: false,
  })

export const useCalibrate = () =>
  useWrite<Body<typeof calibrateRequest>, typeof calibrateAnswer>('/drag/calibrate', calibrateAnswer)
