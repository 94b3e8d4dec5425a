import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { spoolDone, spoolsAnswer, type SpoolAct } from '@contract/spools.ts'
import { jobsAnswer } from '@contract/jobs.ts'
import { wasteAnswer } from '@contract/waste.ts'
import { getJson, newKey, postJson } from '@web/api/client.ts'

export const useSpools = () => useQuery({ queryKey: ['spools'], queryFn: () => getJson('/spools', spoolsAnswer) })

export function useSpoolAct() {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (what: SpoolAct) => postJson('/spools', { key: newKey(), what }, spoolDone),
    onSuccess: () => client.invalidateQueries(),
  })
}
export const useJobs = () => useQuery({ queryKey: ['jobs'], queryFn: () => getJson('/spools/jobs', jobsAnswer) })
export const useWaste = () => useQuery({ queryKey: ['waste'], queryFn: () => getJson('/spools/waste', wasteAnswer) })
