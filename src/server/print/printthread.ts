import { parentPort } from 'node:worker_threads'
import { setSheet, type Sheet } from './pdf.ts'

/** Sets sheets one after another for whoever started this thread. */
const port = parentPort
if (port)
  port.on('message', ({ id, sheet }: { id: number; sheet: Sheet }) => {
    setSheet(sheet).then(
      ({ pdf, pages }) => port.postMessage({ id, pdf: new Uint8Array(pdf), pages }),
      (problem: unknown) => port.postMessage({ id, problem: String(problem) }),
    )
  })
