import { isEmptyHeading, outlineOf } from '../../page/read/facts.ts'
import { sameText } from '../../site/site-index.ts'
import { rule } from '../rule.ts'
import { nameOf } from '../../page/read/content-headings.ts'

/** The same heading twice under the same parent. */
export const headingRepeated = rule({
  id: 'heading-repeated',
  family: 'headings',
  severity: 'nit',
  sign: 'alike',
  name: 'The same heading twice',
  basis: 'WCAG 2.2, 2.4.6',
  why: 'In a list of headings the two cannot be told apart.',
  mend: 'Say in each heading what sets its section apart.',
  needs: ['headings'],
  message: ({ level, text, count }) => `${count} H${level}s under the same heading say “${text}”.`,
  check({ page }, mark) {
    const ancestors: (number | null)[] = []
    const groups = new Map<string, { first: number; second: number; count: number }>()
    const headings = outlineOf(page)
    headings.forEach((h, i) => {
      ancestors.length = h.level - 1
      const parent = ancestors.findLast((p) => p != null) ?? -1
      ancestors[h.level - 1] = i
      if (isEmptyHeading(h)) return
      const key = `${parent} ${h.level} ${h.landmark} ${sameText(nameOf(h))}`
      const group = groups.get(key)
      if (!group) groups.set(key, { first: i, second: i, count: 1 })
      else if (group.count++ === 1) group.second = i
    })
    for (const { second, count } of groups.values())
      if (count > 1) {
        const h = headings[second]!
        mark(h, { level: h.level, text: nameOf(h), count })
      }
  },
  examples: {
    clean: [
      '<h1>T</h1><h2>A</h2><h3>Price</h3><h2>B</h2><h3>Price</h3>',
      '<h1>T</h1><h2>Price</h2><h3>Price</h3>',
      '<main><h1>T</h1><h2>News</h2></main><aside><h2>News</h2></aside>',
    ],
    marked: [
      {
        html: '<h1>T</h1><h2>Price</h2><p>1</p><h2>price</h2><h2>Price</h2>',
        at: '<h2>price',
        says: /3 H2s under the same heading say “price”/,
      },
    ],
  },
})
