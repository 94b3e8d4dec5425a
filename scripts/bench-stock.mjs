// npm run bench:stock: a year of made-up shelves ordered when empty, by a fixed minimum, and by this program from imperfect logs. BENCH_WORLDS makes it smaller.
import { runBuilt } from './lib/runbuilt.mjs'

await runBuilt('stock')
