import { resolveAddress, withoutQuery } from '../../addresses/addresses.ts'
import {
  schemaTypes,
  textOf,
  thingsUnder,
  valuesOf,
  type PageData,
  type Thing,
} from '../../structured-data/page-data.ts'
import { dataOf } from '../../structured-data/read.ts'
import { rule } from '../rule.ts'
import { described } from './example.ts'

/** Where an entry of a trail leads: its item's address or id; null where it names none. */
function addressOfEntry(entry: Thing, data: PageData, base: string): string | null {
  const [value] = valuesOf(entry, 'item')
  if (!value) return null
  if (value.kind === 'literal') return resolveAddress(value.iri ?? String(value.value), base)
  if (value.kind === 'reference') return value.id
  return value.thing.id ?? resolveAddress(textOf(value.thing, 'url', data) ?? '', base)
}
/** Folders that an address lies in, and the address itself: what may stand in its trail. */
function isAncestor(address: string, page: string): boolean {
  const plain = (url: string) =>
    withoutQuery(url)
      .replace(/(?:\/index)?(?:\.html?|\.xhtml)?$/i, '')
      .replace(/\/$/, '')
  const above = plain(address)
  const here = plain(page)
  return here === above || here.startsWith(above + '/')
}

/** A breadcrumb whose places do not count up, or whose entries do not lead to the page. */
export const dataBreadcrumb = rule({
  id: 'data-breadcrumb',
  family: 'data',
  severity: 'flaw',
  sign: 'order',
  name: 'Breadcrumb out of order',
  basis: 'the breadcrumb feature’s public documentation, from memory',
  why: 'Results can show the breadcrumb instead of the address; a wrong one is not shown.',
  mend: 'Number the entries from 1, from the home page down to this page.',
  needs: ['data'],
  message: ({ found, expected, item }) =>
    item === null
      ? `The entry’s position is ${found}; ${expected} is expected.`
      : `The entry leads to ${item}, which is not above this page’s address.`,
  check({ page, baseKnown }, mark) {
    const data = dataOf(page)
    const base = page.base === null ? page.url : (resolveAddress(page.base, page.url) ?? page.url)
    for (const thing of data.things) {
      if (!schemaTypes(thing).includes('BreadcrumbList')) continue
      thingsUnder(thing, 'itemListElement', data).forEach((entry, i) => {
        const position = valuesOf(entry, 'position')[0]
        const at = { start: entry.start, end: entry.start + 1 }
        // One without a position is data-required's.
        if (position?.kind === 'literal' && Number(position.value) !== i + 1)
          mark(
            { start: position.start, end: position.end },
            { found: String(position.value), expected: i + 1, item: null },
          )
        const address = addressOfEntry(entry, data, base)
        // Where the site's address is not known, nothing can be said of what lies under it.
        if (baseKnown && address !== null && /^https?:/.test(address) && !isAncestor(address, page.url)) {
          const item = entry.properties.find((p) => p.name === 'item')
          mark(item ? item.under : at, { found: null, expected: null, item: address })
        }
      })
    }
  },
  examples: {
    clean: [
      {
        html: described({
          '@type': 'BreadcrumbList',
          itemListElement: [
            { '@type': 'ListItem', position: 1, name: 'Home', item: 'https://site.example/' },
            { '@type': 'ListItem', position: 2, name: 'Shop', item: { '@id': '/shop/', name: 'Shop' } },
            { '@type': 'ListItem', position: '3', name: 'Lamp' },
          ],
        }),
        path: 'shop/lamp.html',
      },
      described({
        '@type': 'BreadcrumbList',
        itemListElement: [
          { '@type': 'ListItem', position: 1, name: 'x', item: 'https://site.example/page.html' },
        ],
      }),
      described({
        '@type': 'ItemList',
        itemListElement: [{ '@type': 'ListItem', position: 7, item: 'https://other.example/' }],
      }),
    ],
    marked: [
      {
        html: described({
          '@type': 'BreadcrumbList',
          itemListElement: [{ '@type': 'ListItem', position: 0, name: 'x', item: '/' }],
        }),
        at: '0',
        says: /position is 0; 1 is expected/,
      },
      {
        html: described({
          '@type': 'BreadcrumbList',
          itemListElement: [{ '@type': 'ListItem', position: 1, name: 'x', item: '/elsewhere/' }],
        }),
        at: '"/elsewhere/"',
        says: /leads to https:\/\/site\.example\/elsewhere\/, which/,
      },
      {
        html: described({
          '@type': 'BreadcrumbList',
          itemListElement: [
            { '@type': 'ListItem', position: 1, name: 'x', item: '/' },
            { '@type': 'ListItem', position: 1, name: 'y' },
          ],
        }),
        says: /position is 1; 2 is expected/,
      },
    ],
  },
})
