import { hasKeyword } from '../../words/match.ts'
import { rule } from '../rule.ts'
import { shownImages } from '../../page/read/shown-images.ts'

/** No image's alternative text carries the keyword. */
export const imageKeyword = rule({
  id: 'image-keyword',
  family: 'images',
  severity: 'nit',
  sign: 'missing',
  name: 'No alternative text has the keyword',
  basis: 'common practice, no source',
  why: 'Images are found by their words, too.',
  mend: 'If an image shows what the page is about, say so in its alternative text.',
  needs: ['images'],
  message: ({ keyword, count }) =>
    `“${keyword}” is in none of ${count} alternative ${count === 1 ? 'text' : 'texts'}, in any of its word forms.`,
  check({ page, primary }, mark) {
    if (!primary) return
    const alts = shownImages(page).filter((i) => i.alt !== null && i.alt.trim() !== '')
    if (alts.length > 0 && !alts.some((i) => hasKeyword(i.alt!, primary)))
      mark(alts[0]!, { keyword: primary.text, count: alts.length })
  },
  examples: {
    clean: [
      { html: '<html lang=en><img src=a alt="A reef knot">', keywords: { primary: 'knots', secondary: [] } },
      { html: '<html lang=en><img src=a alt="">', keywords: { primary: 'knots', secondary: [] } },
      '<img src=a alt="The lamp">',
    ],
    marked: [
      {
        html: '<html lang=en><img src=a alt="The lamp"><img src=b alt="The boat">',
        keywords: { primary: 'knots', secondary: [] },
        at: '<img src=a',
        says: /“knots” is in none of 2 alternative texts/,
      },
    ],
  },
})
