// npm run bench:policy: six months of made-up shops under run to failure, every Friday, and the rule chosen from an imperfect first year. BENCH_WORLDS makes it smaller.
import { runBuilt } from './lib/runbuilt.mjs'

await runBuilt('policy')
