import { useEffect, useRef, useState } from 'react'
import { Button } from 'react-bootstrap'
import { field, TextField } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { codeInImage, codeInVideo } from './decode.ts'
import { scanSentence } from './scanwords.ts'
import { useScan } from './useScan.ts'

/** The camera where it may be used, a photo of the code where not, and the number typed where neither works. */
export function ScanPage() {
  const scan = useScan()
  const [typed, setTyped] = useState('')
  const [problem, setProblem] = useState('')
  const say = (code: string | null) => {
    setProblem(code === null ? 'No code was found in that picture. Go closer, hold still, and try again.' : '')
    if (code !== null) scan.mutate({ code })
  }
  const photo = async (file: File | undefined) => {
    if (file) say(await codeInImage(file).catch(() => null))
  }
  return (
    <main className="narrow scan">
      <h1>Scan</h1>
      {canUseCamera() ? <Camera onCode={say} /> : <NoCamera />}
      <TextField
        id="scan-photo"
        label="or a photo of the code"
        type="file"
        accept="image/*"
        capture="environment"
        onChange={(e) => void photo((e.target as HTMLInputElement).files?.[0])}
      />
      <form
        className="d-flex gap-2 align-items-end mt-3"
        onSubmit={(e) => {
          e.preventDefault()
          say(typed.includes('/go/') ? typed : `/go/${typed.trim()}`)
        }}
      >
        <TextField id="scan-typed" label="or the number on the gun" {...field(typed, setTyped)} />
        <Button type="submit" disabled={!typed.trim()}>
          Open
        </Button>
      </form>
      {problem ? (
        <p className="trouble" role="alert">
          {problem}
        </p>
      ) : null}
      <Trouble problem={scan.error} />
      {scan.data ? (
        <p className="scan-said" role="status">
          {scanSentence(scan.data)}
        </p>
      ) : null}
    </main>
  )
}

const canUseCamera = () => window.isSecureContext && 'mediaDevices' in navigator

function NoCamera() {
  return (
    <p className="said">
      The camera is off here: this page did not come over a secure line. Take a photo of the code instead, or ask the
      lead to start the program with --lan and trust its certificate on this device.
    </p>
  )
}

const LOOK_MS = 180

function Camera({ onCode }: { onCode: (code: string) => void }) {
  const video = useRef<HTMLVideoElement>(null)
  const [isOn, setOn] = useState(false)
  const [problem, setProblem] = useState('')
  const tell = useRef(onCode)
  tell.current = onCode
  useEffect(() => {
    if (!isOn) return
    return watch(video.current, (code) => tell.current(code), setProblem)
  }, [isOn])
  return (
    <>
      {isOn ? <video ref={video} className="scan-video" playsInline muted aria-label="What the camera sees" /> : null}
      <Button variant="chalk" className="key" onClick={() => setOn(!isOn)}>
        {isOn ? 'Stop the camera' : 'Use the camera'}
      </Button>
      {problem ? <p className="trouble">{problem}</p> : null}
    </>
  )
}

/** Looks at the picture a few times a second; the same code in a row is told once. Answers how to stop. */
function watch(
  video: HTMLVideoElement | null,
  onCode: (code: string) => void,
  onProblem: (text: string) => void,
): () => void {
  let stream: MediaStream | null = null
  let last = ''
  let isStopped = false
  const timer = setInterval(() => {
    const code = video ? codeInVideo(video) : null
    if (code !== null && code !== last) onCode(code)
    if (code !== null) last = code
  }, LOOK_MS)
  navigator.mediaDevices
    .getUserMedia({ video: { facingMode: 'environment' } })
    .then(async (given) => {
      if (isStopped) return given.getTracks().forEach((track) => track.stop())
      stream = given
      if (video) {
        video.srcObject = given
        await video.play()
      }
    })
    .catch(() => onProblem('The camera could not be used. Allow it for this page, or take a photo instead.'))
  return () => {
    isStopped = true
    clearInterval(timer)
    stream?.getTracks().forEach((track) => track.stop())
  }
}
