/** Edits of text, and blocks put in, on pages of Debian's packages and on malformed ones. */
import { noInsertions, tryInsertions } from '../fixtures/new-blocks.ts'
import { noEdits, tryTextEdits, type TextEditCounts } from '../fixtures/text-edits.ts'
import { corpus, pagesOf, textPackages } from '../real/corpora.ts'
import { Chance, page } from './fuzz.ts'

const EDITS = 20_000
const INSERTIONS = 4_000

/** Half of each on real pages, the same share of every package; half on malformed ones. */
export function fuzzText(seed: number, factor: number): { passed: number; failed: number } {
  const sources: [string, (chance: Chance) => Uint8Array][] = [
    ['malformed pages', page],
    ...textPackages.map((name): [string, (chance: Chance) => Uint8Array] => {
      const pages = pagesOf(corpus(name))
      return [name, (chance) => chance.one(pages).read()]
    }),
  ]
  let passed = 0
  let failed = 0
  for (const [name, next] of sources) {
    const share = factor * (name === 'malformed pages' ? 1 / 2 : 1 / 2 / textPackages.length)
    const edits = noEdits()
    const chance = new Chance(seed)
    while (edits.edits < EDITS * share) tryTextEdits(next(chance), chance, 8, edits)
    const put = noInsertions()
    while (put.put < INSERTIONS * share) tryInsertions(next(chance), chance, 4, put)
    for (const problem of [...edits.problems, ...put.problems]) console.log(`FAILED  ${name}: ${problem}`)
    const wrong = edits.problems.length + put.problems.length
    failed += wrong
    passed += edits.edits + put.put - wrong
    console.log(
      `text, ${name}: ${edits.edits} edits, ${edits.refused} refused, ${put.put} insertions, ${put.refused} refused; ${readOnly(edits)}`,
    )
  }
  return { passed, failed }
}

function readOnly({ words, editable, why }: TextEditCounts): string {
  const share = (n: number) => `${((100 * n) / Math.max(1, words)).toFixed(2)} %`
  const reasons = [...why].sort((a, b) => b[1] - a[1]).map(([reason, n]) => `${share(n)} ${reason}`)
  return `${share(words - editable)} of the words read-only${reasons.length > 0 ? `: ${reasons.join(' · ')}` : ''}`
}
