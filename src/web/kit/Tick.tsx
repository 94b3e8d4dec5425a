import { type ReactNode } from 'react'
import { Form } from 'react-bootstrap'

/** Yes or no, with its words: the whole line is the target. */
export function Tick(props: { isOn: boolean; onTick: (isOn: boolean) => void; children: ReactNode }) {
  return (
    <label className="tick">
      <Form.Check.Input checked={props.isOn} onChange={(e) => props.onTick(e.target.checked)} /> {props.children}
    </label>
  )
}
