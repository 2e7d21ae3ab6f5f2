import { rule } from '../rule.ts'

const filler = /\blorem[\s\u00a0]+ipsum\b[^\n]{0,40}/i

/** Filler text that was never replaced. */
export const textPlaceholder = rule({
  id: 'text-placeholder',
  family: 'text',
  severity: 'blocker',
  sign: 'too-much',
  name: 'Filler text',
  basis: 'common practice, no source',
  why: 'It was meant to be replaced before anyone saw it.',
  mend: 'Write what belongs there, or remove it.',
  needs: ['text'],
  message: ({ text }) => `The text contains “${text}”.`,
  check({ page }, mark) {
    const fillerText = filler.exec(page.main.text)?.[0].trim()
    if (fillerText) mark(null, { text: fillerText })
  },
  examples: {
    clean: ['<main><p>Real words.</p></main>', '<main><p hidden>Lorem ipsum</p></main>'],
    marked: [
      {
        html: '<main><p>Lorem ipsum dolor sit amet.</p></main>',
        at: null,
        says: /contains “Lorem ipsum dolor sit amet\.”/,
      },
    ],
  },
})
