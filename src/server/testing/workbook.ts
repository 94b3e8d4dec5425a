import { strToU8, zipSync } from 'fflate'
import writeWorkbook from 'write-excel-file/node'

export type Cell = string | number | null

/** A workbook as a spreadsheet saves it: tabs by name, each of rows. */
export async function workbookOf(tabs: Readonly<Record<string, readonly (readonly Cell[])[]>>): Promise<Buffer> {
  const sheets = Object.entries(tabs).map(([sheet, rows]) => ({
    sheet,
    data: rows.map((row) => row.map((value) => (value === '' ? null : value))),
  }))
  return writeWorkbook(sheets).toBuffer()
}

const XML = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>'
const MAIN = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"'
const OFFICE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships'
/** A workbook of one sheet from the format's own words, for cells that writers do not make: formulas with results, letters in two faces, merged titles. */
export function rawWorkbook(sheetData: string, sharedStrings: readonly string[] = []): Uint8Array {
  const rel = (id: string, type: string, target: string) =>
    `<Relationship Id="${id}" Type="${OFFICE}/${type}" Target="${target}"/>`
  const rels = (all: string) =>
    `${XML}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${all}</Relationships>`
  const files = {
    '[Content_Types].xml': `${XML}<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/></Types>`,
    '_rels/.rels': rels(rel('r1', 'officeDocument', 'xl/workbook.xml')),
    'xl/workbook.xml': `${XML}<workbook ${MAIN} xmlns:r="${OFFICE}"><sheets><sheet name="Sheet" sheetId="1" r:id="r1"/></sheets></workbook>`,
    'xl/_rels/workbook.xml.rels': rels(
      rel('r1', 'worksheet', 'worksheets/sheet1.xml') +
        rel('r2', 'sharedStrings', 'sharedStrings.xml') +
        rel('r3', 'styles', 'styles.xml'),
    ),
    'xl/worksheets/sheet1.xml': `${XML}<worksheet ${MAIN}><sheetData>${sheetData}</sheetData></worksheet>`,
    'xl/sharedStrings.xml': `${XML}<sst ${MAIN}>${sharedStrings.map((s) => `<si>${s}</si>`).join('')}</sst>`,
    'xl/styles.xml': `${XML}<styleSheet ${MAIN}><cellXfs><xf numFmtId="0"/><xf numFmtId="14"/><xf numFmtId="22"/></cellXfs></styleSheet>`,
  }
  return zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])))
}
