import { metasNamed } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** From memory. */
const known =
  /^(?:all|index|noindex|follow|nofollow|none|noarchive|nocache|nosnippet|noimageindex|notranslate|nositelinkssearchbox|indexifembedded|noodp|noydir|notranslate|max-snippet\s*:\s*-?\d+|max-video-preview\s*:\s*-?\d+|max-image-preview\s*:\s*(?:none|standard|large))$/

/** The directives of a robots meta, in lower case; a date may hold commas. */
export const robotsDirectives = (content: string): string[] => {
  const lower = content.toLowerCase()
  const dated = lower.search(/unavailable_after\s?:/)
  return (dated < 0 ? lower : lower.slice(0, dated))
    .split(',')
    .map((d) => d.trim())
    .filter(Boolean)
}
/** Those of some directives that engines do not document. */
export const unknownDirectives = (directives: readonly string[]): string[] =>
  directives.filter((d) => !known.test(d))

/** A robots directive that engines do not know. */
export const robotsUnknown = rule({
  id: 'robots-unknown',
  family: 'address',
  shownOn: { snippet: 'trail', head: 'robots' },
  severity: 'nit',
  sign: 'order',
  name: 'Unknown robots directive',
  basis: 'from memory: the directives that engines document',
  why: 'Search engines ignore a directive that they do not know, and do the opposite of what was meant.',
  mend: 'Write the directive that is meant.',
  needs: ['head'],
  message: ({ directive }) => `“${directive}” is not a robots directive that search engines know.`,
  check({ page }, mark) {
    for (const meta of metasNamed(page, 'robots'))
      for (const directive of unknownDirectives(robotsDirectives(meta.content))) mark(meta, { directive })
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
        says: /“no-index” is not a robots directive/,
      },
    ],
  },
})
