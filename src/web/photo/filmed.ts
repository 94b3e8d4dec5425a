import { cellOf, clipPlan, rowsOf, type Clip } from '@core/photo/clip.ts'
import { ApiError } from '@web/api/client.ts'

const QUALITY = 0.8
/** A device that opens or seeks no faster than this does not play it at all. */
const LONGEST_MS = 15_000
const unreadable = () =>
  new ApiError({
    code: 'sheet-refused',
    message: 'This device can’t read that film.',
    details: ['Film it with the camera of this device, or take a photo. Nothing was kept.'],
  })

/** Pictures of a film in rows on one JPEG, made on the device: sound, place and time stay behind. */
export async function filmed(file: Blob): Promise<{ blob: Blob; clip: Clip }> {
  const url = URL.createObjectURL(file)
  const video = document.createElement('video')
  try {
    video.muted = true
    video.playsInline = true
    video.preload = 'auto'
    video.src = url
    await told(video, 'loadeddata')
    return await sheetOf(video, await lengthOf(video))
  } finally {
    video.removeAttribute('src')
    URL.revokeObjectURL(url)
  }
}

/** A film that was made in a browser does not say how long it is until its end was looked for. */
async function lengthOf(video: HTMLVideoElement): Promise<number> {
  if (Number.isFinite(video.duration)) return video.duration
  video.currentTime = Number.MAX_SAFE_INTEGER
  await told(video, 'durationchange')
  return video.duration
}

async function sheetOf(video: HTMLVideoElement, seconds: number): Promise<{ blob: Blob; clip: Clip }> {
  if (!(seconds > 0 && video.videoWidth > 0)) throw unreadable()
  const { clip, frame, atS } = clipPlan({ seconds, width: video.videoWidth, height: video.videoHeight })
  const canvas = document.createElement('canvas')
  canvas.width = frame.width * clip.perRow
  canvas.height = frame.height * rowsOf(clip)
  const context = canvas.getContext('2d')
  for (const [i, at] of atS.entries()) {
    if (video.currentTime !== at) {
      const isThere = told(video, 'seeked')
      video.currentTime = at
      await isThere
    }
    const { column, row } = cellOf(clip, i)
    context?.drawImage(video, column * frame.width, row * frame.height, frame.width, frame.height)
  }
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', QUALITY))
  if (!blob) throw unreadable()
  return { blob, clip }
}

function told(video: HTMLVideoElement, event: 'loadeddata' | 'durationchange' | 'seeked'): Promise<void> {
  return new Promise((done, fail) => {
    const over = (then: () => void) => () => {
      clearTimeout(timer)
      video.removeEventListener(event, came)
      video.removeEventListener('error', off)
      then()
    }
    const came = over(done)
    const off = over(() => fail(unreadable()))
    const timer = setTimeout(off, LONGEST_MS)
    video.addEventListener(event, came)
    video.addEventListener('error', off)
  })
}
