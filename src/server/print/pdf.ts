import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import type * as Pdfmake from 'pdfmake'
import type { TDocumentDefinitions } from 'pdfmake/interfaces.js'

/** Points in a millimetre. */
export const MM = 72 / 25.4

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
  made.setLocalAccessPolicy((path) => path.startsWith(fonts))
  made.setUrlAccessPolicy(() => false)
  ready = made
  return made
}

export async function pdfOf(definition: TDocumentDefinitions): Promise<Buffer> {
  return printer().createPdf(definition).getBuffer()
}
