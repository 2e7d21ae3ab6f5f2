import { segmentsOf } from '../../site/path-below.ts'
import { slugRepair } from './slug-repair.ts'
import { rule } from '../rule.ts'

/** Underscores between words. */
export const slugUnderscore = rule({
  id: 'slug-underscore',
  family: 'address',
  severity: 'nit',
  sign: 'order',
  name: 'Underscores between words',
  basis: 'common practice, no source',
  why: 'A link’s underline hides them, and search engines may read the words as one.',
  mend: 'Use hyphens instead.',
  needs: ['address'],
  message: ({ segment }) => `“${segment}” has underscores; hyphens are expected.`,
  check({ page, site }, mark) {
    const segment = segmentsOf(page, site).find((s) => /[\p{L}\p{N}]_[\p{L}\p{N}]/u.test(s))
    if (segment === undefined) return
    mark(
      null,
      { segment },
      slugRepair(page, site, 'Use hyphens', (s) => s.replace(/_+/g, '-')),
    )
  },
  examples: {
    clean: [{ html: '', path: 'lamp-oil.html' }],
    marked: [
      { html: '', path: 'shop/lamp_oil.html', at: null, says: /“lamp_oil” has underscores/ },
      { html: '', path: 'lamp_oil/index.html', says: /hyphens are expected/ },
    ],
  },
})
