import { describe, expect, it } from 'vitest'
import { renderToStaticMarkup } from 'react-dom/server'
import { CurveChart } from './CurveChart.tsx'

describe('curves with axes', () => {
  it('say what they show before they are drawn', () =>
    expect(
      renderToStaticMarkup(
        <CurveChart className="life-curve" says="Share still good by use" series={[]} x={{}} y={{}} />,
      ),
    ).toContain('aria-label="Share still good by use"'))
})
