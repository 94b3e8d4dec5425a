import { Table } from 'react-bootstrap'
import { LEVEL_NAME } from '@core/classes/groups.ts'
import { handItem } from '@core/classes/items.ts'
import { type Group, type GroupsAnswer } from '@contract/classes.ts'
import { inN, listed } from '@web/format/words.ts'
import { Key, Plain } from '@web/kit/Keys.tsx'
import { useAddress } from '@web/kit/useAddress.ts'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { Waiting } from '@web/kit/Waiting.tsx'
import { useIsLead } from '@web/people/queries.ts'
import { PhoneMore } from '@web/sections/PhoneMore.tsx'
import { GroupForm } from './GroupForm.tsx'
import { useGroups, useTeach } from './queries.ts'

/** Who learns together, at which booths and on which wire; and what each group leaves, beside the others. */
export function GroupsPage() {
  const { get, put } = useAddress()
  const groups = useGroups()
  const isLead = useIsLead()
  const isPhone = useIsPhone()
  if (!groups.data)
    return (
      <main className="groups">
        <Waiting says="Reading the groups" problem={groups.error} />
      </main>
    )
  const at = groups.data
  const active = at.groups.filter((g) => g.isActive)
  const left = at.groups.filter((g) => !g.isActive)
  const open = at.groups.find((g) => g.id === get('group'))
  return (
    <main className="groups">
      <h1 className="sentence">{groupsSentence(active)}</h1>
      <ul className="group-list">
        {active.map((g) => (
          <li key={g.id}>
            <Plain
              aria-expanded={open?.id === g.id}
              onClick={() => put({ group: open?.id === g.id ? null : g.id, new: null })}
            >
              <strong>{g.name}</strong> <span className="dim">{groupWords(g)}</span>
            </Plain>
            {open?.id === g.id && isLead ? (
              <GroupForm key={g.id} at={at} group={g} onDone={() => put({ group: null })} />
            ) : null}
          </li>
        ))}
      </ul>
      {isLead && !get('new') ? (
        <Key
          {...(active.length === 0 ? { tone: 'chalk' as const } : {})}
          onClick={() => put({ new: '1', group: null })}
        >
          A new group
        </Key>
      ) : null}
      {isLead && get('new') ? <GroupForm at={at} group={null} onDone={() => put({ new: null })} /> : null}
      {isLead ? <Beside at={at} /> : null}
      {left.length > 0 ? <p className="dim">Left: {listed(left.map((g) => g.name))}.</p> : null}
      {isPhone ? <PhoneMore /> : null}
    </main>
  )
}

function groupsSentence(active: readonly Group[]): string {
  if (active.length === 0)
    return 'No group yet. A group is who learns together: how many, how far they are, which booths.'
  const booths = new Set(active.flatMap((g) => g.booths.map((b) => b.stationId))).size
  return `${active.length} ${active.length === 1 ? 'group' : 'groups'} at ${booths} booths.`
}
const groupWords = (g: Group) =>
  [LEVEL_NAME[g.level], g.size ? `${g.size} of them` : '', g.booths.map((b) => b.name).join(' ')]
    .filter(Boolean)
    .join(', ')

/** What stands out, in words, and everything else beside it as counts; nobody’s rank. */
function Beside({ at }: { at: GroupsAnswer }) {
  const teach = useTeach()
  if (!teach.data || teach.data.looks === 0) return null
  const { ofGroups, weeks, looks } = teach.data
  const beyond = ofGroups.filter((g) => g.isBeyond)
  const nameOf = (id: string) => at.groups.find((g) => g.id === id)?.name ?? ''
  const items = [...new Set(ofGroups.map((g) => g.item))]
  const groups = at.groups.filter((g) => g.isActive && ofGroups.some((o) => o.group === g.id))
  return (
    <section aria-label="What is left wrong">
      <h2>
        What the next class found, {weeks} weeks, {looks} looks
      </h2>
      {beyond.length === 0 ? (
        <p>No group stands out: what differs here is what chance does.</p>
      ) : (
        beyond.map((g) => (
          <p key={`${g.group} ${g.item}`}>
            <strong>{handItem(g.item).name}</strong>: more after {nameOf(g.group)} than after others at the same booths,{' '}
            {g.wrong} of {g.looked} times; by luck {inN(g.byLuck ?? 0)}.
          </p>
        ))
      )}
      <Table className="group-table">
        <thead>
          <tr>
            <th scope="col">found wrong, of so many looks, after</th>
            {groups.map((g) => (
              <th scope="col" key={g.id}>
                {g.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {items.map((item) => (
            <tr key={item}>
              <th scope="row">{handItem(item).name}</th>
              {groups.map((g) => {
                const cell = ofGroups.find((o) => o.group === g.id && o.item === item)
                return (
                  <td key={g.id}>{cell ? cell.isBeyond ? <strong>{cellWords(cell)}</strong> : cellWords(cell) : ''}</td>
                )
              })}
            </tr>
          ))}
        </tbody>
      </Table>
      <p className="dim">
        Told of groups, never of anybody: one pair of clumsy hands or one worn booth names no group, and by luck alone
        at most one shop in twenty would see a name here.
      </p>
    </section>
  )
}
const cellWords = ({ wrong, looked }: { wrong: number; looked: number }) => `${wrong} of ${looked}`
