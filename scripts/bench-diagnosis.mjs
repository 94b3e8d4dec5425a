// npm run bench:diagnosis: minutes to fix on made-up stops, by the search and by fixed orders. BENCH_STOPS and BENCH_WORLDS make it smaller.
import { runBuilt } from './lib/runbuilt.mjs'

await runBuilt('diagnosis')
