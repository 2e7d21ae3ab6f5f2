import { inOrder } from '../../site/site-index.ts'
import { siteRule } from '../rule.ts'

/** Addresses of the site that redirect, with the pages that still link to them. */
export const addressRedirects = siteRule({
  id: 'address-redirects',
  family: 'address',
  shownOn: { snippet: 'trail', head: 'served' },
  severity: 'nit',
  sign: 'order',
  name: 'An address redirects',
  basis: 'common practice, no source',
  why: 'Each redirect costs the reader a moment, and one day somebody takes it away.',
  mend: 'Point the links that still use the old address to the new one.',
  needs: ['address'],
  message: ({ from, to, links }) =>
    `${from} redirects to ${to}.${links === 0 ? '' : links === 1 ? ' One page still links to the old address.' : ` ${links} pages still link to the old address.`}`,
  check({ site }, mark) {
    for (const [from, id] of site.redirects) {
      const to = site.entries.get(id)
      if (!to) continue
      const linking = inOrder(site.throughRedirect.get(from) ?? [], site)
      mark([id, ...linking.filter((other) => other !== id)], { from, to: to.url, links: linking.length })
    }
  },
  examples: {
    clean: [{ html: '<p>x</p>', served: { status: 200 } }],
    marked: [
      {
        html: '<p>x</p>',
        served: { redirects: [{ url: 'https://site.example/old', status: 301 }] },
        pages: { 'index.html': '<a href="/old">x</a>' },
        says: /site\.example\/old redirects to https:\/\/site\.example\/page\.html\. One page still links/,
      },
    ],
  },
})
