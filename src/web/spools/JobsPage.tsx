import {
  type CollisionDetection,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  pointerWithin,
  rectIntersection,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { type JobLine, type JobSpool } from '@contract/jobs.ts'
import { dragWords } from '@web/kit/dragwords.ts'
import { type Units } from '@web/format/numbers.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'
import { useIsLead, useMe } from '@web/people/queries.ts'
import { useSave } from '@web/shopmodel/queries.ts'
import { AddJobs } from './AddJobs.tsx'
import { JobDone } from './JobDone.tsx'
import { changesOf, jobsSentence, jointWords, spoolWords } from './jobwords.ts'
import { weight } from './spoolwords.ts'
import { useJobs } from './queries.ts'
import { usePlan, type WireGroup } from './usePlan.ts'

/** Wire for jobs: jobs as amounts of wire drawn to scale, spools beside them; the proposal stands already laid. */
export function JobsPage() {
  const jobs = useJobs()
  const units = useMe().data?.units ?? 'metric'
  const isLead = useIsLead()
  const planned = usePlan(jobs.data)
  const lay = useSave('/spools/jobs/lay')
  if (!jobs.data)
    return (
      <main className="spools">
        <Waiting says="Reckoning the jobs" problem={jobs.error} />
      </main>
    )
  const at = jobs.data
  const laid = planned.groups.flatMap((g, i) =>
    g.jobs.map((j, n) => ({ jobId: j.jobId, onId: g.spools[planned.plans?.[i]?.spoolOf[n] ?? -1]?.id ?? null })),
  )
  const isAsLaid = laid.every((l) => at.jobs.find((j) => j.jobId === l.jobId)?.onId === l.onId)
  const put = (jobId: string, onId: string | null) => lay.mutate({ laid: [{ jobId, onId }] })
  return (
    <main className="spools">
      <h1 className="sentence">{jobsSentence(at, planned, units)}</h1>
      <p className="honesty dim">
        {at.learnt
          ? `Your last ${at.learnt.n} weighed jobs took ${at.learnt.ratio.toFixed(2)} times what geometry says: reckoned by that.`
          : 'Reckoned from the joint, how dense the metal is and how much of the wire becomes weld (a guess of the trade); weigh three jobs and it goes by yours.'}{' '}
        <Link className="bare" to="/spools">
          spools
        </Link>
      </p>
      <Trouble problem={lay.error ?? jobs.error} />
      {isLead && at.jobs.length > 0 && planned.plans && !isAsLaid ? (
        <Button variant="chalk" disabled={lay.isPending} onClick={() => lay.mutate({ laid })}>
          Lay them as proposed
        </Button>
      ) : null}
      {!planned.plans && planned.progress > 0 ? (
        <p className="small-print" role="status">
          {Math.round(planned.progress * 100)} in 100 looked through.
        </p>
      ) : null}
      {planned.groups.map((group, i) => (
        <OneWire
          key={group.wireId}
          group={group}
          proposed={group.jobs.map((_, n) => group.spools[planned.plans?.[i]?.spoolOf[n] ?? -1]?.id ?? null)}
          fullKg={at.wires.find((w) => w.id === group.wireId)?.spoolKg ?? 15}
          units={units}
          isLead={isLead}
          onPut={put}
        />
      ))}
      {isLead ? <AddJobs at={at} units={units} /> : null}
    </main>
  )
}

interface WireProps {
  group: WireGroup
  /** Of each job the spool that is proposed. */
  proposed: readonly (string | null)[]
  fullKg: number
  units: Units
  isLead: boolean
  onPut: (jobId: string, onId: string | null) => void
}
function OneWire({ group, proposed, fullKg, units, isLead, onPut }: WireProps) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 150, tolerance: 8 } }),
    useSensor(KeyboardSensor),
  )
  const most = Math.max(fullKg, ...group.spools.map((s) => s.kg), ...group.jobs.map((j) => j.kg))
  const loose = group.jobs.filter((j) => !group.spools.some((s) => s.id === j.onId))
  const [isAll, setAll] = useState(false)
  const isAsked = (s: JobSpool) => proposed.includes(s.id) || group.jobs.some((j) => j.onId === s.id)
  const shown = isAll ? group.spools : group.spools.filter(isAsked)
  const hidden = group.spools.length - shown.length
  const nameOf = (id: string | null) => group.spools.find((s) => s.id === id)?.name ?? null
  return (
    <DndContext
      sensors={sensors}
      accessibility={dragWords(
        (id) => group.jobs.find((j) => j.jobId === id)?.name ?? nameOf(id) ?? 'the jobs that lie on no spool',
      )}
      collisionDetection={underHand}
      onDragEnd={({ active, over }) => {
        const onId = over ? String(over.id) : null
        if (onId !== null) onPut(String(active.id), onId === LOOSE ? null : onId)
      }}
    >
      <section aria-label={`Jobs of ${group.wireName}`}>
        <h2>{group.wireName}</h2>
        <Loose>
          {loose.map((job) => {
            const on = proposed[group.jobs.indexOf(job)] ?? null
            return (
              <div className="job-row" key={job.jobId}>
                <JobBar job={job} most={most} units={units} canDrag={isLead} />
                <span className="dim">
                  {nameOf(on) ? `proposed: ${nameOf(on)}. ` : `${changesOf(job, group, fullKg)} `}
                </span>
                <JobKeys job={job} group={group} isLead={isLead} onPut={onPut} units={units} />
              </div>
            )
          })}
        </Loose>
        {group.spools.length === 0 ? (
          <p className="dim">
            No spool of it whose weight is known. Book one in under Spools, or weigh what hangs on a gun.
          </p>
        ) : null}
        {shown.map((spool) => (
          <SpoolBar key={spool.id} spool={spool} most={most} units={units}>
            {group.jobs
              .filter((j) => j.onId === spool.id)
              .map((job, n, on) => (
                <div className="job-row" key={job.jobId}>
                  <JobBar
                    job={job}
                    most={most}
                    units={units}
                    canDrag={isLead}
                    fromKg={on.slice(0, n).reduce((sum, j) => sum + j.kg, 0)}
                  />
                  <JobKeys job={job} group={group} isLead={isLead} onPut={onPut} units={units} />
                </div>
              ))}
            <p className="dim">
              {spoolWords(
                spool,
                group.jobs.filter((j) => j.onId === spool.id),
                units,
              )}
            </p>
          </SpoolBar>
        ))}
        {hidden > 0 ? (
          <Bare onClick={() => setAll(true)}>
            {hidden} more {hidden === 1 ? 'spool' : 'spools'} of it
          </Bare>
        ) : null}
      </section>
    </DndContext>
  )
}

