import { titleOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** The title does not fit the two lines of a narrow screen's result. */
export const titleCutNarrow = rule({
  id: 'title-cut-narrow',
  family: 'title',
  severity: 'nit',
  sign: 'too-much',
  name: 'The title is cut on narrow screens',
  basis: 'common practice, from memory: two lines of 358 px at 20 px, cut at a word',
  why: 'On a phone the last words are lost.',
  mend: 'Shorten it, or make sure that nothing is missed without the last words.',
  needs: ['title'],
  message: ({ lines, column, lost }) => `${lines} lines of ${column} px are full. Lost: “${lost}”.`,
  check({ page, style, measured }, mark) {
    const m = measured('title')
    if (m?.narrow.state !== 'cut') return
    const { lines = 1, column } = style.slots.title.narrow
    mark(titleOf(page), { lines, column, lost: m.narrow.lost.trim() })
  },
  examples: {
    clean: ['<title>Lamp-lighting evenings on Farrowskerry</title>'],
    marked: [
      {
        html: '<title>Leuchtturmbesichtigung Nordseeküstenwache Wattenmeerführung</title>',
        at: '<title',
        says: /^2 lines of 358 px are full\. Lost: “Wattenmeerführung”/,
      },
    ],
  },
})
