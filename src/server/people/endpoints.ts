import { z } from 'zod'
import { done, idOf, idempotencyKey } from '@contract/common.ts'
import { deviceLinkAnswer, deviceLinkRequest, meAnswer, personRequest } from '@contract/people.ts'
import { endpoint } from '@server/call/routes.ts'
import { dropDevice, makeDeviceLink, me, savePerson } from './people.ts'

/** Signing in and binding a device set cookies and live beside the app; the rest is here. */
export const peopleEndpoints = [
  endpoint({
    method: 'get',
    path: '/people/me',
    summary: 'Who is signed in here, and which place this device belongs to',
    answer: meAnswer,
    run: (deps, who) => me(deps, who),
  }),
  endpoint({
    method: 'post',
    path: '/people/person',
    summary: 'Add or change a person',
    body: personRequest,
    answer: done,
    run: (deps, who, { body }) => savePerson(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/people/device-link',
    summary: 'A one-time link that binds a device to a place',
    body: deviceLinkRequest,
    answer: deviceLinkAnswer,
    run: (deps, who, { body }) => makeDeviceLink(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/people/device-drop',
    summary: 'A device no longer belongs here',
    body: z.object({ key: idempotencyKey, deviceId: idOf('device') }),
    answer: done,
    run: (deps, who, { body }) => dropDevice(deps, who, body),
  }),
]
