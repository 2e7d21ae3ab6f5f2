import { metasNamed } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** More than one meta description. */
export const descriptionMultiple = rule({
  id: 'description-multiple',
  family: 'description',
  severity: 'flaw',
  sign: 'too-much',
  name: 'More than one meta description',
  basis: 'WHATWG HTML 4.2.5.1: one description for a page',
  why: 'Which of them is shown is left to chance.',
  mend: 'Keep the first and remove the others.',
  needs: ['description', 'head'],
  message: ({ count }) => `The page has ${count} meta descriptions; one is expected.`,
  check({ page }, mark) {
    const all = metasNamed(page, 'description')
    if (all.length < 2) return
    mark(
      all[1]!,
      { count: all.length },
      {
        label: 'Keep the first',
        edits: all.slice(1).map((m) => ({ target: 'meta:description', at: m.start, edit: { remove: true } })),
      },
    )
  },
  examples: {
    clean: [
      '<meta name=description content=a>',
      '<meta name=description content=a><meta name=keywords content=b>',
    ],
    marked: [
      {
        html: '<meta name=description content=a>\n<meta name=description content=b>',
        at: '<meta name=description content=b',
        says: /2 meta descriptions/,
      },
    ],
  },
})
