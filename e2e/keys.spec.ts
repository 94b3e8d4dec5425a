import { asOwner, expect, startShop, test, type Page, type Shop } from './fixtures.ts'

/**
 * Every key in every state on every ground it stands on, measured as it is drawn: a key with cream letters on cream goes through a look at one page, since it
 * is only so on a gun that is down.
 */
let shop: Shop
// One shop for all of them: one that fails is tried again with those before it, on a fresh one.
test.describe.configure({ mode: 'serial' })
test.beforeAll(async () => {
  shop = await startShop(false)
})
test.afterAll(() => shop.end())

/** Grounds by the classes they are drawn with; `%` is where keys stand. */
const GROUNDS = {
  page: '<main>%</main>',
  gunDown: '<main class="gun"><header class="gun-head is-down"><h1>A1</h1><div>%</div></header></main>',
  phoneDown: '<main class="gun-phone"><div class="phone-verdict is-down">%</div></main>',
  rowDown:
    '<main class="floor"><section class="rows"><article class="row-gun is-down"><div class="row-act">%</div></article></section></main>',
  logKeys: '<main class="gun-phone"><section class="log-keys">%</section></main>',
  standKeys: '<main class="gun"><div class="stand-keys">%</div></main>',
  stepFoot: '<main class="step-walk walk-mode down"><footer class="down-foot">%</footer></main>',
  walkKeys: '<main class="walk"><div class="walk-keys">%</div></main>',
  noteKeys: '<main class="shop"><div class="note-keys">%</div></main>',
  actStrip: '<aside class="act-strip"><span class="acts">%</span></aside>',
  manyBar: '<main class="floor"><div class="many-bar">%</div></main>',
} as const
const KEYS = [
  'key',
  'key key-low',
  'key key-chalk',
  'key key-low key-chalk',
  'btn',
  'btn btn-primary',
  'btn btn-chalk',
  'bare',
]
const STATES = {
  still: '',
  on: 'aria-pressed="true"',
  shut: 'disabled',
} as const
/** Letters of this size are read from 4.5 to 1; of a key that can't be pressed now it is enough to tell what it would be. */
const LEAST = { still: 4.5, on: 4.5, shut: 2.6 } as const

const drawn = (ground: string) =>
  ground.replace(
    '%',
    KEYS.flatMap((key) =>
      Object.entries(STATES).map(
        ([state, attribute]) =>
          `<button class="${key}${state === 'on' ? ' is-on' : ''}" data-key="${key}" data-state="${state}" ${attribute}>Tip changed</button>`,
      ),
    ).join(''),
  )

/** Contrast of an element's letters with what lies behind them, by the formula of WCAG 2; opacity above it counts. */
async function contrasts(page: Page) {
  return page.evaluate(() => {
    type Rgba = [number, number, number, number]
    const canvas = document.createElement('canvas').getContext('2d', { willReadFrequently: true })
    const parse = (color: string): Rgba => {
      if (!canvas) throw new Error('no canvas')
      canvas.clearRect(0, 0, 1, 1)
      canvas.fillStyle = color
      canvas.fillRect(0, 0, 1, 1)
      const [r = 0, g = 0, b = 0, a = 0] = canvas.getImageData(0, 0, 1, 1).data
      return [r, g, b, a / 255]
    }
    const over = (top: Rgba, below: Rgba): Rgba => {
      const mix = (i: 0 | 1 | 2) => top[i] * top[3] + below[i] * (1 - top[3])
      return [mix(0), mix(1), mix(2), 1]
    }
    const behind = (element: Element | null): Rgba => {
      if (!element) return parse(getComputedStyle(document.documentElement).backgroundColor)
      const own = parse(getComputedStyle(element).backgroundColor)
      return own[3] >= 1 ? own : over(own, behind(element.parentElement))
    }
    const luminance = ([r, g, b]: Rgba) => {
      const linear = (c: number) => (c / 255 <= 0.04045 ? c / 255 / 12.92 : ((c / 255 + 0.055) / 1.055) ** 2.4)
      return 0.2126 * linear(r) + 0.7152 * linear(g) + 0.0722 * linear(b)
    }
    return [...document.querySelectorAll('#keys [data-key]')].map((key) => {
      const opacity = Number(getComputedStyle(key).opacity)
      const ground = behind(key.parentElement)
      const fade = (c: Rgba): Rgba => over([c[0], c[1], c[2], c[3] * opacity], ground)
      const paper = fade(behind(key))
      const ink = fade(over(parse(getComputedStyle(key).color), behind(key)))
      const [light, dark] = [luminance(ink), luminance(paper)].sort((a, b) => b - a) as [number, number]
      return {
        key: key.getAttribute('data-key') ?? '',
        state: (key.getAttribute('data-state') ?? 'still') as 'still' | 'on' | 'shut',
        contrast: (light + 0.05) / (dark + 0.05),
      }
    })
  })
}

async function tooFaint(page: Page, where: string) {
  const all = await contrasts(page)
  expect(all).toHaveLength(KEYS.length * Object.keys(STATES).length)
  return all
    .filter((k) => k.contrast < LEAST[k.state])
    .map((k) => `${where}: ${k.key}, ${k.state}: ${k.contrast.toFixed(2)}`)
}

for (const theme of ['dark', 'light'] as const)
  test(`letters on every key can be read in every state and on every ground, ${theme}`, async ({ page }) => {
    await asOwner(page, shop)
    await expect(page.getByRole('heading').first()).toBeVisible()
    await page.addStyleTag({
      content: '*, *::before, *::after { transition: none !important; animation: none !important }',
    })
    await page.evaluate((to) => {
      document.documentElement.dataset['bsTheme'] = to
    }, theme)
    const devtools = await page.context().newCDPSession(page)
    await devtools.send('DOM.enable')
    await devtools.send('CSS.enable')
    const faint: string[] = []
    for (const [name, ground] of Object.entries(GROUNDS)) {
      await page.evaluate((html) => {
        const root = document.getElementById('root')
        if (root) root.innerHTML = `<div id="keys">${html}</div>`
      }, drawn(ground))
      faint.push(...(await tooFaint(page, name)))
      // Under a finger or the mouse, and reached by Tab.
      for (const pseudo of ['hover', 'focus-visible', 'active'] as const) {
        const { root } = await devtools.send('DOM.getDocument')
        const { nodeIds } = await devtools.send('DOM.querySelectorAll', {
          nodeId: root.nodeId,
          selector: '#keys [data-key]',
        })
        for (const nodeId of nodeIds)
          await devtools.send('CSS.forcePseudoState', { nodeId, forcedPseudoClasses: [pseudo] })
        faint.push(...(await tooFaint(page, `${name}, ${pseudo}`)))
      }
    }
    expect(faint).toEqual([])
  })
