import { isEmptyHeading, outlineOf, type HeadingFact } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** A heading with the level of the one before it in its run, in document order; main content is one run, an H1 in the banner counting before it. */
function runs(headings: HeadingFact[]): HeadingFact[][] {
  const byLandmark = new Map<string, HeadingFact[]>()
  for (const h of headings) {
    const key = h.landmark ?? 'main'
    const names = key === 'header' && h.level === 1 ? 'main' : key
    const run = byLandmark.get(names)
    if (run) run.push(h)
    else byLandmark.set(names, [h])
  }
  return [...byLandmark.values()]
}

/** A heading more than one level deeper than the heading before it. */
export const headingSkip = rule({
  id: 'heading-skip',
  family: 'headings',
  severity: 'flaw',
  sign: 'missing',
  name: 'Skipped heading level',
  basis: 'WCAG 2.2 technique H42; common practice: never from H2 to H4',
  why: 'Readers who move from heading to heading, and search engines, take a missing level for a missing section.',
  mend: 'Raise the heading, and those below it, by the missing level.',
  needs: ['headings'],
  message: ({ level, after, below }) =>
    `H${level} follows H${after}: a level is missing.${below ? ` ${below} ${below === 1 ? 'heading' : 'headings'} below it would move with it.` : ''}`,
  check({ page }, mark) {
    for (const run of runs(outlineOf(page).filter((h) => !isEmptyHeading(h))))
      for (let i = 1; i < run.length; i++) {
        const heading = run[i]!
        const before = run[i - 1]!
        const gap = heading.level - before.level - 1
        if (gap < 1) continue
        const subtree = [heading]
        for (let j = i + 1; j < run.length && run[j]!.level > before.level + 1; j++) subtree.push(run[j]!)
        const certain = subtree.every((h) => h.endStart !== null && h.role === null)
        mark(
          heading,
          { level: heading.level, after: before.level, below: subtree.length - 1 },
          certain
            ? {
                label: 'Close the gap',
                edits: subtree.map((h) => ({
                  target: 'heading',
                  at: h.start,
                  edit: { level: Math.max(before.level + 1, h.level - gap) },
                })),
              }
            : undefined,
        )
      }
  },
  examples: {
    clean: [
      '<h1>Tides</h1><h2>Spring</h2><h3>Moon</h3>',
      '<h1>Tides</h1><h2>A</h2><h3>B</h3><h2>C</h2>',
      '<main><h1>Tides</h1><h2>A</h2></main><footer><h4>Hours</h4></footer>',
    ],
    marked: [
      { html: '<h1>Tides</h1><p>…</p><h3>Moon</h3>', at: '<h3', says: /H3 follows H1/ },
      {
        html: '<h1>T</h1><h2>V</h2><h4>Reed</h4><h5>x</h5><h4>Blast</h4><h2>E</h2>',
        at: '<h4>Reed',
        says: /H4 follows H2: a level is missing\. 2 headings below/,
      },
      { html: '<header><h1>T</h1></header><main><h3>V</h3></main>', at: '<h3', says: /H3 follows H1/ },
    ],
  },
})
