import { outlineOf, titleOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** No title element in the head. */
export const titleMissing = rule({
  id: 'title-missing',
  family: 'title',
  severity: 'blocker',
  sign: 'missing',
  name: 'No title',
  basis: 'WHATWG HTML 4.2.2: a document has one title element',
  why: 'The title is the first line of the result, the name on the browser tab and what a screen reader says first.',
  mend: 'Write one: what the page is, in the words that people search for.',
  needs: ['title'],
  message: ({ shown }) =>
    shown
      ? `The page has no title; “${shown}” would be shown instead.`
      : 'The page has no title, and no H1 that could be shown instead.',
  check({ page }, mark) {
    if (titleOf(page)) return
    mark(null, { shown: outlineOf(page).find((h) => h.level === 1 && h.text)?.text ?? null })
  },
  examples: {
    clean: ['<title>Boat crossings</title>', '<head><title></title></head>'],
    marked: [
      { html: '<h1>Work with us</h1>', says: /“Work with us” would be shown/, at: null },
      { html: '<p>Hello</p><svg><title>Logo</title></svg>', says: /no H1 that could/ },
      { html: '<body><title>Late</title>', says: /no title/ },
    ],
  },
})
