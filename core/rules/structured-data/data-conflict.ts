import { isA } from '../../structured-data/vocabulary.ts'
import { compared, type SiteThing } from '../../structured-data/site-things.ts'
import type { PageId } from '../../site/page-identity.ts'
import { inOrder, type SiteIndex } from '../../site/site-index.ts'
import { siteRule } from '../rule.ts'
import { described } from './example.ts'

interface Conflict {
  what: string
  property: string
  one: string
  other: string
  pages: PageId[]
}
const isOrganisation = (t: SiteThing) => t.types.some((n) => isA(n, 'Organization'))

/** Properties in which things that are one disagree, with the two commonest wordings. */
function conflictsOf(what: string, all: { page: PageId; thing: SiteThing }[], skip: string[]): Conflict[] {
  const out: Conflict[] = []
  const properties = new Set(all.flatMap(({ thing }) => Object.keys(thing.says)))
  for (const property of properties) {
    if (skip.includes(property)) continue
    const wordings = new Map<string, { text: string; pages: PageId[] }>()
    for (const { page, thing } of all) {
      const text = thing.says[property]
      if (text === undefined) continue
      const key = compared(property, text)
      const wording = wordings.get(key) ?? { text, pages: [] }
      // Pages come in order: the same one stands last.
      if (wording.pages.at(-1) !== page) wording.pages.push(page)
      wordings.set(key, wording)
    }
    if (wordings.size < 2) continue
    const [one, other] = [...wordings.values()].sort(
      (a, b) => b.pages.length - a.pages.length || (a.text < b.text ? -1 : 1),
    )
    const disagreeing = new Set([...wordings.values()].flatMap((w) => w.pages))
    const pages = [...new Set(all.map(({ page }) => page))].filter((page) => disagreeing.has(page))
    out.push({ what, property, one: one!.text, other: other!.text, pages })
  }
  return out
}

const known = new WeakMap<SiteIndex, { changes: number; found: Conflict[] }>()
/** All conflicts, worked out anew only when a page's things have changed: every keystroke asks. */
function conflicts(site: SiteIndex): Conflict[] {
  const before = known.get(site)
  if (before?.changes === site.thingChanges) return before.found
  const differing: Conflict[] = []
  const seen = new Set<string>()
  for (const [key, pages] of site.byThing) {
    const [kind, ...rest] = key.split(' ')
    const value = rest.join(' ')
    const all = inOrder(pages, site).flatMap((page) =>
      site.entries
        .get(page)!
        .things!.things.filter((t) =>
          kind === 'id'
            ? t.id === value
            : isOrganisation(t) && compared(kind!, t.says[kind!] ?? '') === value,
        )
        .map((thing) => ({ page, thing })),
    )
    if (all.length < 2) continue
    const what = kind === 'id' ? value : `the organisation “${all[0]!.thing.name ?? value}”`
    for (const c of conflictsOf(what, all, kind === 'id' ? [] : [kind!])) {
      const same = `${c.property} ${[c.one, c.other].sort().join(' / ')}`
      if (!seen.has(same)) differing.push(c)
      seen.add(same)
    }
  }
  known.set(site, { changes: site.thingChanges, found: differing })
  return differing
}

/** One thing described in two ways. */
export const dataConflict = siteRule({
  id: 'data-conflict',
  family: 'data',
  severity: 'flaw',
  sign: 'alike',
  name: 'One thing described in two ways',
  basis: 'JSON-LD 1.1, 3.3: one "@id" is one thing; common practice for organisations',
  why: 'A machine that finds two names or two numbers for one thing trusts neither.',
  mend: 'Describe it once, and refer to it by "@id" everywhere else.',
  needs: ['data'],
  message: ({ what, property, one, other }) => `“${property}” of ${what} is “${one}” and “${other}”.`,
  check({ site }, mark) {
    for (const { pages, ...values } of conflicts(site)) mark(pages, values)
  },
  examples: {
    clean: [
      {
        html: described({
          '@type': 'Organization',
          '@id': 'https://site.example/#org',
          name: 'Light',
          telephone: '01 23',
        }),
        pages: {
          'b.html': described({
            '@type': 'Organization',
            '@id': 'https://site.example/#org',
            name: 'light',
            telephone: '0123',
            email: 'a@site.example',
          }),
        },
      },
      {
        html: described({ '@type': 'Organization', name: 'Light', url: 'https://site.example/' }),
        pages: {
          'b.html': described({ '@type': 'Organization', name: 'Another', url: 'https://other.example/' }),
        },
      },
      {
        html: described({ '@type': 'Person', name: 'Ada', telephone: '1' }),
        pages: { 'b.html': described({ '@type': 'Person', name: 'Ada', telephone: '2' }) },
      },
    ],
    marked: [
      {
        html: described({ '@type': 'Organization', '@id': 'https://site.example/#org', name: 'Light' }),
        pages: {
          'b.html': described({
            '@type': 'Organization',
            '@id': 'https://site.example/#org',
            name: 'The Light Trust',
          }),
        },
        says: /“name” of https:\/\/site\.example\/#org is “Light” and “The Light Trust”/,
      },
      {
        html: described({ '@type': 'Organization', name: 'Light', telephone: '01 23' }),
        pages: {
          'b.html': described({
            '@type': 'Article',
            publisher: { '@type': 'Organization', name: 'Light', telephone: '01 24' },
          }),
        },
        says: /“telephone” of the organisation “Light” is “01 23” and “01 24”/,
      },
      {
        html: described({
          '@graph': [
            { '@type': 'Event', '@id': '#e', name: 'A' },
            { '@type': 'Event', '@id': '#e', name: 'B' },
          ],
        }),
        says: /“name” of https:\/\/site\.example\/page\.html#e is “A” and “B”/,
      },
    ],
  },
})
