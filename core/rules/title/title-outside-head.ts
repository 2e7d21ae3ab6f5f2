import { rule } from '../rule.ts'

/** A title element in the body. */
export const titleOutsideHead = rule({
  id: 'title-outside-head',
  family: 'title',
  severity: 'flaw',
  sign: 'order',
  name: 'Title outside the head',
  basis: 'WHATWG HTML 4.2.2: in the head, once',
  why: 'Something closed the head before it, and search engines may ignore it there.',
  mend: 'Move it into the head, and remove from the head what does not belong there.',
  needs: ['title', 'head'],
  message: ({ title }) => `The title element “${title}” is in the body.`,
  check({ page }, mark) {
    for (const title of page.titles) if (!title.inHead) mark(title, { title: title.text })
  },
  examples: {
    clean: ['<title>Tides</title><p>x', '<title>Tides</title><svg><title>A drawing</title></svg>'],
    marked: [{ html: '<p>Early</p><title>Tides</title>', at: '<title', says: /“Tides” is in the body/ }],
  },
})
