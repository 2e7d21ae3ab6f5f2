import { descriptionOf } from '../../page/read/facts.ts'
import { hasUnspacedScript } from '../scripts.ts'
import { rule } from '../rule.ts'

/** The description is long. */
export const descriptionLong = rule({
  id: 'description-long',
  family: 'description',
  severity: 'nit',
  sign: 'too-much',
  name: 'Long meta description',
  basis: 'common practice, no source: 160 characters',
  why: 'What goes beyond the limit is likely to be cut.',
  mend: 'Say it in a sentence or two.',
  needs: ['description'],
  message: ({ count, limit }) => `${count} characters; the house style asks for ${limit} at most.`,
  check({ page, style, measured }, mark) {
    const m = measured('description')
    const limit = style.limits.descriptionLongest
    if (m && m.graphemes > limit && !hasUnspacedScript(m.text))
      mark(descriptionOf(page), { count: m.graphemes, limit })
  },
  examples: {
    clean: [
      '<meta name=description content="Short.">',
      '<meta name=description content="灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯灯">',
    ],
    marked: [
      {
        html: '<meta name=description content="ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ill ">',
        at: '<meta',
        says: /179 characters; the house style asks for 160 at most/,
      },
    ],
  },
})
