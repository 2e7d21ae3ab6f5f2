/**
 * `npm run fuzz [-- SEED [FACTOR]]`: 20,000 pages with drafts and moves, 5,000 JSON-LD documents, 2,000 sheets, archives and
 * project files each; 20,000 edits of text and 4,000 insertions on real pages (fetched into .cache) and malformed ones; times
 * FACTOR. Not part of verify. Prints the seed, what failed with the seed of its own, and last
 * `N passed, N failed`.
 */
import { tryOne, type Kind } from './fuzz.ts'
import { fuzzText } from './text.ts'

const seed = Number(process.argv[2] ?? 20261125)
const factor = Number(process.argv[3] ?? 1)
const counts: Record<Kind, number> = { pages: 20_000, json: 5_000, csv: 2_000, zip: 2_000, project: 2_000 }
console.log(`seed ${seed}`)
let passed = 0
let failed = 0
for (const [kind, count] of Object.entries(counts) as [Kind, number][]) {
  const started = Date.now()
  let wrong = 0
  for (let i = 0; i < count * factor; i++) {
    const own = (seed + i * 7919) >>> 0
    const why = tryOne(kind, own)
    if (why === null) continue
    if (++wrong <= 10) console.log(`FAILED  ${kind}, seed ${own}: ${why}`)
  }
  passed += count * factor - wrong
  failed += wrong
  console.log(`${kind}: ${count * factor}, ${wrong} failed, ${Math.round((Date.now() - started) / 1000)} s`)
}
const text = fuzzText(seed, factor)
passed += text.passed
failed += text.failed
console.log(`${passed} passed, ${failed} failed`)
process.exitCode = failed > 0 ? 1 : 0
