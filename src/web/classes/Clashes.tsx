import { Bare } from '@web/kit/Keys.tsx'

/** Kept, and this falls on each other: a plan may be half done, so it is said and not refused. */
export const Clashes = ({ lines, onDone }: { lines: readonly string[]; onDone: () => void }) => (
  <div className="trouble" role="alert">
    <p>Kept. These fall on each other now:</p>
    <ul>
      {lines.map((l) => (
        <li key={l}>{l}</li>
      ))}
    </ul>
    <Bare onClick={onDone}>I have seen it</Bare>
  </div>
)
