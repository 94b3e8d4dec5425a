import { GROOVE_SHAPES, type Groove, type GrooveShape } from '@core/rightparts/facts.ts'
import { parseWireSize } from '@core/units/wiresize.ts'
import { PickOne, TextField } from '@web/kit/Field.tsx'

/** The two faces of a roll as typed: the number on each, and the groove under it. */
export type Faces = readonly [Face, Face]
interface Face {
  size: string
  shape: GrooveShape
}
export const facesOf = (grooves: readonly [Groove, Groove] | null): Faces => [
  faceOf(grooves?.[0]),
  faceOf(grooves?.[1]),
]
const faceOf = (groove: Groove | undefined): Face => ({
  size: groove ? `${groove.sizeMm} mm` : '',
  shape: groove?.shape ?? 'V',
})

type Read = { ok: true; grooves: [Groove, Groove] | null } | { ok: false; why: string }

/** Both faces, or none told. A face without a number cannot be told apart at the booth, so it is asked for. */
export function groovesOf(faces: Faces): Read {
  const [a, b] = faces
  if (!a.size.trim() && !b.size.trim()) return { ok: true, grooves: null }
  const read = faces.map((face, i) => ({ face, side: i + 1, size: parseWireSize(face.size) }))
  const bare = read.find(({ face }) => !face.size.trim())
  if (bare)
    return {
      ok: false,
      why: `Face ${bare.side} has no number: nobody can tell which way round it is. Write the size on it; with one groove, the same on both.`,
    }
  const grooves: Groove[] = []
  for (const { face, side, size } of read) {
    if (!size.ok) return { ok: false, why: `Face ${side}: ${size.reason}.` }
    grooves.push({ shape: face.shape, sizeMm: size.diameterMm })
  }
  const [first, second] = grooves
  return first && second ? { ok: true, grooves: [first, second] } : { ok: true, grooves: null }
}

export function FaceFields({ faces, onChange }: { faces: Faces; onChange: (faces: Faces) => void }) {
  const set = (i: number, change: Partial<Face>) => {
    const [a, b] = faces
    onChange(i === 0 ? [{ ...a, ...change }, b] : [a, { ...b, ...change }])
  }
  return faces.flatMap((face, i) => [
    <TextField
      key={`size-${i}`}
      id={`face-size-${i}`}
      label={`number on face ${i + 1}`}
      placeholder="0.9 mm, .035"
      value={face.size}
      onChange={(e) => set(i, { size: e.target.value })}
    />,
    <PickOne
      key={`shape-${i}`}
      id={`face-shape-${i}`}
      label={`groove of face ${i + 1}`}
      value={face.shape}
      options={GROOVE_SHAPES.map((s) => [s, s])}
      onPick={(v) => set(i, { shape: GROOVE_SHAPES.find((s) => s === v) ?? 'V' })}
    />,
  ])
}
