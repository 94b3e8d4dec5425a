// npm run bench:practice: how fast the practice booth computes, against real time. BENCH_WORLDS makes it smaller.
import { runBuilt } from './lib/runbuilt.mjs'

await runBuilt('practice')
