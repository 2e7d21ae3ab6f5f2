import { addressKey } from '../../addresses/addresses.ts'
import { idAt } from '../../site/site-index.ts'
import { rule } from '../rule.ts'

/** A link to no page or file of the site. */
export const linkBroken = rule({
  id: 'link-broken',
  family: 'text',
  shownOn: { outline: 'text', galley: 'text', links: 'links' },
  severity: 'flaw',
  sign: 'missing',
  name: 'Broken link',
  basis: 'common practice, no source',
  why: 'Readers get an error, and the page that is meant cannot be found by following links.',
  mend: 'Correct the address, or remove the link.',
  needs: ['links'],
  message: ({ href, text }) =>
    `The link${text ? ` “${text}”` : ''} leads to “${href}”, which is not a page or file of this site.`,
  check({ page, site }, mark) {
    if (!site.whole) return
    for (const link of page.links) {
      if (link.url === null || link.href === '') continue
      // Spelt as the site has it, as most are: nothing to be worked out.
      const fragment = link.url.indexOf('#')
      if (site.addresses.has(fragment < 0 ? link.url : link.url.slice(0, fragment))) continue
      const address = addressKey(link.url)
      if (address.startsWith(site.base) && idAt(site, link.url) === undefined)
        mark(link, { href: link.href, text: link.text })
    }
  },
  examples: {
    clean: [
      {
        html: '<a href="b.html#top">b</a><a href="sub/">s</a><a href="sub">s</a><a href="?q=1">q</a>',
        pages: { 'b.html': '', 'sub/index.html': '' },
      },
      {
        html: '<a href="https://elsewhere.example/x">x</a><a href="mailto:a@b.example">m</a><a name=x>n</a>',
      },
    ],
    marked: [
      { html: '<a href="gone.html">The way</a>', at: '<a', says: /The link “The way” leads to “gone\.html”/ },
      { html: '<base href="/deep/"><a href="page.html">x</a>', at: '<a', says: /page\.html/ },
    ],
  },
})
