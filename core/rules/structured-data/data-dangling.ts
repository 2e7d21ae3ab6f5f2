import { addressKey, resolveAddress } from '../../addresses/addresses.ts'
import { danglingLinks } from '../../structured-data/site-things.ts'
import type { PageId } from '../../site/page-identity.ts'
import { inOrder, type SiteIndex } from '../../site/site-index.ts'
import { siteRule } from '../rule.ts'
import { described } from './example.ts'

interface Dangling {
  property: string
  id: string
  pages: PageId[]
}
const known = new WeakMap<SiteIndex, { changes: number; addresses: unknown; found: Dangling[] }>()
/** All pointers to nothing, worked out anew only when a page's things or the addresses have changed: every keystroke asks. */
function dangling(site: SiteIndex): Dangling[] {
  const before = known.get(site)
  if (before?.changes === site.thingChanges && before.addresses === site.addresses) return before.found
  const isDefined = (id: string) => site.byThing.has(`id ${id}`)
  const asked = {
    base: site.base,
    whole: site.whole,
    isAddress: (url: string) => site.addresses.has(addressKey(resolveAddress(url, site.base) ?? url)),
  }
  const byAddress = new Map<string, Dangling>()
  for (const page of inOrder(site.withThings, site)) {
    const entry = site.entries.get(page)!
    for (const { property, to } of danglingLinks(entry.things!, entry.url, isDefined, asked)) {
      const key = `${property} ${to}`
      const group = byAddress.get(key) ?? { property, id: String(to), pages: [] }
      if (group.pages.at(-1) !== page) group.pages.push(page)
      byAddress.set(key, group)
    }
  }
  known.set(site, { changes: site.thingChanges, addresses: site.addresses, found: [...byAddress.values()] })
  return known.get(site)!.found
}

/** A pointer to a thing that nothing describes. */
export const dataDangling = siteRule({
  id: 'data-dangling',
  family: 'data',
  severity: 'flaw',
  sign: 'missing',
  name: 'The data refers to nothing',
  basis: 'JSON-LD 1.1, 3.3 (node identifiers)',
  why: 'A machine that follows the reference learns nothing about what is meant.',
  mend: 'Describe it once with this "@id", or refer to one that is described.',
  needs: ['data'],
  message: ({ id, property }) => `“${property}” refers to ${id}, which no page of the site describes.`,
  check({ site }, mark) {
    for (const { property, id, pages } of dangling(site)) mark([...pages], { id, property })
  },
  examples: {
    clean: [
      described({
        '@graph': [
          { '@type': 'Article', publisher: { '@id': '#org' } },
          { '@type': 'Organization', '@id': '#org', name: 'x' },
        ],
      }),
      {
        html: described({ '@type': 'Article', publisher: { '@id': 'https://site.example/#org' } }),
        pages: { 'index.html': described({ '@type': 'Organization', '@id': '#org', name: 'x' }) },
      },
      described({ '@type': 'Article', mainEntityOfPage: { '@id': 'https://site.example/page.html' } }),
      described({ '@type': 'Article', about: { '@id': 'https://other.example/#x' } }),
      described({ '@type': 'Offer', availability: { '@id': 'https://schema.org/InStock' } }),
    ],
    marked: [
      {
        html: described({ '@type': 'Article', publisher: { '@id': '#org' } }),
        says: /“publisher” refers to https:\/\/site\.example\/page\.html#org, which no page/,
      },
      { html: described({ '@type': 'Article', author: { '@id': '_:b' } }), says: /refers to _:b/ },
      {
        html: described({ '@type': 'Article', publisher: { '@id': 'https://site.example/#org' } }),
        pages: { 'index.html': '<p>x' },
        says: /https:\/\/site\.example\/#org/,
      },
    ],
  },
})
