import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core'
import { useState } from 'react'
import { type Build, type WireOn } from '@core/practice/hands.ts'
import { changeOrder, drawOrder, orderFault, type OrderAct, type OrderFault } from '@core/practice/order.ts'
import { makeRandom } from '@core/random/random.ts'
import { CautionLines } from '@web/guide/CautionLines.tsx'
import { dragWords } from '@web/kit/dragwords.ts'
import { Key } from '@web/kit/Keys.tsx'

const DOES: Readonly<Record<OrderAct, string>> = {
  isolate: 'Power off at the machine',
  front: 'Nozzle off, wire snipped, tip off',
  wireBack: 'Arm open, wire wound back, its end hooked',
  spoolOff: 'Old spool off the hub',
  rolls: 'All four rolls, and the guide',
  liner: 'Gun out, old liner out, new one in and cut, gun in',
  spoolOn: 'New spool on, lock ring on',
  thread: 'Wire through by hand, arm closed with the knob slack',
  feed: 'Power on, fed through with the tip off',
  tension: 'Tension set',
  close: 'Power off again, new tip and the nozzle on',
}
const LACKS: Readonly<Partial<Record<OrderFault['lacks'], string>>> = {
  powerOff: 'the power is on, and hands go in',
  powerOn: 'there is no power, and nothing turns',
  tipOff: 'the tip is on, and the wire hangs in it',
  wireOut: 'a wire still runs through there',
  spoolOff: 'the old spool is on the hub',
  spoolOn: 'no spool is on the hub',
  threaded: 'no wire is threaded',
  armClosed: 'the arm is open',
  armOpen: 'the arm is closed',
  fed: 'no wire has come through yet',
}
/** "Set the tension cannot be third: there is no power, and nothing turns." */
export const faultSentence = (fault: OrderFault, order: readonly OrderAct[]): string =>
  `“${DOES[fault.act]}” cannot be number ${order.indexOf(fault.act) + 1}: ${LACKS[fault.lacks] ?? 'something is still in its way'}.`

/** One of a list put where another stands. */
export function put<T>(list: readonly T[], one: T, at: T): T[] {
  const [from, to] = [list.indexOf(one), list.indexOf(at)]
  if (from < 0 || to < 0 || from === to) return [...list]
  const rest = list.filter((x) => x !== one)
  return [...rest.slice(0, to), one, ...rest.slice(to)]
}

const SAID = dragWords((id) => DOES[id as OrderAct])

/** The same change, in its order: tapped one after the other, drawn to another place, and gone through step by step as the guide has it. */
export function OrderDrill({
  seed,
  from,
  to,
  onAgain,
}: {
  seed: number
  from: Build
  to: WireOn
  onAgain: () => void
}) {
  const [order] = useState(() => changeOrder(from, to))
  const [mixed] = useState(() => drawOrder(order, makeRandom(seed)))
  const [picked, setPicked] = useState<readonly OrderAct[]>([])
  const [isOver, setOver] = useState(false)
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor),
  )
  const left = mixed.filter((a) => !picked.includes(a))
  const fault = isOver ? orderFault(order, picked) : null
  return (
    <>
      <h1 className="sentence">{headOf(isOver, fault)}</h1>
      {isOver ? null : <CautionLines className="step-hazard" hazards={['isolate', 'spring']} />}
      <DndContext
        sensors={sensors}
        accessibility={SAID}
        onDragEnd={({ active, over }) => {
          if (over) setPicked(put(picked, active.id as OrderAct, over.id as OrderAct))
        }}
      >
        <ol className="order-picked" aria-label="In order">
          {picked.map((act) => (
            <Picked
              key={act}
              act={act}
              isFault={fault?.act === act}
              isOver={isOver}
              onBack={() => setPicked(picked.filter((p) => p !== act))}
            />
          ))}
        </ol>
      </DndContext>
      <div className="quiz-options" role="group" aria-label="Still to come">
        {left.map((act) => (
          <Key key={act} onClick={() => setPicked([...picked, act])}>
            {DOES[act]}
          </Key>
        ))}
      </div>
      {isOver ? (
        <>
          {fault ? (
            <>
              <p role="status" className="quiz-why">
                {faultSentence(fault, picked)}
              </p>
              <Key onClick={() => setOver(false)}>Put it right</Key>
              <p className="quiz-why">One order that works, as the guide has it:</p>
              <ol className="order-works">
                {order.acts.map((a) => (
                  <li key={a}>{DOES[a]}</li>
                ))}
              </ol>
            </>
          ) : null}
          <Key tone="chalk" autoFocus={!fault} onClick={onAgain}>
            Another
          </Key>
        </>
      ) : (
        <Key tone="chalk" disabled={left.length > 0} onClick={() => setOver(true)}>
          That is the order
        </Key>
      )}
    </>
  )
}
function headOf(isOver: boolean, fault: OrderFault | null): string {
  if (!isOver) return 'Now in what order? Tap one after the other.'
  return fault ? 'Not in that order.' : 'It can be done so.'
}

/** One that has its place: drawn to another, or tapped back. */
function Picked(props: { act: OrderAct; isFault: boolean; isOver: boolean; onBack: () => void }) {
  const { act, isFault, isOver, onBack } = props
  const drag = useDraggable({ id: act, disabled: isOver })
  const drop = useDroppable({ id: act })
  const moved = drag.transform ? { transform: `translate(0, ${drag.transform.y}px)` } : {}
  return (
    <li
      ref={drop.setNodeRef}
      className={`order-act${isFault ? ' is-fault' : ''}${drop.isOver && !drag.isDragging ? ' is-over' : ''}`}
    >
      <span ref={drag.setNodeRef} className="order-grip" style={moved} {...drag.attributes} {...drag.listeners}>
        {DOES[act]}
      </span>
      {isOver ? null : (
        <Key size="low" onClick={onBack} aria-label={`${DOES[act]}: back`}>
          back
        </Key>
      )}
    </li>
  )
}
