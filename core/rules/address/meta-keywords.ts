import { metasNamed } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** A keywords meta. */
export const metaKeywords = rule({
  id: 'meta-keywords',
  family: 'address',
  shownOn: { snippet: 'trail', head: 'metas' },
  severity: 'nit',
  sign: 'too-much',
  name: 'Keywords meta',
  basis: 'common practice, no source: most search engines ignore it',
  why: 'It does nothing for the page, and shows competitors which words it is after.',
  mend: 'Remove it.',
  needs: ['head'],
  message: ({ content }) => `It says “${content}”; most search engines ignore it.`,
  check({ page }, mark) {
    for (const meta of metasNamed(page, 'keywords'))
      mark(meta, { content: meta.content.length > 60 ? `${meta.content.slice(0, 60)} …` : meta.content })
  },
  examples: {
    clean: ['<meta name=description content=x>'],
    marked: [{ html: '<meta name=keywords content="lamp, oil">', at: '<meta', says: /It says “lamp, oil”/ }],
  },
})
