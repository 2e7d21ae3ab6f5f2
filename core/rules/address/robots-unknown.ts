import { metasNamed } from '../../page/facts.ts'
import { rule } from '../rule.ts'

/** From memory. */
const known =
  /^(?:all|index|noindex|follow|nofollow|none|noarchive|nocache|nosnippet|noimageindex|notranslate|nositelinkssearchbox|indexifembedded|noodp|noydir|notranslate|max-snippet\s*:\s*-?\d+|max-video-preview\s*:\s*-?\d+|max-image-preview\s*:\s*(?:none|standard|large))$/

/** A robots directive that is none. */
export const robotsUnknown = rule({
  id: 'robots-unknown',
  family: 'address',
  severity: 'nit',
  sign: 'order',
  name: 'A robots directive that is none',
  basis: 'from memory: the directives that engines document',
  why: 'Engines pass over a word that they do not know, and do what was not meant.',
  mend: 'Write the directive that was meant.',
  needs: ['head'],
  message: ({ directive }) => `“${directive}” is no robots directive.`,
  check({ page }, mark) {
    for (const meta of metasNamed(page, 'robots')) {
      // A date may hold commas.
      const content = meta.content.toLowerCase().replace(/unavailable_after\s*:.*$/, '')
      for (const directive of content.split(',').map((d) => d.trim()))
        if (directive !== '' && !known.test(directive)) mark(meta, { directive })
    }
  },
  examples: {
    clean: [
      '<meta name=robots content="index, follow, max-snippet:-1, max-image-preview:large">',
      '<meta name=robots content="noarchive, unavailable_after: Monday, 30-Nov-26 12:00:00 UTC">',
    ],
    marked: [
      {
        html: '<meta name=robots content="no-index, follow">',
        at: '<meta',
        says: /“no-index” is no robots directive/,
      },
    ],
  },
})
