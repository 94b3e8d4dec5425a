import { Trouble } from './Trouble.tsx'

/** A page before its first answer: what is being fetched, in the page's own frame; or why there is none. */
export function Waiting({ says, problem }: { says: string; problem: unknown }) {
  if (problem) return <Trouble problem={problem} />
  return (
    <p className="sentence dim" role="status">
      {says} …
    </p>
  )
}
