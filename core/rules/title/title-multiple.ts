import { rule } from '../rule.ts'

/** More than one title in the head. */
export const titleMultiple = rule({
  id: 'title-multiple',
  family: 'title',
  severity: 'flaw',
  sign: 'too-much',
  name: 'More than one title',
  basis: 'WHATWG HTML 4.2.1: no more than one title element',
  why: 'Only the first counts; the others are ignored, or picked up by mistake.',
  mend: 'Keep the first and remove the others.',
  needs: ['title', 'head'],
  message: ({ count }) => `The head has ${count} title elements; one is expected.`,
  check({ page }, mark) {
    const titles = page.titles.filter((t) => t.inHead)
    if (titles.length < 2) return
    mark(
      titles[1]!,
      { count: titles.length },
      {
        label: 'Keep the first',
        edits: titles.slice(1).map((t) => ({ target: 'title', at: t.start, edit: { remove: true } })),
      },
    )
  },
  examples: {
    clean: ['<title>One</title>', '<title>One</title><body><svg><title>Logo</title></svg>'],
    marked: [
      { html: '<title>One</title>\n<title>Two</title>', at: '<title>Two', says: /2 title elements/ },
      {
        html: '<head><title>A</title><title>B</title><title>C</title></head>',
        at: '<title>B',
        says: /3 title/,
      },
    ],
  },
})
