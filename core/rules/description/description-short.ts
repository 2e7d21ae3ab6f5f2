import { countGraphemes } from '../../measure/width.ts'
import { descriptionOf } from '../../page/read/facts.ts'
import { hasUnspacedScript } from '../scripts.ts'
import { rule } from '../rule.ts'

/** Fewer characters than the house asks of a description. */
export const descriptionShort = rule({
  id: 'description-short',
  family: 'description',
  severity: 'nit',
  sign: 'missing',
  name: 'Short meta description',
  basis: 'common practice, no source: 70 characters',
  why: 'Results have room for about twice as much; a bare phrase is often replaced by a passage from the page.',
  mend: 'Add for whom, where, when or what to do.',
  needs: ['description'],
  message: ({ count, limit }) => `${count} characters; the house style asks for ${limit} at least.`,
  check({ page, style }, mark) {
    const description = descriptionOf(page)
    if (!description || description.content === '' || hasUnspacedScript(description.content)) return
    const count = countGraphemes(description.content)
    if (count < style.limits.descriptionShortest)
      mark(description, { count, limit: style.limits.descriptionShortest })
  },
  examples: {
    clean: [
      '<meta name=description content="Charts, lamps and a recording of the horn, posted from the island every Tuesday.">',
      '<meta name=description content="">',
    ],
    marked: [
      {
        html: '<meta name=description content="Charts and lamps.">',
        at: '<meta',
        says: /^17 characters; .* 70 at least/,
      },
    ],
  },
})
