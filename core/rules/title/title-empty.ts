import { outlineOf, titleOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** A title element with only white space in it. */
export const titleEmpty = rule({
  id: 'title-empty',
  family: 'title',
  severity: 'blocker',
  sign: 'missing',
  name: 'The title is empty',
  basis: 'WHATWG HTML 4.2.2; WCAG 2.2, 2.4.2',
  why: 'An empty title counts as none: something else is shown instead.',
  mend: 'Write one: what the page is, in the words that people search for.',
  needs: ['title'],
  message: ({ shown }) => `The title element is empty${shown ? `; “${shown}” would be shown instead` : ''}.`,
  check({ page }, mark) {
    const title = titleOf(page)
    if (title?.text === '')
      mark(title, { shown: outlineOf(page).find((h) => h.level === 1 && h.text)?.text ?? null })
  },
  examples: {
    clean: ['<title>Tides</title>', '<p>No title at all</p>'],
    marked: [{ html: '<title> \n </title><h1>Tides</h1>', at: '<title', says: /empty; “Tides”/ }],
  },
})
