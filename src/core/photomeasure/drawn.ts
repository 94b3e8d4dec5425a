import { drawNormal } from '@core/random/random.ts'
import { type Gray } from './gray.ts'

/** A made-up end-on picture of a tip with known answers, for tests: what is told here is not told to the engine. */
export interface DrawnTip {
  pxPerMm: number
  outerMm: number
  boreMaxMm: number
  boreMinMm: number
  ovalAngleRad: number
  /** Seen from the side by so much, about an axis. */
  tiltRad: number
  tiltAxisRad: number
  blurPx: number
  noise: number
  /** A bright patch over one side of the face, 0 none. */
  glare: number
  random: () => number
}
const FACE = 170
const GROUND = 45
const HOLE = 25
const SUB = 2

export function drawTip(of: DrawnTip): Gray {
  const size = Math.ceil(of.outerMm * of.pxPerMm * 1.6)
  const off = { x: (of.random() - 0.5) * 6, y: (of.random() - 0.5) * 6 }
  return drawn(size, of, (x, y) =>
    brightness(of, (x - size / 2 - off.x) / of.pxPerMm, (y - size / 2 - off.y) / of.pxPerMm),
  )
}

/** A square picture of what has such a brightness: each pixel by four places in it, then soft, then noisy. */
function drawn(
  size: number,
  of: Pick<DrawnTip, 'blurPx' | 'noise' | 'random'>,
  light: (x: number, y: number) => number,
): Gray {
  const data = new Float32Array(size * size)
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) {
      let sum = 0
      for (let i = 0; i < SUB * SUB; i++)
        sum += light(x - 0.5 + ((i % SUB) + 0.5) / SUB, y - 0.5 + (Math.floor(i / SUB) + 0.5) / SUB)
      data[y * size + x] = sum / SUB ** 2
    }
  const image = { width: size, height: size, data }
  const soft = of.blurPx > 0 ? blurred(image, of.blurPx) : image
  for (let i = 0; i < soft.data.length; i++)
    soft.data[i] = Math.min(255, Math.max(0, (soft.data[i] ?? 0) + of.noise * drawNormal(of.random)))
  return soft
}

/** Brightness at a place of the picture, mm from its middle: turned back to the face, which is what was tilted. */
function brightness(of: DrawnTip, x: number, y: number): number {
  const [c, s] = [Math.cos(of.tiltAxisRad), Math.sin(of.tiltAxisRad)]
  const along = c * x + s * y
  const across = (-s * x + c * y) / Math.cos(of.tiltRad)
  const [fx, fy] = [c * along - s * across, s * along + c * across]
  if (Math.hypot(fx, fy) > of.outerMm / 2) return GROUND
  const [oc, os] = [Math.cos(of.ovalAngleRad), Math.sin(of.ovalAngleRad)]
  const u = (oc * fx + os * fy) / (of.boreMaxMm / 2)
  const v = (-os * fx + oc * fy) / (of.boreMinMm / 2)
  if (u * u + v * v < 1) return HOLE
  const shine = of.glare * Math.exp(-((fx - of.outerMm * 0.2) ** 2 + (fy + of.outerMm * 0.15) ** 2) / of.outerMm)
  return Math.min(255, FACE + shine)
}

/** Gaussian, one axis after the other. */
function blurred({ width, height, data }: Gray, sigma: number): Gray {
  const reach = Math.ceil(3 * sigma)
  const kernel = Array.from({ length: 2 * reach + 1 }, (_, i) => Math.exp(-((i - reach) ** 2) / (2 * sigma ** 2)))
  const whole = kernel.reduce((s, k) => s + k, 0)
  const pass = (from: Float32Array, stepX: number, stepY: number) => {
    const out = new Float32Array(from.length)
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        let sum = 0
        for (let i = -reach; i <= reach; i++) {
          const px = Math.min(width - 1, Math.max(0, x + i * stepX))
          const py = Math.min(height - 1, Math.max(0, y + i * stepY))
          sum += (kernel[i + reach] ?? 0) * (from[py * width + px] ?? 0)
        }
        out[y * width + x] = sum / whole
      }
    return out
  }
  return { width, height, data: pass(pass(data, 1, 0), 0, 1) }
}

/** A made-up picture from the side with known answers: a tube of known width, and a block so far before its end. */
export interface DrawnSide {
  pxPerMm: number
  knownMm: number
  gapMm: number
  /** Turned in the picture. */
  turnRad: number
  /** Seen from the side: what lies further along is smaller, a share a millimetre. */
  slantPerMm: number
  blurPx: number
  noise: number
  random: () => number
}
const TUBE_MM = 13
const BLOCK_MM = 4
const BLOCK_HALF_MM = 9
const TUBE_LIGHT = 150
const BLOCK_LIGHT = 190

/** Where a place on the thing lies on the picture, px. */
export function sidePlace(
  of: Pick<DrawnSide, 'pxPerMm' | 'turnRad' | 'slantPerMm'>,
  size: number,
  [x, y]: readonly [number, number],
) {
  const w = 1 + of.slantPerMm * x
  const [c, s] = [Math.cos(of.turnRad), Math.sin(of.turnRad)]
  const [px, py] = [(x / w) * of.pxPerMm, (y / w) * of.pxPerMm]
  return { x: size / 2 + c * px - s * py, y: size / 2 + s * px + c * py }
}

export function drawSide(of: DrawnSide): Gray {
  const size = Math.ceil(of.pxPerMm * 2.1 * Math.max(TUBE_MM, of.gapMm + BLOCK_MM))
  const [c, s] = [Math.cos(of.turnRad), Math.sin(of.turnRad)]
  const light = (px: number, py: number): number => {
    const [dx, dy] = [(px - size / 2) / of.pxPerMm, (py - size / 2) / of.pxPerMm]
    const [u, v] = [c * dx + s * dy, -s * dx + c * dy]
    const x = u / (1 - of.slantPerMm * u)
    const y = v * (1 + of.slantPerMm * x)
    if (x <= 0 && x >= -TUBE_MM && Math.abs(y) <= of.knownMm / 2) return TUBE_LIGHT - 30 * Math.abs(y / of.knownMm)
    if (x >= of.gapMm && x <= of.gapMm + BLOCK_MM && Math.abs(y) <= BLOCK_HALF_MM) return BLOCK_LIGHT
    return GROUND
  }
  return drawn(size, of, light)
}
