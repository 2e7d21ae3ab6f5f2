import { metasNamed, robotsOf } from '../../page/read/facts.ts'
import { addressKey } from '../../addresses/addresses.ts'
import { rule } from '../rule.ts'

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
  check({ page, site, keywords }, mark) {
    const directive = robotsOf(page).find((d) => d === 'noindex' || d === 'none')
    if (directive === undefined) return
    const home = site.entries.get(site.addresses.get(site.base) ?? '')
    const own = site.addresses.get(addressKey(page.url))
    const linked = own !== undefined && home?.targets.includes(own) === true && page.url !== site.base
    if (!keywords?.primary && !linked) return
    mark(metasNamed(page, 'robots')[0]!, {
      directive,
      reason: keywords?.primary ? 'has a primary keyword' : 'is linked from the home page',
    })
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
