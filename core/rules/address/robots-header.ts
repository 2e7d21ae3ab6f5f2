import { headerRobots } from '../../page/source/served.ts'
import { rule } from '../rule.ts'
import { whyItMatters } from './why-it-matters.ts'

/** The server keeps a page out of results by a header. */
export const robotsHeader = rule({
  id: 'robots-header',
  family: 'address',
  shownOn: { snippet: 'trail', head: 'robots' },
  severity: 'flaw',
  sign: 'order',
  name: 'Page kept out of results by the server',
  basis: 'from memory: X-Robots-Tag',
  why: 'noindex in a header keeps it out of all results, and nothing on the page shows it, although its keyword or a link from the home page says that it matters.',
  mend: 'Have the header X-Robots-Tag taken away where the server is set up, or let it stand with a reason.',
  needs: ['address'],
  message: ({ directive, reason }) =>
    `The server says “${directive}” in X-Robots-Tag, but the page ${reason}.`,
  check(context, mark) {
    const directive = headerRobots(context.page.served).find((d) => d === 'noindex' || d === 'none')
    const reason = directive === undefined ? null : whyItMatters(context)
    if (directive !== undefined && reason) mark(null, { directive, reason })
  },
  examples: {
    clean: [
      { html: '<p>x</p>', served: { robots: ['noindex'] } },
      {
        html: '<p>x</p>',
        served: { robots: ['otherbot: noindex'] },
        keywords: { primary: 'lamp', secondary: [] },
      },
    ],
    marked: [
      {
        html: '<p>x</p>',
        served: { robots: ['max-snippet: 50', 'NoIndex, nofollow'] },
        keywords: { primary: 'lamp', secondary: [] },
        says: /“noindex” in X-Robots-Tag, but the page has a primary keyword/,
      },
    ],
  },
})
