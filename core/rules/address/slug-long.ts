import { segmentsOf } from '../../site/path-below.ts'
import { slugWords } from './slug-repair.ts'
import { rule } from '../rule.ts'

/** A long slug. */
export const slugLong = rule({
  id: 'slug-long',
  family: 'address',
  severity: 'nit',
  sign: 'too-much',
  name: 'Long slug',
  basis: 'common practice, no source: 60 characters, 6 words',
  why: 'Long addresses are cut in results and break across lines in messages.',
  mend: 'Keep the words that say what the page is.',
  needs: ['address'],
  message: ({ words, characters, mostWords, mostCharacters }) =>
    `${words} words and ${characters} characters; the house style asks for ${mostWords} and ${mostCharacters} at most.`,
  check({ page, site, style }, mark) {
    const slug = segmentsOf(page, site).at(-1)
    if (slug === undefined) return
    const words = slugWords(slug).length
    const { slugLongest, slugWords: most } = style.limits
    if (slug.length > slugLongest || words > most)
      mark(null, { words, characters: slug.length, mostWords: most, mostCharacters: slugLongest })
  },
  examples: {
    clean: [{ html: '', path: 'keepers-cottage.html' }],
    marked: [
      {
        html: '',
        path: 'a-night-in-the-old-keepers-cottage.html',
        at: null,
        says: /7 words and 34 characters; the house style asks for 6 and 60/,
      },
    ],
  },
})
