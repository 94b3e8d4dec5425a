import { afterEach, describe, expect, it } from 'vitest'
import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { within } from '@testing-library/react'
import { stage, unstage } from '@web/testing/stage.tsx'
import { hasAll, LongTable, type Column } from './LongTable.tsx'

afterEach(unstage)
interface Row {
  id: string
  name: string
  price: number | null
}
const ROWS: Row[] = [
  { id: 'a', name: 'T-10 tip', price: 64 },
  { id: 'b', name: 'T-9 tip', price: null },
  { id: 'c', name: 'N-1 nozzle', price: 7 },
]
const COLUMNS: Column<Row>[] = [
  { key: 'name', head: 'name', by: (r) => r.name, cell: (r) => r.name },
  { key: 'price', head: 'price', isNumber: true, by: (r) => r.price, cell: (r) => r.price ?? '' },
]
const table = (rows: readonly Row[]) => (
  <LongTable
    id="t"
    rows={rows}
    columns={COLUMNS}
    keyOf={(r) => r.id}
    wordsOf={(r) => r.name}
    findLabel="find"
    none="None yet."
    actions={(r) => <span>{`change ${r.id}`}</span>}
  />
)
const show = (rows: readonly Row[] = ROWS) => {
  const view = stage(table(rows))
  const names = () =>
    within(view.getByRole('table'))
      .getAllByRole('row')
      .slice(1)
      .map((r) => r.querySelector('td')?.textContent)
  return { ...view, names }
}

describe('a long table', () => {
  it('stands as it came until a head is tapped: up, down, as it came', async () => {
    const { user, names, getByRole } = show()
    expect(names()).toEqual(['T-10 tip', 'T-9 tip', 'N-1 nozzle'])
    await user.click(getByRole('button', { name: /^name/ }))
    expect(names()).toEqual(['N-1 nozzle', 'T-9 tip', 'T-10 tip'])
    expect(getByRole('columnheader', { name: /^name/ }).getAttribute('aria-sort')).toBe('ascending')
    await user.click(getByRole('button', { name: /^name/ }))
    expect(names()).toEqual(['T-10 tip', 'T-9 tip', 'N-1 nozzle'])
    await user.click(getByRole('button', { name: /^name/ }))
    expect(getByRole('columnheader', { name: /^name/ }).getAttribute('aria-sort')).toBe('none')
  })
  it('what is not known stands last, whichever way', async () => {
    const { user, names, getByRole } = show()
    await user.click(getByRole('button', { name: /^price/ }))
    expect(names()).toEqual(['N-1 nozzle', 'T-10 tip', 'T-9 tip'])
    await user.click(getByRole('button', { name: /^price/ }))
    expect(names()).toEqual(['T-10 tip', 'N-1 nozzle', 'T-9 tip'])
  })
  it('is found by words in any order, and says when there is none', async () => {
    const { user, names, getByLabelText, getByText, queryAllByRole } = show()
    await user.type(getByLabelText('find'), 'tip t-1')
    expect(names()).toEqual(['T-10 tip'])
    await user.clear(getByLabelText('find'))
    await user.type(getByLabelText('find'), 'liner')
    getByText('None has "liner" in it.')
    expect(queryAllByRole('row')).toHaveLength(1)
  })
  it('of many draws only some, and an empty one says so', () => {
    const many = Array.from({ length: 500 }, (_, i) => ({ id: `r${i}`, name: `part ${i}`, price: i }))
    expect(show(many).names().length).toBeLessThan(100)
    unstage()
    show([]).getByText('None yet.')
  })
  it('drawn again from outside it rests: it does not draw itself for ever', async () => {
    let drawn = 0
    const counted: Column<Row>[] = [{ key: 'name', head: 'name', by: (r) => r.name, cell: (r) => (drawn++, r.name) }]
    function Page() {
      const [n, more] = useState(0)
      return (
        <>
          <Button onClick={() => more(n + 1)}>again {n}</Button>
          <LongTable
            id="t"
            rows={ROWS}
            columns={counted}
            keyOf={(r) => r.id}
            wordsOf={(r) => r.name}
            findLabel="find"
            none=""
          />
        </>
      )
    }
    const { user, getByRole } = stage(<Page />)
    for (let i = 0; i < 3; i++) await user.click(getByRole('button', { name: /^again/ }))
    const before = drawn
    await new Promise((done) => setTimeout(done, 50))
    expect(drawn).toBe(before)
    expect(drawn).toBeLessThan(60)
  })
  it('every word that was typed has to be there', () =>
    expect([hasAll('Kelp contact tip 1.0', 'tip kelp'), hasAll('Kelp tip', 'tip shale'), hasAll('x', '')]).toEqual([
      true,
      false,
      true,
    ]))
})
