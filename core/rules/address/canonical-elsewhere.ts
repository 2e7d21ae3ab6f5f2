import { canonicalOf } from '../../page/read/facts.ts'
import { addressKey } from '../../addresses/addresses.ts'
import { rule } from '../rule.ts'

/** The canonical is another page. */
export const canonicalElsewhere = rule({
  id: 'canonical-elsewhere',
  family: 'address',
  shownOn: { snippet: 'trail', head: 'links' },
  severity: 'nit',
  sign: 'order',
  name: 'The canonical points to another page',
  basis: 'RFC 6596',
  why: 'Results show the other page instead of this one; nobody sees what is written here.',
  mend: 'Let it stand if that is meant; otherwise point it to this page.',
  needs: ['head'],
  message: ({ url }) => `It points to ${url}.`,
  check({ page, site }, mark) {
    const canonical = canonicalOf(page)
    if (!canonical?.url) return
    const there = site.addresses.get(addressKey(canonical.url))
    if (there !== undefined && there !== site.addresses.get(addressKey(page.url)))
      mark(canonical, { url: canonical.url })
  },
  examples: {
    clean: [
      '<link rel=canonical href=page.html>',
      { html: '<link rel=canonical href=/a>', path: 'a/index.html' },
    ],
    marked: [
      {
        html: '<link rel=canonical href=/b.html>',
        pages: { 'b.html': '' },
        at: '<link',
        says: /It points to https:\/\/site\.example\/b\.html/,
      },
    ],
  },
})
