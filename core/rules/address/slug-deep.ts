import { segmentsOf } from '../../site/path-below.ts'
import { rule } from '../rule.ts'

/** The address is deep. */
export const slugDeep = rule({
  id: 'slug-deep',
  family: 'address',
  severity: 'nit',
  sign: 'too-much',
  name: 'Deep address',
  basis: 'common practice, no source: 4 segments',
  why: 'A page that lies deep looks unimportant, and its address is long.',
  mend: 'Move the page up to where readers look for it.',
  needs: ['address'],
  message: ({ count, limit }) => `${count} segments; the house style asks for ${limit} at most.`,
  check({ page, site, style }, mark) {
    const count = segmentsOf(page, site).length
    const limit = style.limits.slugDeepest
    if (count > limit) mark(null, { count, limit })
  },
  examples: {
    clean: [{ html: '', path: 'a/b/c/d.html' }],
    marked: [
      { html: '', path: 'a/b/c/d/e.html', at: null, says: /5 segments; the house style asks for 4 at most/ },
    ],
  },
})
