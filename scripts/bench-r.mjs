// npm run bench:r: the fits of part life against R's `survreg` on the same hundred thousand lives, in one run; where R is not, it says so.
import { runBuilt } from './lib/runbuilt.mjs'

await runBuilt('rcompare')
