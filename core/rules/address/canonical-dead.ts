import { canonicalOf } from '../../page/read/facts.ts'
import { addressKey } from '../../addresses/addresses.ts'
import { idAt } from '../../site/site-index.ts'
import { rule } from '../rule.ts'

/** The canonical leads nowhere. */
export const canonicalDead = rule({
  id: 'canonical-dead',
  family: 'address',
  shownOn: { snippet: 'trail', head: 'links' },
  severity: 'flaw',
  sign: 'missing',
  name: 'The canonical leads nowhere',
  basis: 'common practice, no source',
  why: 'Search engines may list neither this page nor the one that does not exist.',
  mend: 'Point it to this page, or to the one that is meant.',
  needs: ['head'],
  message: ({ url }) => `${url} is not a page of this site.`,
  check({ page, site }, mark) {
    const canonical = canonicalOf(page)
    if (!site.whole || !canonical?.url) return
    const address = addressKey(canonical.url)
    if (address.startsWith(site.base) && idAt(site, canonical.url) === undefined)
      mark(canonical, { url: canonical.url })
  },
  examples: {
    clean: ['<link rel=canonical href=page.html>', '<link rel=canonical href=https://other.example/x>'],
    marked: [
      {
        html: '<link rel=canonical href=/gone.html>',
        at: '<link',
        says: /https:\/\/site\.example\/gone\.html is not a page/,
      },
    ],
  },
})
