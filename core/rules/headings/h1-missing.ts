import { isEmptyHeading, outlineOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** No H1 that says anything. */
export const h1Missing = rule({
  id: 'h1-missing',
  family: 'headings',
  severity: 'blocker',
  sign: 'missing',
  name: 'No H1',
  basis: 'common practice; WCAG 2.2, 2.4.6 and technique H42',
  why: 'The H1 names the page for readers and machines; without a title it is what results show.',
  mend: 'Make the line that names the page the H1.',
  needs: ['headings'],
  message: ({ empty }) =>
    empty ? 'The only H1 is empty; one with text is expected.' : 'The page has no H1; one is expected.',
  check({ page }, mark) {
    const first = outlineOf(page).filter((h) => h.level === 1)
    if (first.some((h) => !isEmptyHeading(h))) return
    mark(first[0] ?? null, { empty: first.length > 0 })
  },
  examples: {
    clean: [
      '<h1>Tides</h1>',
      '<h1><img src=x alt="Farrowskerry Light"></h1>',
      '<div role=heading aria-level=1>Tides</div>',
    ],
    marked: [
      { html: '<h2>Tides</h2>', at: null, says: /no H1/ },
      { html: '<h1> </h1>', at: '<h1', says: /empty/ },
      { html: '<h1 hidden>Tides</h1>', says: /no H1/ },
    ],
  },
})
