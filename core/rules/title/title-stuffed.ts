import { findKeyword } from '../../words/match.ts'
import { languageOf, wordsOf } from '../../words/stem.ts'
import { titleOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'
import { ownTitle } from './own-title.ts'

/** One word three times, or the keyword twice. */
export const titleStuffed = rule({
  id: 'title-stuffed',
  family: 'title',
  severity: 'flaw',
  sign: 'too-much',
  name: 'The title repeats itself',
  basis: 'common practice, no source',
  why: 'It reads like advertising, and search engines may write a title of their own instead.',
  mend: 'Say it once, and use the room for what else the page offers.',
  needs: ['title'],
  message: ({ word, count, most }) => `“${word}” appears ${count} times in the title; ${most} is the most.`,
  check({ page, style, primary }, mark) {
    const pageTitle = ownTitle(page, style)
    const uses = primary ? findKeyword(pageTitle, primary).length : 0
    if (uses > 1) return mark(titleOf(page), { word: primary!.text, count: uses, most: 'once' })
    const language = languageOf(page.lang ?? style.language)
    const counts = new Map<string, { word: string; count: number }>()
    for (const { word, start, end } of wordsOf(pageTitle)) {
      if (language.isStopWord(word) || /^\p{N}+$/u.test(word)) continue
      const stem = language.stem(word)
      const known = counts.get(stem)
      counts.set(stem, { word: known?.word ?? pageTitle.slice(start, end), count: (known?.count ?? 0) + 1 })
    }
    const [most] = [...counts.values()].sort((a, b) => b.count - a.count)
    if (most && most.count >= 3) mark(titleOf(page), { ...most, most: 'twice' })
  },
  examples: {
    clean: [
      '<html lang=en><title>The lamp, the wick and the oil of the light</title>',
      { html: '<html lang=en><title>Knots | Knots Knots</title>', style: { siteName: 'Knots Knots' } },
    ],
    marked: [
      {
        html: '<html lang=en><title>Knots, knot courses and knotting</title>',
        at: '<title',
        says: /“Knots” appears 3 times/,
      },
      {
        html: '<html lang=en><title>Lamp lighting: our lamp-lighting evenings</title>',
        keywords: { primary: 'lamp lighting', secondary: [] },
        says: /“lamp lighting” appears 2 times in the title; once is the most/,
      },
    ],
  },
})
