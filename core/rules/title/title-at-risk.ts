import { titleOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** The title fits, but so closely that an engine may cut it. */
export const titleAtRisk = rule({
  id: 'title-at-risk',
  family: 'title',
  severity: 'nit',
  sign: 'too-much',
  name: 'The title may be cut',
  basis: 'common practice, no source: 560 to 600 px; engines change their widths without notice',
  why: 'It fits today; a small change in how results are drawn would cut it.',
  mend: 'Leave out a short word if you can.',
  needs: ['title'],
  message: ({ px, from, to }) => `${px} px lies in the risk band from ${from} to ${to} px.`,
  check({ page, style, measured }, mark) {
    const m = measured('title')
    if (m?.wide.state !== 'at-risk') return
    const { riskPx, column } = style.slots.title.wide
    mark(titleOf(page), { px: Math.round(m.px), from: riskPx, to: column })
  },
  examples: {
    clean: [
      '<title>Boat crossings</title>',
      '<title>A title that is so long that it is cut in any case, for it goes on and on and on</title>',
    ],
    marked: [
      {
        html: '<title>Climb the Tower at Dusk: Lamp-Lighting on Farrowskerry Island</title>',
        at: '<title',
        says: /risk band from 560 to 600/,
      },
    ],
  },
})
