import { canonicalOf, outlineOf, titleOf } from '../../page/read/facts.ts'
import { resolveAddress, withoutQuery } from '../../addresses/addresses.ts'
import { literalOf, mainThing } from '../../structured-data/about.ts'
import { dataOf } from '../../structured-data/read.ts'
import { folded } from '../../structured-data/visible.ts'
import { rule } from '../rule.ts'
import { described } from './example.ts'

/** Whether two namings of one thing go together: one within the other, case and punctuation apart. */
const together = (a: string, b: string): boolean => {
  const [x, y] = [folded(a), folded(b)]
  return x.trim() === '' || y.trim() === '' || x.includes(y) || y.includes(x)
}

/** The thing that the page is about has another name or another address than the page. */
export const dataMismatch = rule({
  id: 'data-mismatch',
  family: 'data',
  severity: 'nit',
  sign: 'alike',
  name: 'The data and the page disagree',
  basis: 'common practice, no source',
  why: 'When they disagree, neither is believed.',
  mend: 'Write what the page says, or change the page.',
  needs: ['data', 'title', 'headings', 'address'],
  message: ({ property, value, page }) => `“${property}” is “${value}”; the page says “${page}”.`,
  check({ page }, mark) {
    if (page.data.length === 0) return
    const data = dataOf(page)
    const thing = mainThing(data)
    if (!thing) return
    const h1 = outlineOf(page).find((h) => h.level === 1 && h.text)?.text ?? null
    const title = titleOf(page)?.text ?? null
    const said = [h1, title].filter((t): t is string => t !== null)
    for (const property of ['headline', 'name', 'title']) {
      const named = literalOf(thing, property)
      if (named?.kind !== 'literal' || said.length === 0) continue
      const value = String(named.value)
      if (!said.some((t) => together(t, value)))
        mark({ start: named.start, end: named.end }, { property, value, page: said[0]! })
    }
    const url = literalOf(thing, 'url')
    if (url?.kind === 'literal') {
      const ownAddress = canonicalOf(page)?.url ?? page.url
      const address = resolveAddress(String(url.value), page.url)
      const same = (a: string) =>
        withoutQuery(a)
          .replace(/^https?:/, '')
          .replace(/\/$/, '')
      if (address !== null && same(address) !== same(ownAddress) && same(address) !== same(page.url))
        mark(
          { start: url.start, end: url.end },
          { property: 'url', value: String(url.value), page: ownAddress },
        )
    }
  },
  examples: {
    clean: [
      described(
        { '@type': 'Article', headline: 'Lenses', url: 'https://site.example/page.html' },
        '<h1>Lenses and their makers</h1>',
      ),
      `<title>Storm lamp | Shop</title>${described({ '@type': 'Product', name: 'Storm lamp' }, '<h1>The lamp for storms</h1>').slice(16)}`,
      described({ '@type': 'Organization', name: 'Another', url: 'https://other.example/' }, '<h1>x</h1>'),
      described(
        {
          '@graph': [
            { '@type': 'Product', name: 'A' },
            { '@type': 'Product', name: 'B' },
          ],
        },
        '<h1>All lamps</h1>',
      ),
    ],
    marked: [
      {
        html: described({ '@type': 'Article', headline: 'Fog signals' }, '<h1>Lenses</h1>'),
        at: '"Fog signals"',
        says: /“headline” is “Fog signals”; the page says “Lenses”/,
      },
      {
        html: described(
          { '@type': 'Event', name: 'Lenses', url: 'https://site.example/other.html' },
          '<h1>Lenses</h1>',
        ),
        at: '"https://site.example/other.html"',
        says: /the page says “https:\/\/site\.example\/page\.html”/,
      },
      {
        html: described({ '@type': 'Recipe', name: 'Kelp bread' }, '<h1>Oat cakes</h1>'),
        says: /“name” is “Kelp bread”/,
      },
    ],
  },
})
