import { isInSegments } from '../../keywords/in-slug.ts'
import { decodedPath } from '../../addresses/addresses.ts'
import { segmentsOf } from '../../site/path-below.ts'
import { rule } from '../rule.ts'

/** The keyword is not in the address. */
export const slugKeyword = rule({
  id: 'slug-keyword',
  family: 'address',
  severity: 'flaw',
  sign: 'missing',
  name: 'The keyword is not in the address',
  basis: 'common practice, no source: a form of any of its words, in any segment',
  why: 'Results show the address, and the words in it say where a link leads.',
  mend: 'Work it into the slug; a redirect takes readers from the old address to the new one.',
  needs: ['address'],
  message: ({ keyword, path }) => `Neither “${keyword}” nor any of its words is in “${path}”, in any form.`,
  check({ page, site, primary }, mark) {
    const segments = segmentsOf(page, site)
    if (!primary || segments.length === 0) return
    if (isInSegments(segments, primary)) return
    mark(null, { keyword: primary.text, path: decodedPath(page.url) })
  },
  examples: {
    clean: [
      {
        html: '<html lang=en>',
        path: 'evenings/lamp-lighting.html',
        keywords: { primary: 'lamp-lighting evening', secondary: [] },
      },
      { html: '<html lang=da>', path: 'fyrtaarn.html', keywords: { primary: 'fyrtårn', secondary: [] } },
      { html: '', path: 'index.html', keywords: { primary: 'lamp', secondary: [] } },
    ],
    marked: [
      {
        html: '<html lang=en>',
        path: 'events/3.html',
        keywords: { primary: 'lamp lighting', secondary: [] },
        at: null,
        says: /Neither “lamp lighting” nor any of its words is in “\/events\/3\.html”/,
      },
    ],
  },
})
