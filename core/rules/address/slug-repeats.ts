import { languageOf } from '../../words/stem.ts'
import { segmentsOf } from '../../site/path-below.ts'
import { slugWords } from './slug-repair.ts'
import { rule } from '../rule.ts'

/** The address repeats itself. */
export const slugRepeats = rule({
  id: 'slug-repeats',
  family: 'address',
  severity: 'nit',
  sign: 'too-much',
  name: 'The address repeats itself',
  basis: 'common practice, no source',
  why: 'A repeated word makes the address longer, not clearer.',
  mend: 'Say it in one segment.',
  needs: ['address'],
  message: ({ word }) =>
    word === '--' ? 'The address contains “--”.' : `“${word}” appears twice in the address.`,
  check({ page, site, style }, mark) {
    const segments = segmentsOf(page, site)
    if (segments.some((s) => s.includes('--'))) return mark(null, { word: '--' })
    const language = languageOf(page.lang ?? style.language)
    const seen = new Map<string, number>()
    for (const [i, segment] of segments.entries())
      for (const word of slugWords(segment.toLowerCase())) {
        if (language.isStopWord(word)) continue
        const stem = language.stem(word)
        const before = seen.get(stem)
        if (before !== undefined && before !== i) return mark(null, { word })
        seen.set(stem, before ?? i)
      }
  },
  examples: {
    clean: [
      { html: '<html lang=en>', path: 'shop/charts.html' },
      { html: '<html lang=en>', path: 'a-to-z/what-to-bring.html' },
    ],
    marked: [
      {
        html: '<html lang=en>',
        path: 'courses/knot-courses.html',
        at: null,
        says: /“courses” appears twice/,
      },
      { html: '', path: 'lamp--oil.html', says: /contains “--”/ },
    ],
  },
})
