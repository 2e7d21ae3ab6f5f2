import { titleOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** The title does not fit one line of a wide screen's result. */
export const titleCut = rule({
  id: 'title-cut',
  family: 'title',
  severity: 'flaw',
  sign: 'too-much',
  name: 'The title is cut on wide screens',
  basis: 'common practice, no source: one line of 600 px at 20 px, Arial metrics',
  why: 'The last words are lost, often the name or the place.',
  mend: 'Put what matters first, or shorten it.',
  needs: ['title'],
  silences: ['title-long', 'title-at-risk', 'title-cut-narrow'],
  message: ({ px, limit, lost }) => `${px} px; a wide result shows ${limit} px. Lost: “${lost}”.`,
  check({ page, style, measured }, mark) {
    const m = measured('title')
    if (m?.wide.state !== 'cut') return
    mark(titleOf(page), {
      px: Math.round(m.px),
      limit: style.slots.title.wide.column,
      lost: m.wide.lost.trim(),
    })
  },
  examples: {
    clean: ['<title>Lamp-lighting evenings on Farrowskerry</title>', '<title></title>'],
    marked: [
      {
        html: '<title>Lamp-Lighting Evenings on Farrowskerry: Climb the Tower at Dusk | Farrowskerry Light</title>',
        at: '<title',
        says: /^774 px; a wide result shows 600 px\. Lost: “Dusk \| Farrowskerry Light”/,
      },
    ],
  },
})
