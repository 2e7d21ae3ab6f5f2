import { rule } from '../rule.ts'

/** An id used twice. */
export const shellDuplicateId = rule({
  id: 'shell-duplicate-id',
  family: 'shell',
  shownOn: { head: 'broken' },
  severity: 'flaw',
  sign: 'alike',
  name: 'Duplicate id',
  basis: 'WHATWG HTML 3.2.6',
  why: 'Links, labels and scripts that mean the second one find the first.',
  mend: 'Give the second another id, and update what refers to it.',
  needs: ['text'],
  message: ({ id, count }) => `id="${id}" is used ${count} times.`,
  check({ page }, mark) {
    const seen = new Map<string, number>()
    for (const { id } of page.ids) seen.set(id, (seen.get(id) ?? 0) + 1)
    if (seen.size === page.ids.length) return
    const said = new Set<string>()
    const first = new Set<string>()
    for (const place of page.ids) {
      const { id } = place
      if (!first.has(id)) first.add(id)
      else if (!said.has(id)) {
        said.add(id)
        mark(place, { id, count: seen.get(id)! })
      }
    }
  },
  examples: {
    clean: ['<p id=a>x<p id=b>y', '<p id=a>x<p id=A>y'],
    marked: [
      { html: '<p id=a>x</p><p id=a>y</p><p id=a>z</p>', at: '<p id=a>y', says: /id="a" is used 3 times/ },
    ],
  },
})
