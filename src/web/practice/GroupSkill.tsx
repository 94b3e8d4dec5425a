import { ShareTable } from '@web/classes/ShareTable.tsx'
import { capital } from '@web/format/words.ts'
import { useSkill } from './queries.ts'

const MOST = 12
/** What groups find least in the practice booth, for teaching. */
export function GroupSkill() {
  const skills = useSkill(true).data?.skills ?? []
  const rows = skills.slice(0, MOST).map((s) => ({ ...s, says: capital(s.says), good: s.well, of: s.tried }))
  return <ShareTable title="What is found least" about="what was wrong" good="found well" rows={rows} />
}
