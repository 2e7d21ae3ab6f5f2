import { isEmptyHeading, outlineOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'
import { nameOf } from '../../page/read/content-headings.ts'

const names = { nav: 'menu', footer: 'footer', header: 'header' } as const

/** A heading in the menu, the page's footer or its header. */
export const headingFurniture = rule({
  id: 'heading-furniture',
  family: 'headings',
  severity: 'nit',
  sign: 'too-much',
  name: 'Heading in the menu, header or footer',
  basis: 'common practice, no source',
  why: 'It is the same on every page and has nothing to do with this one, yet it is part of its outline.',
  mend: 'Make it a paragraph; its class stays, so it looks the same where the style sheet goes by class.',
  needs: ['headings'],
  message: ({ level, text, where }) => `H${level} “${text}” is in the ${where}.`,
  check({ page }, mark) {
    for (const h of outlineOf(page)) {
      if (h.landmark !== 'nav' && h.landmark !== 'footer' && h.landmark !== 'header') continue
      if ((h.landmark === 'header' && h.level === 1) || isEmptyHeading(h)) continue
      mark(
        h,
        { level: h.level, text: nameOf(h), where: names[h.landmark] },
        h.endStart !== null && h.role === null
          ? { label: 'Make it a paragraph', edits: [{ target: 'heading', at: h.start, edit: { tag: 'p' } }] }
          : undefined,
      )
    }
  },
  examples: {
    clean: [
      '<header><h1>Tides</h1></header>',
      '<main><header><h2>Part one</h2></header></main>',
      '<article><footer><h3>Notes</h3></footer></article>',
    ],
    marked: [
      { html: '<nav><h3 class=m>Menu</h3></nav><h1>T</h1>', at: '<h3', says: /H3 “Menu” is in the menu/ },
      { html: '<h1>T</h1><footer><h4>Hours</h4></footer>', at: '<h4', says: /in the footer/ },
      { html: '<header><h2>A trust</h2></header><h1>T</h1>', at: '<h2', says: /in the header/ },
      {
        html: '<header><div role=heading aria-level=2>A trust</div></header><h1>T</h1>',
        says: /in the header/,
      },
    ],
  },
})
