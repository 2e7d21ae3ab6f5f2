import { rule } from '../rule.ts'
import { contentHeadings } from '../../page/read/content-headings.ts'

const reasons = {
  bold: 'is all bold',
  class: 'has a heading’s class',
  size: 'is set in a heading’s size',
} as const

/** A paragraph that is dressed as a heading. */
export const headingLookAlike = rule({
  id: 'heading-look-alike',
  family: 'headings',
  severity: 'nit',
  sign: 'alike',
  name: 'Text that looks like a heading',
  basis: 'WCAG 2.2, failure F2; common practice',
  why: 'Readers who see the page find the section; those who listen, and search engines, do not.',
  mend: 'Make it a heading; its class stays.',
  needs: ['headings', 'text'],
  message: ({ text, by, tag }) =>
    `“${text}” ${reasons[by as keyof typeof reasons]} and is a ${tag === 'p' ? 'paragraph' : 'plain block'}.`,
  check({ page }, mark) {
    const headings = contentHeadings(page)
    const named = headings.some((h) => h.level === 1)
    let passed = 0
    for (const like of page.lookAlikes) {
      while (passed < headings.length && headings[passed]!.start < like.start) passed++
      const before = headings[passed - 1]
      // As deep as the section before it; under the H1 it opens one.
      const level = before ? Math.max(2, before.level) : named ? 2 : 1
      mark(
        like,
        { text: like.text, by: like.by, tag: like.tag },
        like.endStart === null
          ? undefined
          : {
              label: `Make it an H${level}`,
              edits: [{ target: 'block', at: like.start, edit: { level } }],
              judgement: true,
            },
      )
    }
  },
  examples: {
    clean: [
      '<p>Some <b>bold</b> words</p>',
      '<p><strong>Please wear stout shoes.</strong></p>',
      '<table><tr><td><p><b>Price</b></p></table>',
      '<p><b><a href=a>A link in bold</a></b></p>',
      '<footer><p><b>Opening hours</b></p></footer>',
      `<p><b>${'Bold words '.repeat(9)}</b></p>`,
      '<p class="subtitle">How the sea breathes</p>',
    ],
    marked: [
      {
        html: '<h1>T</h1><p><b>Opening hours</b></p><p>Ten to five.</p>',
        at: '<p><b>',
        says: /“Opening hours” is all bold/,
      },
      {
        html: '<h1>T</h1><div class="card-title">Tides</div>',
        at: '<div',
        says: /heading’s class and is a plain block/,
      },
      { html: '<h1>T</h1><p style="font-size: 28px">Tides</p>', says: /heading’s size/ },
      { html: '<p style="font-weight:700">Tides</p>', says: /all bold/ },
    ],
  },
})
