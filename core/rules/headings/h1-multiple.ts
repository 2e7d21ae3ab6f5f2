import { rule } from '../rule.ts'
import { h1Runs } from './h1-runs.ts'

/** More than one H1, not adjacent. */
export const h1Multiple = rule({
  id: 'h1-multiple',
  family: 'headings',
  severity: 'flaw',
  sign: 'too-much',
  name: 'More than one H1',
  basis: 'common practice, no source',
  why: 'With two H1s the page has two names.',
  mend: 'Keep the one that names the page; make the others sections.',
  needs: ['headings'],
  message: ({ count, texts }) => `The page has ${count} H1s: ${texts}. One is expected.`,
  check({ page }, mark) {
    const runs = h1Runs(page)
    if (runs.length < 2) return
    mark(runs[1]![0]!, {
      count: runs.length,
      texts: runs.map((run) => `“${run.map((h) => h.text).join(' ')}”`).join(', '),
    })
  },
  examples: {
    clean: ['<h1>Tides</h1><h2>Spring</h2>', '<h1>The fog</h1> <h1>signal</h1>'],
    marked: [
      {
        html: '<h1>Tides</h1><p>…</p><h1>Moon</h1>',
        at: '<h1>Moon',
        says: /2 H1s: “Tides”, “Moon”/,
      },
    ],
  },
})
