import { Button, Modal } from 'react-bootstrap'
import { Link, useLocation } from 'react-router'
import { STATES } from '@core/floor/state.ts'
import { STATE_WORD } from '@web/format/words.ts'
import { GLOSSARY, helpFor, type Word } from '@web/sections/pagehelp.ts'
import { Cell } from '@web/path/WirePath.tsx'

const KEYS: [string, string][] = [
  ['/', 'find a gun'],
  ['f', 'Floor'],
  ['l', 'Logbook'],
  ['t', 'tip changed, on this gun or the one the arrows are on'],
  ['n', 'nozzle cleaned'],
  ['s', 'new spool'],
  ['d', 'it’s down, or running'],
  ['?', 'this page'],
  ['Esc', 'back'],
]
const SIZE = { columnWidth: 96, thickness: 5, tall: 9, height: 40 }
const WORDS: Partial<Record<(typeof STATES)[number], string>> = {
  good: 'good: no word, no news',
  due: 'change or clean: wider with each shift past',
  partWorn: 'part-worn: the waist is the use',
  notSeen: 'not seen: nobody has looked, or nothing is known',
  absent: 'not on this gun',
}

/** What this page answers, its keys and words; then the keys of all pages and what the strokes say. */
export function Help({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  const page = helpFor(useLocation().pathname)
  return (
    <Modal show={isOpen} onHide={onClose} animation={false} aria-label="What this page answers">
      <Modal.Body className="help">
        <h2>{page.title}</h2>
        <p>{page.answers}</p>
        {page.words.length > 0 ? <Words words={page.words} /> : null}
        <h2>Keys</h2>
        <dl className="help-keys">
          {[...(page.keys ?? []), ...KEYS].map(([key, what]) => (
            <div key={key}>
              <dt>
                <kbd>{key}</kbd>
              </dt>
              <dd>{what}</dd>
            </div>
          ))}
        </dl>
        <p>
          <Link to="/device" onClick={onClose}>
            This device
          </Link>
          : what waits on it for a link, and what it holds.
        </p>
        <h2>What the wire says</h2>
        <ul className="strokes">
          {STATES.map((state, i) => (
            <li key={state}>
              <svg className="wire" width={SIZE.columnWidth} height={SIZE.height} aria-hidden="true">
                <Cell cell={[i, 0.75, 0, 1]} size={SIZE} x={0} />
              </svg>
              <span>{WORDS[state] ?? STATE_WORD[state]}</span>
            </li>
          ))}
          <li>
            <svg className="wire" width={SIZE.columnWidth} height={SIZE.height} aria-hidden="true">
              <Cell cell={[6, 0.2, 1, 0]} size={SIZE} x={0} />
            </svg>
            <span>hollow: estimated, not counted</span>
          </li>
        </ul>
        <details>
          <summary>All words</summary>
          <Words words={Object.keys(GLOSSARY) as Word[]} />
        </details>
        <Button variant="chalk" onClick={onClose}>
          Close
        </Button>
      </Modal.Body>
    </Modal>
  )
}

function Words({ words }: { words: readonly Word[] }) {
  return (
    <dl className="help-words">
      {words.map((word) => (
        <div key={word}>
          <dt>{GLOSSARY[word][0]}</dt>
          <dd>{GLOSSARY[word][1]}</dd>
        </div>
      ))}
    </dl>
  )
}
