import { ApiError } from '@web/api/client.ts'

/** What happened, what was kept, what to do. */
export function Trouble({ problem }: { problem: unknown }) {
  if (!problem) return null
  const details = problem instanceof ApiError ? problem.details : []
  return <Told says={problem instanceof Error ? problem.message : 'Something tripped.'} details={details} />
}

/** What can't be done as it stands, and which entries are meant. */
export const Told = ({ says, details }: { says: string; details: readonly string[] }) => (
  <div className="trouble" role="alert">
    {says}
    {details.length > 0 ? (
      <ul>
        {details.slice(0, 40).map((d) => (
          <li key={d}>{d}</li>
        ))}
      </ul>
    ) : null}
  </div>
)
