import { isEmptyHeading, outlineOf, type HeadingFact } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'
import { isOfContent, nameOf } from '../../page/read/content-headings.ts'

/** A heading in an aside that takes part in the content's order. */
export const headingAside = rule({
  id: 'heading-aside',
  family: 'headings',
  severity: 'nit',
  sign: 'order',
  name: 'A sidebar heading looks like a section',
  basis: 'common practice, no source',
  why: 'Readers who listen to the outline take it for the next section of the page.',
  mend: 'Name the sidebar with an H2, and put its own headings below that.',
  needs: ['headings'],
  message: ({ level, text, after }) =>
    after === ''
      ? `H${level} “${text}” is in an aside; nothing above H2 is expected there.`
      : `H${level} “${text}” is in an aside and reads as the next section after “${after}”.`,
  check({ page }, mark) {
    let before: HeadingFact | null = null
    let first = true
    for (const h of outlineOf(page)) {
      if (isEmptyHeading(h)) continue
      if (h.landmark === 'aside') {
        if (h.level < 2) mark(h, { level: h.level, text: nameOf(h), after: '' })
        // An aside's own H2 is in order after an H2; a deeper one begins where no section of its own was opened.
        else if (first && h.level > 2 && h.level === before?.level)
          mark(h, { level: h.level, text: nameOf(h), after: nameOf(before) })
        first = false
      } else if (isOfContent(h)) {
        before = h
        first = true
      }
    }
  },
  examples: {
    clean: [
      '<main><h1>T</h1><h2>A</h2></main><aside><h2>Related</h2><h3>One</h3></aside>',
      '<main><h1>T</h1><h2>A</h2></main><aside><h3>Related</h3></aside>',
    ],
    marked: [
      { html: '<h1>T</h1><aside><h1>Ads</h1></aside>', at: '<h1>Ads', says: /nothing above H2/ },
      {
        html: '<main><h1>T</h1><h2>A</h2><h3>Deep</h3></main><aside><h3>Related</h3></aside>',
        at: '<h3>Related',
        says: /next section after “Deep”/,
      },
    ],
  },
})
