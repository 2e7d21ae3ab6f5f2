import { addressKey } from '../../site/addresses.ts'
import { rule } from '../rule.ts'

/** A link to no page or file of the site. */
export const linkBroken = rule({
  id: 'link-broken',
  family: 'text',
  severity: 'flaw',
  sign: 'missing',
  name: 'A link that leads nowhere',
  basis: 'common practice, no source',
  why: 'Readers land on an error, and the page that was meant is not found by following links.',
  mend: 'Mend the address, or take the link out.',
  needs: ['links'],
  message: ({ href, text }) => `“${href}”${text ? ` behind “${text}”` : ''} is no page or file of the site.`,
  check({ page, site }, mark) {
    if (!site.whole) return
    for (const link of page.links) {
      if (link.url === null || link.href === '') continue
      const address = addressKey(link.url)
      if (address.startsWith(site.base) && !site.addresses.has(address)) mark(link, { href: link.href, text: link.text })
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
      { html: '<a href="gone.html">The way</a>', at: '<a', says: /“gone\.html” behind “The way”/ },
      { html: '<base href="/deep/"><a href="page.html">x</a>', at: '<a', says: /page\.html/ },
    ],
  },
})
