import { outlineOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'
import { nameOf } from '../../page/read/content-headings.ts'

/** A long run of text without a heading. */
export const headingGap = rule({
  id: 'heading-gap',
  family: 'headings',
  severity: 'nit',
  sign: 'missing',
  name: 'Long text without a heading',
  basis: 'common practice, no source',
  why: 'Readers who look for one thing in it have nothing to go by.',
  mend: 'Divide it, and give each part a heading that says what is in it.',
  needs: ['headings', 'text'],
  message: ({ words, most, text }) =>
    `${words} words ${text === '' ? 'before any heading' : `under “${text}”`} without a heading; the house style asks for ${most} at most.`,
  check({ page, style }, mark) {
    const most = style.limits.headingGap
    const { by, lead, words } = page.main
    // Without main content of its own the body begins with what no landmark tells apart.
    if (by !== 'body' && lead > most) mark(null, { words: lead, most, text: '' })
    else if (by === 'body' && words > most && !outlineOf(page).some((h) => h.inMain))
      mark(null, { words, most, text: '' })
    for (const h of outlineOf(page))
      if (h.inMain && h.words > most) mark(h, { words: h.words, most, text: nameOf(h) })
  },
  examples: {
    clean: [
      `<main><h1>T</h1><p>${'sea '.repeat(300)}</p><h2>U</h2><p>${'sea '.repeat(300)}</p></main>`,
      `<main><h1>T</h1></main><footer><p>${'sea '.repeat(301)}</p></footer>`,
    ],
    marked: [
      {
        html: `<main><h1>T</h1><h2>U</h2><p>${'sea '.repeat(301)}</p></main>`,
        at: '<h2',
        says: /301 words under “U” .* 300 at most/,
      },
      {
        html: `<main><p>${'sea '.repeat(400)}</p><h1>T</h1></main>`,
        at: null,
        says: /400 words before any heading/,
      },
      { html: `<p>${'sea '.repeat(310)}</p>`, at: null, says: /310 words before any/ },
    ],
  },
})
