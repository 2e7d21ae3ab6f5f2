import { rule } from '../rule.ts'

/** Canonical links with different targets. */
export const canonicalMultiple = rule({
  id: 'canonical-multiple',
  family: 'address',
  shownOn: { snippet: 'trail', head: 'links' },
  severity: 'blocker',
  sign: 'too-much',
  name: 'Canonical links that disagree',
  basis: 'RFC 6596, 3: one target',
  why: 'When they disagree, search engines trust none of them.',
  mend: 'Keep the right one and remove the others.',
  needs: ['head'],
  message: ({ count, targets }) => `${count} canonical links with different targets: ${targets}.`,
  check({ page }, mark) {
    const links = page.canonicals.filter((c) => c.inHead)
    const targets = [...new Set(links.map((c) => c.url ?? c.href))]
    if (targets.length > 1)
      mark(
        links.find((c) => (c.url ?? c.href) !== targets[0])!,
        { count: links.length, targets: targets.join(', ') },
      )
  },
  examples: {
    clean: [
      '<link rel=canonical href=/a>',
      '<link rel=canonical href=/a><link rel=canonical href=https://site.example/a>',
    ],
    marked: [
      {
        html: '<link rel=canonical href=/a><link rel=canonical href=/b>',
        at: '<link rel=canonical href=/b',
        says: /2 canonical links.*\/a, .*\/b/,
      },
    ],
  },
})
