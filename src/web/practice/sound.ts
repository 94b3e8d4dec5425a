import { SOUND_HZ } from '@core/practice/sound.ts'

let context: AudioContext | null = null
let playing: AudioBufferSourceNode | null = null
const LOUDNESS = 0.5
const MUTED = 'idle-booth-muted'
/** Kept on the device: a hall is loud, an office is not. */
export const isMuted = () => localStorage.getItem(MUTED) !== null
export function mute(isOff: boolean): void {
  if (isOff) localStorage.setItem(MUTED, 'yes')
  else localStorage.removeItem(MUTED)
  stopWave()
}

/**
 * Makes the browser’s audio ready while nobody touches the page: its first start in a browser takes as long as a tenth of a second, and would be felt
 * at the trigger. Answers how to leave it.
 */
export function warmSound(): () => void {
  if (typeof AudioContext === 'undefined' || context || isMuted()) return () => undefined
  const make = () => {
    context ??= new AudioContext()
  }
  if (typeof requestIdleCallback === 'undefined') {
    const timer = setTimeout(make, IDLE_MS)
    return () => clearTimeout(timer)
  }
  const idle = requestIdleCallback(make, { timeout: IDLE_MS })
  return () => cancelIdleCallback(idle)
}
const IDLE_MS = 1500

/** A wave through the device's own speaker; what played before stops. Without one, or where it may not, nothing happens: the words say it too. */
export function playWave(wave: Float32Array<ArrayBuffer>): void {
  if (typeof AudioContext === 'undefined' || isMuted()) return
  context ??= new AudioContext()
  void context.resume()
  stopWave()
  const buffer = context.createBuffer(1, wave.length, SOUND_HZ)
  buffer.copyToChannel(wave, 0)
  const gain = context.createGain()
  gain.gain.value = LOUDNESS
  playing = context.createBufferSource()
  playing.buffer = buffer
  playing.connect(gain).connect(context.destination)
  playing.start()
}
export function stopWave(): void {
  playing?.stop()
  playing = null
}
