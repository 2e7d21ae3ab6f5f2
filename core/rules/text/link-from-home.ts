import { addressKey } from '../../addresses/addresses.ts'
import { rule } from '../rule.ts'

/** A landing page that the home page does not lead to. */
export const linkFromHome = rule({
  id: 'link-from-home',
  family: 'text',
  severity: 'nit',
  sign: 'missing',
  name: 'The home page does not link to it',
  basis: 'common practice, no source; asked of pages of the type landing only',
  why: 'A page that is meant to bring readers in is found sooner, and weighs more, when the home page leads to it.',
  mend: 'Link to it from the home page’s text or one of its headings.',
  needs: ['links'],
  message: () => 'The home page’s content does not link to this page; a menu alone does not count.',
  check({ page, site, style }, mark) {
    if (style.type !== 'landing' || !site.whole) return
    const home = site.entries.get(site.addresses.get(site.base) ?? '')
    const ownId = site.addresses.get(addressKey(page.url))
    if (!home || ownId === undefined || home.id === ownId) return
    if (!home.targets.slice(0, home.inText).includes(ownId)) mark(null, {})
  },
  examples: {
    clean: [
      {
        html: '<p>x',
        pages: { 'index.html': '<main><p>See <a href="page.html">the tours</a>.</p></main>' },
        style: { addresses: [{ match: '/page.html', type: 'landing' }] },
      },
      { html: '<p>x', pages: { 'index.html': '<p>none' } },
    ],
    marked: [
      {
        html: '<p>x',
        pages: { 'index.html': '<nav><a href="page.html">Tours</a></nav><main><p>Hello</p></main>' },
        style: { addresses: [{ match: '/page.html', type: 'landing' }] },
        at: null,
        says: /does not link to this page/,
      },
    ],
  },
})
