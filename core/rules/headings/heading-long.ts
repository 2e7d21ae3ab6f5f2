import { countGraphemes } from '../../measure/width.ts'
import { outlineOf } from '../../page/read/facts.ts'
import { countWords } from '../../words/count-words.ts'
import { rule } from '../rule.ts'
import { hasUnspacedScript } from '../scripts.ts'
import { nameOf } from '../../page/read/content-headings.ts'

/** A sentence of this many words is no heading; common practice, no source. */
const SENTENCE = 12

/** A heading as long as a sentence. */
export const headingLong = rule({
  id: 'heading-long',
  family: 'headings',
  severity: 'nit',
  sign: 'too-much',
  name: 'Long heading',
  basis: 'common practice, no source',
  why: 'A heading is read at a glance; a sentence is not.',
  mend: 'Say what the section is about, and move the sentence into the text.',
  needs: ['headings'],
  message: ({ count, most, words }) =>
    words
      ? `It reads as a sentence of ${words} words; a heading is expected to be shorter than ${SENTENCE}.`
      : `${count} characters; the house style asks for ${most} at most.`,
  check({ page, style }, mark) {
    const most = style.limits.headingLongest
    for (const h of outlineOf(page)) {
      const text = nameOf(h)
      if (text.length < 40 || hasUnspacedScript(text)) continue
      const count = countGraphemes(text)
      if (count > most) mark(h, { count, most, words: 0 })
      else if (/[.!?…]["”’)]?$/u.test(text)) {
        const words = countWords(text)
        if (words >= SENTENCE) mark(h, { count, most, words })
      }
    }
  },
  examples: {
    clean: [
      '<h2>What the fog signal says</h2>',
      '<h2>灯台の光はどこまで届くのか灯台の光はどこまで届くのか灯台の光はどこまで届くのか灯台の光はどこまで届くのか灯台の光はどこまで届くのか灯台の光は</h2>',
    ],
    marked: [
      {
        html: `<h2>${'What the fog signal says to a ship '.repeat(3)}</h2>`,
        at: '<h2',
        says: /104 characters; the house style asks for 70/,
      },
      {
        html: '<h2>We do go up if it is wet, but not in a gale.</h2>',
        says: /a sentence of 13 words/,
      },
    ],
  },
})