/** What lies under the pointer; by keys, what the bar covers most. */
const underHand: CollisionDetection = (at) => {
  const under = pointerWithin(at)
  return under.length > 0 ? under : rectIntersection(at)
}

const LOOSE = 'loose'
const wide = (kg: number, most: number) => ({ width: `${Math.max(1, (100 * kg) / most)}%` })

/** Jobs that lie on no spool; one dragged back here is taken off. */
function Loose({ children }: { children: React.ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id: LOOSE })
  return (
    <div ref={setNodeRef} className={isOver ? 'job-loose is-over' : 'job-loose'}>
      {children}
    </div>
  )
}

function JobBar(props: { job: JobLine; most: number; units: Units; canDrag: boolean; fromKg?: number }) {
  const { job, most, units, canDrag, fromKg = 0 } = props
  const { attributes, listeners, setNodeRef, transform } = useDraggable({ id: job.jobId, disabled: !canDrag })
  const moved = transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : {}
  return (
    <div ref={setNodeRef} className="job-bar" style={moved} {...(canDrag ? { ...attributes, ...listeners } : {})}>
      <span className="job-fill" style={{ ...wide(job.kg, most), marginLeft: `${(100 * fromKg) / most}%` }} />
      <span className="job-name">
        <strong>{job.name}</strong> {weight(job.kg, units)} ± {weight(1.645 * job.sdKg, units)}{' '}
        <span className="dim">
          {jointWords(job.joint, units)}, {job.pieces} ×{' '}
          {units === 'us' ? `${Math.round(job.lengthM * 39.37)} in` : `${job.lengthM} m`}
        </span>
      </span>
    </div>
  )
}

function SpoolBar(props: { spool: JobSpool; most: number; units: Units; children: React.ReactNode }) {
  const { spool, most } = props
  const { setNodeRef, isOver } = useDroppable({ id: spool.id })
  return (
    <div ref={setNodeRef} className={isOver ? 'job-spool is-over' : 'job-spool'} role="group" aria-label={spool.name}>
      <div className="job-spool-head">
        <span>
          <strong>{spool.name}</strong>{' '}
          {spool.at && spool.at !== spool.name ? <span className="dim">on {spool.at}</span> : null}
        </span>
        <span className="job-left" style={wide(spool.kg, most)} />
      </div>
      {props.children}
    </div>
  )
}

/** The same by keys: on which spool, and welded. */
function JobKeys(props: Pick<WireProps, 'group' | 'isLead' | 'onPut' | 'units'> & { job: JobLine }) {
  const { job, group, isLead, onPut, units } = props
  if (!isLead) return null
  return (
    <span className="job-keys">
      <Form.Select
        aria-label={`${job.name}: from which spool`}
        value={group.spools.some((s) => s.id === job.onId) ? (job.onId ?? '') : ''}
        onChange={(e) => onPut(job.jobId, e.target.value || null)}
      >
        <option value="">on no spool</option>
        {group.spools.map((s) => (
          <option key={s.id} value={s.id}>
            {s.name}, {weight(s.kg, units)}
          </option>
        ))}
      </Form.Select>
      <JobDone job={job} units={units} />
    </span>
  )
}
