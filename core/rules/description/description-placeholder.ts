import { descriptionOf } from '../../page/read/facts.ts'
import { hasTokens } from '../../wording/tokens.ts'
import { rule } from '../rule.ts'

/** A placeholder for a description. */
export const descriptionPlaceholder = rule({
  id: 'description-placeholder',
  family: 'description',
  severity: 'blocker',
  sign: 'missing',
  name: 'Placeholder instead of a description',
  basis: 'common practice, no source',
  why: 'It says nothing about the page, and may be shown as it is.',
  mend: 'Write a sentence or two on what the page offers.',
  needs: ['description'],
  message: ({ description }) => `“${description}” is a placeholder, not a description.`,
  check({ page }, mark) {
    const description = descriptionOf(page)
    const text = description?.content ?? ''
    if (/\blorem ipsum\b|^(?:the |your |page |meta )*description[.…]*$/i.test(text) || hasTokens(text))
      mark(description, { description: text.length > 80 ? `${text.slice(0, 80)} …` : text })
  },
  examples: {
    clean: [
      '<meta name=description content="A description of the light.">',
      '<meta name=description content="A {curly} thing.">',
    ],
    marked: [
      {
        html: '<meta name=description content="Lorem ipsum dolor sit amet.">',
        at: '<meta',
        says: /“Lorem ipsum dolor sit amet\.” is a placeholder/,
      },
      { html: '<meta name=description content="Description">', says: /“Description”/ },
      { html: '<meta name=description content="By {author}.">', says: /\{author\}/ },
    ],
  },
})
