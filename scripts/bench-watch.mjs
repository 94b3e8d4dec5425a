// npm run bench:watch: half a year at made-up robots, watched by the feed motor's current at equal speed. BENCH_WORLDS makes it smaller.
import { runBuilt } from './lib/runbuilt.mjs'

await runBuilt('watch')
