import { rule } from '../rule.ts'
import { h1Runs } from './h1-runs.ts'

/** A headline that was broken into several H1. */
export const h1Split = rule({
  id: 'h1-split',
  family: 'headings',
  severity: 'flaw',
  sign: 'order',
  name: 'One headline split into several H1s',
  basis: 'common practice; WCAG 2.2, 1.3.1',
  why: 'Readers who move from heading to heading hear several names instead of one.',
  mend: 'Join them into one H1, with each line in a span that keeps its class.',
  needs: ['headings'],
  message: ({ count, texts }) => `${count} H1s in a row are one headline: ${texts}.`,
  check({ page }, mark) {
    for (const run of h1Runs(page)) {
      if (run.length < 2) continue
      const certain = run.every((h) => h.endStart !== null && h.role === null)
      mark(
        run[0]!,
        { count: run.length, texts: run.map((h) => `“${h.text}”`).join(' ') },
        certain
          ? {
              label: 'Join into one H1',
              edits: [
                { target: 'heading', at: run[0]!.start, edit: {}, merges: run.slice(1).map((h) => h.start) },
              ],
            }
          : undefined,
      )
    }
  },
  examples: {
    clean: [
      '<h1>What the fog signal says</h1>',
      '<h1>A</h1><p>text</p><h1>B</h1>',
      '<h1>A</h1><img src=x alt=y><h1>B</h1>',
    ],
    marked: [
      {
        html: '<h1>What the fog signal</h1>\n<h1 class=small>says</h1>\n<h1>and why</h1>',
        at: '<h1>What',
        says: /3 H1s in a row/,
      },
      { html: '<h1>A</h1><h1>B</h1>', says: /2 H1s in a row are one headline: “A” “B”/ },
    ],
  },
})
