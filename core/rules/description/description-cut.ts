import { descriptionOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** The description is wider than a wide screen's result allows. */
export const descriptionCut = rule({
  id: 'description-cut',
  family: 'description',
  severity: 'flaw',
  sign: 'too-much',
  name: 'The description is cut on wide screens',
  basis: 'common practice, no source: 920 px at 14 px, Arial metrics, on two lines',
  why: 'The end is lost, often the very words that invite the reader in.',
  mend: 'Put what matters first, or shorten it.',
  needs: ['description'],
  silences: ['description-long', 'description-at-risk', 'description-cut-narrow'],
  message: ({ px, limit, lost }) => `${px} px; a wide result shows about ${limit} px. Lost: “${lost}”.`,
  check({ page, style, measured }, mark) {
    const m = measured('description')
    if (m?.wide.state !== 'cut') return
    const slot = style.slots.description.wide
    mark(descriptionOf(page), {
      px: Math.round(m.px),
      limit: slot.allowance ?? slot.column,
      lost: m.wide.lost.trim(),
    })
  },
  examples: {
    clean: ['<meta name=description content="Take the boat, climb the tower, stay the night.">'],
    marked: [
      {
        html: '<meta name=description content="Climb the tower with the keeper, see the old lamp lit, and walk home by its beam. Lamp-lighting evenings run every Friday from October to March; boats leave at five.">',
        at: '<meta',
        says: /^1023 px; a wide result shows about 920 px\. Lost: “; boats leave at five\.”/,
      },
    ],
  },
})
