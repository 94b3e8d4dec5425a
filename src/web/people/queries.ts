import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type z } from 'zod'
import { done } from '@contract/common.ts'
import {
  broughtBack,
  deviceLinkAnswer,
  meAnswer,
  type deviceLinkRequest,
  type firstLeadRequest,
  type passwordRequest,
  type personRequest,
  type signInRequest,
} from '@contract/people.ts'
import { getJson, postFile, postJson } from '@web/api/client.ts'

export const meQuery = { queryKey: ['me'], queryFn: () => getJson('/people/me', meAnswer), staleTime: 60_000 }
export const useMe = () => useQuery(meQuery)
/** Leads and instructors may change how the shop is set up. */
export function useIsLead(): boolean {
  const role = useMe().data?.person?.role
  return role === 'lead' || role === 'instructor'
}
/** People, devices and the whole shop as one file are a lead's alone. */
export const useIsOwner = (): boolean => useMe().data?.person?.role === 'lead'

function useFresh<T>(send: (input: T) => Promise<unknown>) {
  const client = useQueryClient()
  return useMutation({ mutationFn: send, onSuccess: () => client.invalidateQueries() })
}
export const useSignIn = () => useFresh((r: z.infer<typeof signInRequest>) => postJson('/people/sign-in', r, done))
export const useChangePassword = () =>
  useFresh((r: z.infer<typeof passwordRequest>) => postJson('/people/password', r, done))
export const useFirstLead = () =>
  useFresh((r: z.infer<typeof firstLeadRequest>) => postJson('/people/first-lead', r, done))
/** A whole shop from its file, into this empty one. */
export function useBringBack() {
  const client = useQueryClient()
  const mutationFn = (file: File) => postFile('/shop/whole', file, broughtBack)
  return useMutation({ mutationFn, onSuccess: () => client.invalidateQueries() })
}
/** What this device kept for use without a link was for whoever was signed in. */
const forgetAnswers = () =>
  'caches' in globalThis ? caches.delete('answers').catch(() => false) : Promise.resolve(false)
export const useSignOut = () =>
  useFresh(async () => {
    const answer = await postJson('/people/sign-out', {}, done)
    await forgetAnswers()
    return answer
  })
export const useBind = () => useFresh((token: string) => postJson('/people/bind', { token }, done))
export const useSavePerson = () => useFresh((r: z.input<typeof personRequest>) => postJson('/people/person', r, done))
export const useDropDevice = () =>
  useFresh((r: { key: string; deviceId: string }) => postJson('/people/device-drop', r, done))
export const useDeviceLink = () =>
  useMutation({
    mutationFn: (r: z.infer<typeof deviceLinkRequest>) => postJson('/people/device-link', r, deviceLinkAnswer),
  })
