import type { PageId } from '../../site/page-identity.ts'
import { inOrder, LESS_A_WORD, sameText, WHOLE, type SiteIndex } from '../../site/site-index.ts'
import { siteRule } from '../rule.ts'

/** Pages that meet under any key, also by way of a third, in the order of their paths. */
function clusters(site: SiteIndex): PageId[][] {
  const parent = new Map<PageId, PageId>()
  const rootOf = (id: PageId): PageId => {
    let root = id
    for (let up = parent.get(root); up !== undefined && up !== root; up = parent.get(root)) root = up
    for (let at = id; at !== root;) {
      const up = parent.get(at)!
      parent.set(at, root)
      at = up
    }
    return root
  }
  for (const [key, ids] of site.byNearTitle) {
    // Two titles that both lose a word to become the same differ in two words: one that loses none must be there.
    const others = key.startsWith(WHOLE)
      ? site.byNearTitle.get(LESS_A_WORD + key.slice(WHOLE.length))
      : undefined
    if (key.startsWith(LESS_A_WORD) || (key.startsWith(WHOLE) && !others)) continue
    if (ids.size < 2 && !others) continue
    let first: PageId | null = null
    for (const id of others ? [...ids, ...others] : ids) {
      if (!parent.has(id)) parent.set(id, id)
      if (first === null) first = rootOf(id)
      else parent.set(rootOf(id), first)
    }
  }
  const groups = new Map<PageId, PageId[]>()
  for (const id of parent.keys()) {
    const root = rootOf(id)
    const group = groups.get(root)
    if (group) group.push(id)
    else groups.set(root, [id])
  }
  const firstOf = (group: PageId[]) => site.entries.get(group[0]!)!.path
  return [...groups.values()]
    .map((group) => inOrder(group, site))
    .sort((a, b) => (firstOf(a) < firstOf(b) ? -1 : 1))
}

interface Near {
  pages: PageId[]
  first: string
  second: string
}
const known = new WeakMap<SiteIndex, { changes: number; near: Near[] }>()
/** Groups with two of their titles, worked out anew only when a group has changed: every keystroke asks. */
function nearTitles(site: SiteIndex): Near[] {
  const before = known.get(site)
  if (before?.changes === site.nearChanges) return before.near
  const near = clusters(site).flatMap((pages): Near[] => {
    const titles = new Map(
      pages.map((id) => [sameText(site.entries.get(id)!.title!), site.entries.get(id)!.title!]),
    )
    const [first, second] = titles.values()
    return first !== undefined && second !== undefined ? [{ pages, first, second }] : []
  })
  known.set(site, { changes: site.nearChanges, near })
  return near
}

/** Titles that differ in their digits or in one word alone. */
export const titleNearDuplicate = siteRule({
  id: 'title-near-duplicate',
  family: 'title',
  severity: 'nit',
  sign: 'alike',
  name: 'Nearly identical titles',
  basis: 'common practice, no source',
  why: 'In a list of results they look like one page, and the word that tells them apart is easily missed.',
  mend: 'Put what is special about each page at the beginning.',
  needs: ['title'],
  message: ({ count, first, second }) =>
    `${count} pages have titles that differ only in digits or in one word: “${first}”, “${second}”.`,
  check({ site }, mark) {
    for (const { pages, first, second } of nearTitles(site))
      mark(pages, { count: pages.length, first, second })
  },
  examples: {
    clean: [
      {
        html: '<title>Red lamp shop</title>',
        pages: { 'b.html': '<title>Lamp shop blue</title>' },
      },
      {
        html: '<title>Knots for beginners</title>',
        pages: { 'b.html': '<title>Charts read by lamplight</title>' },
      },
      {
        html: '<title>Knots for beginners</title>',
        pages: { 'b.html': '<title>Knots for beginners</title>' },
      },
      {
        html: '<title>Knots | Farrowskerry Light</title>',
        pages: { 'b.html': '<title>Charts | Farrowskerry Light</title>' },
      },
    ],
    marked: [
      {
        html: '<title>Storm diary 2024</title>',
        pages: { 'b.html': '<title>Storm diary 2025</title>' },
        says: /2 pages have titles that differ only in digits or in one word: “Storm diary 202\d”/,
      },
      {
        html: '<title>Rooms for two by the sea | Light</title>',
        pages: { 'b.html': '<title>Rooms for four by the sea | Light</title>' },
        says: /2 pages/,
      },
      {
        html: '<title>Storm lantern with a glass</title>',
        pages: { 'b.html': '<title>Storm lantern with a spare glass</title>' },
        says: /2 pages/,
      },
    ],
  },
})
