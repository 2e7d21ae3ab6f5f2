import { descriptionOf } from '../../page/read/facts.ts'
import { plainText } from '../../page/read/plain-text.ts'
import { fold } from '../../strings.ts'
import { rule } from '../rule.ts'

/** Markup in the description. */
export const descriptionMarkup = rule({
  id: 'description-markup',
  family: 'description',
  severity: 'flaw',
  sign: 'too-much',
  name: 'Markup in the description',
  basis: 'WHATWG HTML 4.2.5: the content is plain text',
  why: 'Readers see the tags and codes as they are.',
  mend: 'Write it as plain text.',
  needs: ['description'],
  message: ({ found }) => `It contains ${found}; plain text is expected.`,
  check({ page }, mark) {
    const description = descriptionOf(page)
    const text = description?.content ?? ''
    const value = plainText(text)
    if (value === fold(text)) return
    const markup = (/<[^>]*>|&#?\w+;/.exec(text) ?? [text])[0]
    mark(
      description,
      { found: `“${markup}”` },
      { label: 'Write it as plain text', edits: [{ target: 'meta:description', edit: { value } }] },
    )
  },
  examples: {
    clean: ['<meta name=description content="1 &lt; 2 and Fish &amp; chips &amp; tea.">'],
    marked: [
      {
        html: '<meta name=description content="A &lt;b>bold&lt;/b> lamp.">',
        at: '<meta',
        says: /It contains “<b>”/,
      },
      { html: '<meta name=description content="Oil &amp;amp; wicks.">', says: /It contains “&amp;”/ },
    ],
  },
})
