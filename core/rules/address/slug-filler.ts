import { languageOf, wordsOf } from '../../words/stem.ts'
import { segmentsOf } from '../../site/path-below.ts'
import { slugRepair, slugWords } from './slug-repair.ts'
import { rule } from '../rule.ts'

/** Filler words in the slug. */
export const slugFiller = rule({
  id: 'slug-filler',
  family: 'address',
  severity: 'nit',
  sign: 'too-much',
  name: 'Filler words in the slug',
  basis: 'common practice, no source: stop words of the page’s language',
  why: 'They make the address longer and say nothing.',
  mend: 'Leave them out.',
  needs: ['address'],
  message: ({ words }) => `${words} could be left out.`,
  check({ page, site, style, primary }, mark) {
    const slug = segmentsOf(page, site).at(-1)
    if (slug === undefined) return
    const language = languageOf(page.lang ?? style.language)
    const kept = new Set(primary ? wordsOf(primary.text).map((w) => w.word) : [])
    const words = slugWords(slug)
    const isFiller = (w: string) => language.isStopWord(w.toLowerCase()) && !kept.has(w.toLowerCase())
    const filler = words.filter(isFiller)
    const left = words.filter((w) => !isFiller(w))
    if (filler.length === 0 || left.length === 0) return
    mark(
      null,
      { words: filler.map((w) => `“${w}”`).join(', ') },
      slugRepair(page, site, 'Leave them out', (s, last) => (last ? left.join('-') : s)),
    )
  },
  examples: {
    clean: [
      {
        html: '<html lang=en>',
        path: 'what-to-bring.html',
        keywords: { primary: 'what to bring', secondary: [] },
      },
      { html: '<html lang=en>', path: 'the.html' },
    ],
    marked: [
      {
        html: '<html lang=en>',
        path: 'stories/the-wreck-of-the-petrel.html',
        at: null,
        says: /“the”, “of”, “the” could be left out/,
      },
    ],
  },
})
