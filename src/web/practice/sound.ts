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
