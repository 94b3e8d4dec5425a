import { ApiError } from '@web/api/client.ts'

/** What happened, what was kept, what to do. */
export function Trouble({ problem }: { problem: unknown }) {
  if (!problem) return null
  const details = problem instanceof ApiError ? problem.details : []
  return (
    <div className="trouble" role="alert">
      {problem instanceof Error ? problem.message : 'Something tripped.'}
      {details.length > 0 ? (
        <ul>
          {details.slice(0, 40).map((d) => (
            <li key={d}>{d}</li>
          ))}
        </ul>
      ) : null}
    </div>
  )
}
