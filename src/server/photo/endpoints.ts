import { done } from '@contract/common.ts'
import { photoHide, photoOf, photosAnswer } from '@contract/photo.ts'
import { endpoint } from '@server/call/routes.ts'
import { hidePhoto, listPhotos } from './photos.ts'

export const photoEndpoints = [
  endpoint({
    method: 'get',
    path: '/photo',
    summary: 'Photos of a position, spool, part, line of the log or guide; a picture is at /photo/{id}.jpg',
    query: photoOf,
    answer: photosAnswer,
    run: (deps, who, { query }) => listPhotos(deps, who, query),
  }),
  endpoint({
    method: 'post',
    path: '/photo/hide',
    summary: 'Take a photo back: kept, no longer shown',
    body: photoHide,
    answer: done,
    run: (deps, who, { body }) => hidePhoto(deps, who, body),
  }),
]
