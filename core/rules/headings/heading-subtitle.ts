import { isEmptyHeading, outlineOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'
import { nameOf } from '../../page/read/content-headings.ts'

/** A heading that is the line under a heading, and no section. */
export const headingSubtitle = rule({
  id: 'heading-subtitle',
  family: 'headings',
  severity: 'nit',
  sign: 'too-much',
  name: 'Subtitle marked up as a section',
  basis: 'WHATWG HTML 4.3.7, the hgroup element',
  why: 'It opens a section that has no text; the line belongs to the heading above it.',
  mend: 'Put both in an hgroup, with the second line as a paragraph.',
  needs: ['headings'],
  message: ({ level, text, above }) => `H${level} “${text}” is the line under “${above}”, not a section.`,
  check({ page }, mark) {
    const headings = outlineOf(page)
    headings.forEach((h, i) => {
      const above = headings[i - 1]
      if (!above || h.group === null || h.group !== above.group || above.level >= h.level) return
      if (!h.adjacent || isEmptyHeading(h) || isEmptyHeading(above)) return
      // The only one of its level under the heading above: else it is the first of several sections.
      for (let j = i + 1; j < headings.length && headings[j]!.level > above.level; j++)
        if (headings[j]!.level === h.level) return
      const sure = [h, above].every((x) => x.endStart !== null && x.role === null)
      mark(
        h,
        { level: h.level, text: nameOf(h), above: nameOf(above) },
        sure
          ? {
              label: 'Make it the subtitle',
              edits: [{ target: 'heading', at: h.start, edit: {}, above: above.start }],
              judgement: true,
            }
          : undefined,
      )
    })
  },
  examples: {
    clean: [
      '<div><h1>Tides</h1><p>How the sea breathes</p></div>',
      '<div><h1>Tides</h1><h2>Spring</h2></div><p>text</p><h2>Neap</h2>',
      '<hgroup><h1>Tides</h1><p>How the sea breathes</p></hgroup>',
    ],
    marked: [
      {
        html: '<header><h1>Tides</h1>\n<h2 class=s>How the sea breathes</h2></header><p>text</p>',
        at: '<h2',
        says: /H2 “How the sea breathes” is the line under “Tides”/,
      },
      {
        html: '<main><div><h1>Tides</h1><h3>How the sea breathes</h3></div><p>t</p></main>',
        at: '<h3',
        says: /not a section/,
      },
    ],
  },
})
