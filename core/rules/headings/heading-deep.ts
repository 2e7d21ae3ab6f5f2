import { outlineOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'
import { nameOf } from '../../page/read/content-headings.ts'

/** H5 or H6 used. */
export const headingDeep = rule({
  id: 'heading-deep',
  family: 'headings',
  severity: 'nit',
  sign: 'too-much',
  name: 'Very deep heading',
  basis: 'common practice, no source: H4 to H6 are rare and bring little',
  why: 'Nobody keeps five levels in mind: the page should be divided, or the headings made a list.',
  mend: 'Raise it, make it a list, or give this part a page of its own.',
  needs: ['headings'],
  message: ({ level, text, more }) =>
    `H${level} “${text}”${more ? ` and ${more} more at H5 or H6` : ''}; H4 is deep enough.`,
  check({ page }, mark) {
    const deep = outlineOf(page).filter((h) => h.level > 4)
    if (deep.length > 0)
      mark(deep[0]!, { level: deep[0]!.level, text: nameOf(deep[0]!), more: deep.length - 1 })
  },
  examples: {
    clean: ['<h1>a</h1><h2>b</h2><h3>c</h3><h4>d</h4>'],
    marked: [
      { html: '<h5>Small print</h5>', at: '<h5', says: /H5 “Small print”; H4 is deep enough/ },
      { html: '<h5>a</h5><h6>b</h6><h6>c</h6>', says: /“a” and 2 more at H5 or H6/ },
    ],
  },
})
