import { descriptionOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** The description is cut on narrow screens. */
export const descriptionCutNarrow = rule({
  id: 'description-cut-narrow',
  family: 'description',
  severity: 'nit',
  sign: 'too-much',
  name: 'The description is cut on narrow screens',
  basis: 'common practice, from memory: 680 px of text at 14 px',
  why: 'On a phone the end is lost.',
  mend: 'Put what matters first, or shorten it.',
  needs: ['description'],
  message: ({ px, limit, lost }) => `${px} px; a narrow result shows about ${limit} px. Lost: “${lost}”.`,
  check({ page, style, measured }, mark) {
    const m = measured('description')
    if (m?.narrow.state !== 'cut') return
    const { allowance, column } = style.slots.description.narrow
    mark(descriptionOf(page), {
      px: Math.round(m.px),
      limit: allowance ?? column,
      lost: m.narrow.lost.trim(),
    })
  },
  examples: {
    clean: ['<meta name=description content="Short.">'],
    marked: [
      {
        html: '<meta name=description content="Take the boat at ten, climb the tower before noon, eat in the engine room and be home with the tide at five o’clock.">',
        at: '<meta',
        says: /a narrow result shows about 680 px\. Lost: “/,
      },
    ],
  },
})
