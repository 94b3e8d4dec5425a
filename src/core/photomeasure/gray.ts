/** A picture as brightness, 0 to 255, row by row. */
export interface Gray {
  width: number
  height: number
  data: Float32Array
}

/** Brightness of RGBA pixels by Rec. 601 weights. */
export function grayOf(rgba: Uint8ClampedArray, width: number, height: number): Gray {
  if (rgba.length !== width * height * 4)
    throw new RangeError(`grayOf: expected ${width * height * 4} bytes, got ${rgba.length}`)
  const data = new Float32Array(width * height)
  for (let i = 0; i < data.length; i++)
    data[i] = 0.299 * (rgba[4 * i] ?? 0) + 0.587 * (rgba[4 * i + 1] ?? 0) + 0.114 * (rgba[4 * i + 2] ?? 0)
  return { width, height, data }
}

/** Brightness between pixels, bilinear; beyond the edge the edge goes on. Pixel centres lie at whole numbers. */
export function sample({ width, height, data }: Gray, x: number, y: number): number {
  const cx = Math.min(Math.max(x, 0), width - 1)
  const cy = Math.min(Math.max(y, 0), height - 1)
  const [x0, y0] = [Math.floor(cx), Math.floor(cy)]
  const [x1, y1] = [Math.min(x0 + 1, width - 1), Math.min(y0 + 1, height - 1)]
  const [fx, fy] = [cx - x0, cy - y0]
  const at = (px: number, py: number) => data[py * width + px] ?? 0
  return (
    at(x0, y0) * (1 - fx) * (1 - fy) + at(x1, y0) * fx * (1 - fy) + at(x0, y1) * (1 - fx) * fy + at(x1, y1) * fx * fy
  )
}
