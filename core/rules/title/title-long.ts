import { countGraphemes } from '../../measure/width.ts'
import { titleOf } from '../../page/read/facts.ts'
import { hasUnspacedScript } from '../scripts.ts'
import { rule } from '../rule.ts'

/** More characters than the house allows in a title. */
export const titleLong = rule({
  id: 'title-long',
  family: 'title',
  severity: 'nit',
  sign: 'too-much',
  name: 'Long title',
  basis: 'common practice, no source: 65 characters',
  why: 'Long titles are cut in results, tabs and bookmarks.',
  mend: 'Shorten it.',
  needs: ['title'],
  message: ({ count, limit }) => `${count} characters; the house style asks for ${limit} at most.`,
  check({ page, style }, mark) {
    const title = titleOf(page)
    if (!title || hasUnspacedScript(title.text)) return
    const count = countGraphemes(title.text)
    if (count > style.limits.titleLongest) mark(title, { count, limit: style.limits.titleLongest })
  },
  examples: {
    clean: [
      '<title>Boat crossings to the light, March to October</title>',
      `<title>${'灯台'.repeat(40)}</title>`,
    ],
    marked: [
      {
        html: '<title>Ill-lit till illicit, filling little silly hillside tills, still fit.</title>',
        at: '<title',
        says: /^69 characters; the house style asks for 65/,
      },
      {
        html: '<title>Boat crossings</title>',
        style: { limits: { titleLongest: 10 } },
        says: /14 characters.*10 at most/,
      },
    ],
  },
})
