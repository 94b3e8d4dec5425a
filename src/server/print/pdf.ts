import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import type * as Pdfmake from 'pdfmake'
import type { CustomTableLayout, TDocumentDefinitions } from 'pdfmake/interfaces.js'

/** Points in a millimetre. */
export const MM = 72 / 25.4

/** A sheet of paper as plain data, so that it can be made in another thread: what the printer wants as functions is said in words. */
export interface Sheet {
  definition: Omit<TDocumentDefinitions, 'footer' | 'header'>
  /** A line under each page. `{page}` and `{pages}` stand for their numbers. */
  foot?: { text: string; fontSize: number; margin: [number, number, number, number] }
}
/** The line under a page of lists. */
export const listFoot = (text: string): NonNullable<Sheet['foot']> => ({
  text: `${text}, page {page} of {pages}`,
  fontSize: 8,
  margin: [14 * MM, 0, 14 * MM, 0],
})
export interface Printed {
  pdf: Buffer
  pages: number
}
/** Table layouts by the name they go by in a sheet. */
const LAYOUTS: Record<string, CustomTableLayout> = {
  lines: { hLineWidth: () => 0.5, vLineWidth: () => 0, hLineColor: () => '#999' },
}

let ready: typeof Pdfmake | null = null

/** The printer, with the fonts that come with it; it reads nothing else from disk and nothing from the network. */
function printer(): typeof Pdfmake {
  if (ready) return ready
  const require = createRequire(import.meta.url)
  const made = require('pdfmake') as typeof Pdfmake
  const fonts = join(dirname(require.resolve('pdfmake/package.json')), 'fonts', 'Roboto')
  const file = (name: string) => join(fonts, `Roboto-${name}.ttf`)
  made.setFonts({
    Roboto: {
      normal: file('Regular'),
      bold: file('Medium'),
      italics: file('Italic'),
      bolditalics: file('MediumItalic'),
    },
  })
  made.setTableLayouts(LAYOUTS)
  made.setLocalAccessPolicy((path) => path.startsWith(fonts))
  made.setUrlAccessPolicy(() => false)
  ready = made
  return made
}

/** Sets a sheet here and now: seconds for hundreds of cards, so servers do it through `pdfOf`. */
export async function setSheet({ definition, foot }: Sheet): Promise<Printed> {
  let count = 0
  const footer = (page: number, pages: number) => {
    count = pages
    return foot ? { ...foot, text: foot.text.replace('{page}', String(page)).replace('{pages}', String(pages)) } : ''
  }
  const pdf = await printer()
    .createPdf({ ...definition, footer })
    .getBuffer()
  return { pdf, pages: count }
}
