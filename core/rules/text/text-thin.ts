import { rule } from '../rule.ts'

/** Little text. */
export const textThin = rule({
  id: 'text-thin',
  family: 'text',
  severity: 'nit',
  sign: 'missing',
  name: 'Little text',
  basis: 'common practice, no source; not asked of pages of the types contact and listing',
  why: 'A page that says little is seldom the one that answers a question.',
  mend: 'Answer what a reader would ask next, or merge the page with another.',
  needs: ['text'],
  message: ({ words, least }) =>
    `${words} ${words === 1 ? 'word' : 'words'} of main content; the house style asks for ${least} at least.`,
  check({ page, style }, mark) {
    if (style.type === 'contact' || style.type === 'listing') return
    const least = style.limits.textShortest
    if (page.main.words < least) mark(null, { words: page.main.words, least })
  },
  examples: {
    clean: [
      `<main><p>${'sea '.repeat(300)}</p></main>`,
      { html: '<main>Ring us.</main>', style: { addresses: [{ match: '/*', type: 'contact' }] } },
      { html: '<main>Ring us now.</main>', style: { limits: { textShortest: 3 } } },
    ],
    marked: [
      {
        html: '<main><p>The sea is wide.</p></main>',
        at: null,
        says: /4 words of main content; .* 300 at least/,
      },
      { html: `<main>One</main><footer>${'sea '.repeat(400)}</footer>`, says: /1 word of/ },
    ],
  },
})
