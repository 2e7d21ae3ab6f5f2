import { titleOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

const placeholders =
  /^(?:untitled(?: (?:document|page))?|home|home ?page|new page|index|document|page title|title|lorem ipsum.*)$/i

/** A title that a template or a tool left behind. */
export const titlePlaceholder = rule({
  id: 'title-placeholder',
  family: 'title',
  severity: 'blocker',
  sign: 'missing',
  name: 'Placeholder instead of a title',
  basis: 'common practice, no source',
  why: 'It says nothing about the page, and every page made from the template has the same.',
  mend: 'Write what the page is.',
  needs: ['title'],
  message: ({ title }) => `“${title}” is a placeholder, not a title.`,
  check({ page }, mark) {
    const title = titleOf(page)
    if (!title || title.text === '') return
    const file = page.path.slice(page.path.lastIndexOf('/') + 1)
    const unfilled = /\{(?:page|site|section|year|month|h1|author|price)\}/.test(title.text)
    const isFileName = /\.\w+$/.test(file) && title.text === file
    if (placeholders.test(title.text) || unfilled || isFileName) mark(title, { title: title.text })
  },
  examples: {
    clean: [
      '<title>Home of the light</title>',
      '<title>Index of ships</title>',
      '<title>A {curly} thing</title>',
    ],
    marked: [
      { html: '<title>Untitled Document</title>', at: '<title', says: /placeholder/ },
      { html: '<title>Home</title>', says: /“Home”/ },
      { html: '<title>{page} | {site}</title>', says: /placeholder/ },
      { html: '<title>page.html</title>', says: /page\.html/ },
    ],
  },
})
