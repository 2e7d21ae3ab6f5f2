import { metasNamed, robotsOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'
import { whyItMatters } from './why-it-matters.ts'

/** A page that is kept out of results. */
export const robotsNoindex = rule({
  id: 'robots-noindex',
  family: 'address',
  shownOn: { snippet: 'trail', head: 'robots' },
  severity: 'flaw',
  sign: 'order',
  name: 'Page kept out of results',
  basis: 'common practice, no source',
  why: 'noindex keeps it out of all results, although its keyword or a link from the home page says that it matters.',
  mend: 'Remove noindex, or let it stand with a reason.',
  needs: ['head'],
  message: ({ directive, reason }) => `robots says “${directive}”, but the page ${reason}.`,
  check(context, mark) {
    const directive = robotsOf(context.page).find((d) => d === 'noindex' || d === 'none')
    const reason = directive === undefined ? null : whyItMatters(context)
    if (directive !== undefined && reason) mark(metasNamed(context.page, 'robots')[0]!, { directive, reason })
  },
  examples: {
    clean: [
      '<meta name=robots content=noindex>',
      { html: '<meta name=robots content=index>', keywords: { primary: 'lamp', secondary: [] } },
    ],
    marked: [
      {
        html: '<meta name=robots content="noindex, follow">',
        keywords: { primary: 'lamp', secondary: [] },
        at: '<meta',
        says: /“noindex”, but the page has a primary keyword/,
      },
      {
        html: '<meta name=robots content=none>',
        pages: { 'index.html': '<a href=page.html>x</a>' },
        says: /is linked from the home page/,
      },
    ],
  },
})
