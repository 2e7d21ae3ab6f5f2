import { descriptionOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** The description may be cut on wide screens. */
export const descriptionAtRisk = rule({
  id: 'description-at-risk',
  family: 'description',
  severity: 'nit',
  sign: 'too-much',
  name: 'The description may be cut on wide screens',
  basis: 'common practice, from memory: from 880 to 920 px',
  why: 'Search engines change their widths without notice: what just fits today may not tomorrow.',
  mend: 'Leave out the last words, or make sure that nothing is missed without them.',
  needs: ['description'],
  message: ({ px, from, limit }) => `${px} px lies in the risk band from ${from} to ${limit} px.`,
  check({ page, style, measured }, mark) {
    const m = measured('description')
    if (m?.wide.state !== 'at-risk') return
    const { riskPx, allowance, column } = style.slots.description.wide
    mark(descriptionOf(page), { px: Math.round(m.px), from: riskPx, limit: allowance ?? column })
  },
  examples: {
    clean: ['<meta name=description content="Short.">'],
    marked: [
      {
        html: '<meta name=description content="Take the boat at ten, climb the tower before noon, eat in the engine room with the keepers, and be home again with the tide by five o’clock sharp.">',
        at: '<meta',
        says: /px lies in the risk band from 880 to 920 px/,
      },
    ],
  },
})
