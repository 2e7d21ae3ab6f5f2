import { rule } from '../rule.ts'

/** More phrases than one page can speak of. */
export const keywordMany = rule({
  id: 'keyword-many',
  family: 'text',
  shownOn: { snippet: 'keyword' },
  severity: 'nit',
  sign: 'too-much',
  name: 'Too many keywords for one page',
  basis: 'common practice, no source: two or three are enough',
  why: 'A page that is meant for everything is seldom the best answer to anything.',
  mend: 'Keep the phrases that the page really answers; give the others to pages of their own.',
  needs: [],
  message: ({ count, most }) =>
    `${count} phrases are assigned to this page; the house style asks for ${most} at most.`,
  check({ keywords, style }, mark) {
    const phrases = [keywords?.primary ?? '', ...(keywords?.secondary ?? [])].filter((p) => p.trim() !== '')
    const most = style.limits.keywordsMost
    if (phrases.length > most) mark(null, { count: phrases.length, most })
  },
  examples: {
    clean: [{ html: '<p>x', keywords: { primary: 'a', secondary: ['b', 'c', 'd', 'e'] } }, '<p>No keyword'],
    marked: [
      {
        html: '<p>x',
        keywords: { primary: 'a', secondary: ['b', 'c', 'd', 'e', 'f'] },
        at: null,
        says: /6 phrases are assigned .* 5 at most/,
      },
    ],
  },
})
