import { rule } from '../rule.ts'

/** A section without a heading. */
export const sectionUnnamed = rule({
  id: 'section-unnamed',
  family: 'headings',
  severity: 'nit',
  sign: 'missing',
  name: 'Section without a heading',
  basis: 'WHATWG HTML 4.3.3, the section element; common practice',
  why: 'A section is a part with a theme of its own, and this one has no name.',
  mend: 'Give it a heading; if it is there for layout only, use a div.',
  needs: ['headings', 'text'],
  message: ({ count }) =>
    count === 1
      ? 'A section element has neither a heading nor a label.'
      : `${count} section elements have neither a heading nor a label.`,
  check({ page }, mark) {
    const { unnamedSections: all } = page
    if (all.length > 0) mark([...all].sort((a, b) => a.start - b.start)[0]!, { count: all.length })
  },
  examples: {
    clean: [
      '<section><h2>A</h2></section>',
      '<section><div><h3>A</h3></div></section>',
      '<section aria-label="Prices"><p>x</p></section>',
      '<section hidden><p>x</p></section>',
    ],
    marked: [
      { html: '<section class=s><p>x</p></section>', at: '<section', says: /A section element has neither/ },
      { html: '<section><p>x</p><section><p>y</p></section></section>', says: /2 section elements/ },
    ],
  },
})
