import { findKeyword } from '../../words/match.ts'
import { textWidth } from '../../measure/width.ts'
import { titleOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** The keyword starts in the second half of the visible title. */
export const titleKeywordLate = rule({
  id: 'title-keyword-late',
  family: 'title',
  severity: 'nit',
  sign: 'order',
  name: 'Keyword late in the title',
  basis: 'common practice, no source: within the first half of what a wide result shows',
  why: 'Readers skim the beginnings of results, and the end of a title is cut first.',
  mend: 'Turn the title round so that the keyword comes first.',
  needs: ['title'],
  message: ({ keyword, px, half }) =>
    `“${keyword}” starts at ${px} px; it should start within the first ${half} px.`,
  check({ page, style, primary }, mark) {
    const title = titleOf(page)
    const match = title && primary ? findKeyword(title.text, primary)[0] : undefined
    if (!match) return
    const { column, size } = style.slots.title.wide
    const px = textWidth(title!.text.slice(0, match.start), size).px
    if (px > column / 2) mark(title, { keyword: primary!.text, px: Math.round(px), half: column / 2 })
  },
  examples: {
    clean: [
      {
        html: '<html lang=en><title>Lamp lighting on winter evenings at Farrowskerry</title>',
        keywords: { primary: 'lamp lighting', secondary: [] },
      },
      '<title>No keyword given</title>',
    ],
    marked: [
      {
        html: '<html lang=en><title>Winter evenings on the rock of Farrowskerry: lamp lighting</title>',
        keywords: { primary: 'lamp lighting', secondary: [] },
        at: '<title',
        says: /“lamp lighting” starts at \d+ px; it should start within the first 300 px/,
      },
    ],
  },
})
