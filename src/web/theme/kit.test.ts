import { readdirSync, readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { join } from 'node:path'
import { compile } from 'sass'
import { describe, expect, it } from 'vitest'

const web = join(import.meta.dirname, '..')
const root = join(web, '../..')
const classesOf = (css: string) => new Set([...css.matchAll(/\.([a-z][a-z0-9-]*)/gi)].map((m) => m[1] ?? ''))

describe('the kit', () => {
  it('has every class of its that a page asks for: what is left out of it is asked for by nobody', () => {
    const whole = classesOf(
      readFileSync(createRequire(import.meta.url).resolve('bootstrap/dist/css/bootstrap.css'), 'utf8'),
    )
    const own = classesOf(
      compile(join(web, 'main.scss'), {
        loadPaths: [join(root, 'node_modules')],
        quietDeps: true,
        silenceDeprecations: ['import'],
      }).css,
    )
    const asked = readdirSync(web, { recursive: true, encoding: 'utf8' })
      .filter((path) => /\.tsx$/.test(path) && !path.includes('.test.'))
      .flatMap((path) => readFileSync(join(web, path), 'utf8').match(/["'`][a-z0-9 -]+["'`]/g) ?? [])
      .flatMap((text) => text.slice(1, -1).split(' '))
      // A word with a stroke in it is hardly anything but a class.
      .filter((word) => word.includes('-') && whole.has(word))
    expect(new Set(asked).size).toBeGreaterThan(15)
    for (const word of new Set(asked)) expect([word, own.has(word)]).toEqual([word, true])
  })
})
