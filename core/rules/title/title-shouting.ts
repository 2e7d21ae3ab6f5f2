import { titleOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** Words in capitals. */
export const titleShouting = rule({
  id: 'title-shouting',
  family: 'title',
  severity: 'nit',
  sign: 'too-much',
  name: 'Words in capitals',
  basis: 'common practice, no source: two words or more of four letters or more',
  why: 'Capitals are slow to read, take up room, and look like shouting.',
  mend: 'Use small letters; add names that are written in capitals to the house’s protected words.',
  needs: ['title'],
  message: ({ words, count }) => `${count} words are in capitals: ${words}.`,
  check({ page, style }, mark) {
    const title = titleOf(page)
    if (!title) return
    const protectedWords = new Set(style.protectedWords.flatMap((w) => w.split(/\s+/)))
    const loud = (title.text.match(/[\p{L}\p{M}]{4,}/gu) ?? []).filter(
      (w) => w === w.toUpperCase() && w !== w.toLowerCase() && !protectedWords.has(w),
    )
    if (loud.length >= 2) mark(title, { count: loud.length, words: loud.slice(0, 4).join(', ') })
  },
  examples: {
    clean: [
      '<title>A BIG lamp for the UNESCO rock</title>',
      {
        html: '<title>FARROWSKERRY LIGHT: visits</title>',
        style: { protectedWords: ['FARROWSKERRY LIGHT'] },
      },
      '<title>灯台見学灯台見学 灯台見学灯台見学</title>',
    ],
    marked: [
      {
        html: '<title>OPENING TIMES of the light</title>',
        at: '<title',
        says: /2 words are in capitals: OPENING, TIMES/,
      },
    ],
  },
})
