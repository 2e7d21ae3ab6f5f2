import { titleOf } from '../../page/read/facts.ts'
import { aroundPage, inPattern } from '../../wording/patterns.ts'
import { fillTokens } from '../../wording/tokens.ts'
import { rule } from '../rule.ts'
import { ownTitle } from './own-title.ts'

/** The site's name, which the house's pattern asks for, is missing from the title or stands there twice. */
export const titleSuffix = rule({
  id: 'title-suffix',
  family: 'title',
  severity: 'nit',
  sign: 'missing',
  name: 'Title not in the house’s pattern',
  basis: 'the house’s choice; common practice: the site’s name at the end, behind a separator',
  why: 'The site’s name, once and always in the same place, tells readers whose page it is.',
  mend: 'Put the name where the pattern has it, and only once.',
  needs: ['title'],
  message: ({ expected, found }) => `The site’s name is ${found}; the pattern gives “${expected}”.`,
  check({ page, style, site }, mark) {
    const title = titleOf(page)
    const { titlePattern, siteName } = style
    const around = titlePattern?.includes('{site}') ? aroundPage(titlePattern) : null
    if (!title || title.text === '' || !around || !siteName) return
    const name = siteName.toLowerCase()
    const times = title.text.toLowerCase().split(name).length - 1
    // The home page may have the site's name for a title, or in it, in any place.
    if (page.url === site.base && times === 1) return
    const values = { site: siteName }
    const placed = (edge: 'head' | 'tail') => fillTokens(around[edge], values).text
    const [head, tail] = [placed('head').trimStart(), placed('tail').trimEnd()]
    // Other tokens beside the name cannot be told from words: then the name's presence is all that is asked.
    const plain = !/\{\w+\}/.test(head + tail)
    const stands = plain ? title.text.startsWith(head) && title.text.endsWith(tail) : times > 0
    if (stands && times === 1) return
    const pageTitle = ownTitle(page, style)
    const expected = fillTokens(inPattern(titlePattern!, pageTitle), values).text
    mark(
      title,
      {
        expected,
        found: times === 0 ? 'missing' : times > 1 ? `there ${times} times` : 'not where the pattern has it',
      },
      plain && expected !== title.text && expected.toLowerCase().split(name).length === 2
        ? { label: 'Apply the pattern', edits: [{ target: 'title', edit: { value: expected } }] }
        : undefined,
    )
  },
  examples: {
    clean: [
      '<title>Knots</title>',
      { html: '<title>Knots | Light</title>', style: { titlePattern: '{page} | {site}', siteName: 'Light' } },
      {
        html: '<title>Light: a rock to climb</title>',
        path: 'index.html',
        style: { titlePattern: '{page} | {site}', siteName: 'Light' },
      },
      { html: '<title>Knots</title>', style: { titlePattern: '{page}', siteName: 'Light' } },
    ],
    marked: [
      {
        html: '<title>Knots</title>',
        style: { titlePattern: '{page} | {site}', siteName: 'Farrowskerry' },
        at: '<title',
        says: /missing; the pattern gives “Knots \| Farrowskerry”/,
      },
      {
        html: '<title>Knots | Farrowskerry | Farrowskerry</title>',
        style: { titlePattern: '{page} | {site}', siteName: 'Farrowskerry' },
        says: /there 2 times/,
      },
      {
        html: '<title>Knots - Farrowskerry</title>',
        style: { titlePattern: '{page} | {site}', siteName: 'Farrowskerry' },
        says: /not where the pattern has it/,
      },
    ],
  },
})
