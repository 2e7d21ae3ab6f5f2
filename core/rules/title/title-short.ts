import { countGraphemes } from '../../measure/width.ts'
import { titleOf } from '../../page/read/facts.ts'
import { hasUnspacedScript } from '../scripts.ts'
import { rule } from '../rule.ts'

/** Fewer characters than the house asks of a title. */
export const titleShort = rule({
  id: 'title-short',
  family: 'title',
  severity: 'nit',
  sign: 'missing',
  name: 'Short title',
  basis: 'common practice, no source: 30 characters',
  why: 'There is room to say for whom, where or when, in words that people search for.',
  mend: 'Add what sets this page apart.',
  needs: ['title'],
  message: ({ count, limit }) => `${count} characters; the house style asks for ${limit} at least.`,
  check({ page, style }, mark) {
    const title = titleOf(page)
    if (!title || title.text === '' || hasUnspacedScript(title.text)) return
    const count = countGraphemes(title.text)
    if (count < style.limits.titleShortest) mark(title, { count, limit: style.limits.titleShortest })
  },
  examples: {
    clean: [
      '<title>Boat crossings to the light, March to October</title>',
      '<title> </title>',
      '<title>灯台</title>',
    ],
    marked: [
      {
        html: '<title>Shop</title>',
        at: '<title',
        says: /^4 characters; the house style asks for 30 at least/,
      },
    ],
  },
})
