import { resolveAddress } from '../../addresses/addresses.ts'
import { isAddress, isRelativeAddress } from '../../structured-data/formats.ts'
import { dataOf } from '../../structured-data/read.ts'
import { rangesOf } from '../../structured-data/vocabulary.ts'
import { rule } from '../rule.ts'
import { replaceInData } from './data-edit.ts'
import { described } from './example.ts'

/** Address properties by custom whose range is another: the item of a breadcrumb's entry. */
const addresses = new Set(['item', 'urlTemplate'])

/** An address that is not absolute. */
export const dataRelative = rule({
  id: 'data-relative',
  family: 'data',
  severity: 'nit',
  sign: 'missing',
  name: 'Relative URL in the data',
  basis: 'common practice, no source',
  why: 'Data is often read apart from its page, and then nobody knows what the URL is relative to.',
  mend: 'Write the full URL.',
  needs: ['data'],
  message: ({ property, found, whole }) => `“${property}” is “${found}”; the full URL is expected, ${whole}.`,
  check({ page, baseKnown }, mark) {
    const base = page.base === null ? page.url : (resolveAddress(page.base, page.url) ?? page.url)
    for (const thing of dataOf(page).things)
      for (const { name, known, values } of thing.properties) {
        if (!known || !(addresses.has(name) || rangesOf(name).includes('URL'))) continue
        for (const v of values) {
          if (v.kind !== 'literal' || typeof v.value !== 'string') continue
          const text = v.value.trim()
          if (isAddress(text) || !isRelativeAddress(text)) continue
          // Beside addresses the property takes text that need be no address.
          if (rangesOf(name).includes('Text') && !/^(?:\/|\.{1,2}\/)/.test(text)) continue
          const whole = resolveAddress(text, base)
          if (whole === null) continue
          const at = { start: v.start, end: v.end }
          mark(
            at,
            { property: name, found: text, whole },
            baseKnown ? replaceInData(page, at, JSON.stringify(whole), 'Write the full URL') : undefined,
          )
        }
      }
  },
  examples: {
    clean: [
      described({ '@type': 'Article', url: 'https://site.example/a', image: 'https://site.example/a.jpg' }),
      described({ '@type': 'Article', mainEntityOfPage: { '@id': '#x' } }),
      described({ '@type': 'Article', license: 'https://words.example/l', name: 'a.html' }),
    ],
    marked: [
      {
        html: described({ '@type': 'Article', image: '/img/a.jpg' }),
        at: '"/img/a.jpg"',
        says: /“image” is “\/img\/a\.jpg”; the full URL is expected, https:\/\/site\.example\/img\/a\.jpg/,
      },
      { html: described({ '@type': 'Organization', url: '../' }), says: /“url”/ },
      { html: described({ '@type': 'ListItem', position: 1, item: '/shop/' }), says: /“item”/ },
    ],
  },
})
