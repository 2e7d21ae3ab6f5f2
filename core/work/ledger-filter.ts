/** Which pages of a site an editor looks at: what can be told of each, counted, and chosen by. */
import { styleFor, type HouseStyle } from '../rules/house-style.ts'
import type { Family } from '../rules/rule.ts'
import { ruleIds, ruleOf } from '../rules/runner.ts'
import { decodedPath } from '../addresses/addresses.ts'
import { stateOf, type Decisions } from './decisions.ts'
import type { LedgerRow } from './evaluate.ts'

export const facets = [
  'mark',
  'subject',
  'severity',
  'state',
  'missing',
  'folder',
  'language',
  'type',
] as const
export type Facet = (typeof facets)[number]
/** What is asked for, by what; what is absent is not asked. */
export type LedgerFilter = Partial<Record<Facet, string>>

export interface FilteredPage {
  row: LedgerRow
  decisions: Decisions
  /** Marks on the site that name the page, those let stand aside. */
  siteMarks: { rules: readonly string[]; blocker: number; flaw: number; nit: number } | undefined
}

/** What a page can lack, in the order in which it matters. */
export const missables = [
  'title',
  'description',
  'H1',
  'keyword',
  'structured data',
  'language',
  'alternative texts',
] as const
export type Missable = (typeof missables)[number]

const empty = (text: string | null) => text === null || text.trim() === ''

/** What a page lacks. */
export function missingOf({ row, decisions }: Pick<FilteredPage, 'row' | 'decisions'>): Missable[] {
  const lacks: Record<Missable, boolean> = {
    title: empty(row.title),
    description: empty(row.description),
    H1: row.h1Count === 0 || empty(row.h1),
    keyword: empty((decisions['keyword:primary'] as string | undefined) ?? null),
    'structured data': row.partial === null && row.types.length === 0,
    language: row.partial === null && empty(row.lang),
    'alternative texts': row.imagesWithoutAlt > 0,
  }
  return missables.filter((what) => lacks[what])
}

/** The first folder of an address, `/tours/`; `/` for pages at the root. */
export const folderOf = (url: string): string => /^\/[^/]+\//.exec(decodedPath(url))?.[0] ?? '/'

/** What can be said of a page under each heading. */
export function valuesOf(page: FilteredPage, facet: Facet, style: HouseStyle): string[] {
  const { row, decisions, siteMarks } = page
  const rules = () => [...new Set([...row.rules, ...(siteMarks?.rules ?? [])])]
  switch (facet) {
    case 'mark':
      return rules()
    case 'subject':
      return [
        ...new Set(
          rules()
            .filter((id) => ruleIds.has(id))
            .map((id): Family => ruleOf(id).family),
        ),
      ]
    case 'severity':
      return (['blocker', 'flaw', 'nit'] as const).filter((s) => row[s] + (siteMarks?.[s] ?? 0) > 0)
    case 'state':
      return [stateOf(decisions)]
    case 'missing':
      return missingOf(page)
    case 'folder':
      return [folderOf(row.url)]
    case 'language':
      return row.lang === null ? [] : [row.lang.toLowerCase()]
    case 'type':
      return [styleFor(style, row.url).type ?? 'none given']
  }
}

/**
 * What was said of a row under every heading, and from what: another filter, or another page's change, asks for the same
 * again, of thousands of pages.
 */
const remembered = new WeakMap<LedgerRow, { of: FilteredPage; style: HouseStyle; values: string[][] }>()
function allValues(page: FilteredPage, style: HouseStyle): string[][] {
  const known = remembered.get(page.row)
  if (
    known?.style === style &&
    known.of.decisions === page.decisions &&
    sayTheSame(known.of.siteMarks, page.siteMarks)
  )
    return known.values
  const values = facets.map((facet) => valuesOf(page, facet, style))
  remembered.set(page.row, { of: page, style, values })
  return values
}

const sayTheSame = (a: FilteredPage['siteMarks'], b: FilteredPage['siteMarks']): boolean =>
  a === b ||
  (a !== undefined &&
    b !== undefined &&
    a.blocker === b.blocker &&
    a.flaw === b.flaw &&
    a.nit === b.nit &&
    a.rules.length === b.rules.length &&
    a.rules.every((rule, i) => rule === b.rules[i]))

export type FacetCounts = Record<Facet, Map<string, number>>

/**
 * The pages that a filter lets through, and for each heading how many pages each of its values would show beside what
 * else is asked for.
 */
export function filterPages<P extends FilteredPage>(
  pages: readonly P[],
  filter: LedgerFilter,
  style: HouseStyle,
): { shown: P[]; counts: FacetCounts } {
  const counts = Object.fromEntries(facets.map((facet) => [facet, new Map<string, number>()])) as FacetCounts
  const asked = facets.filter((facet) => filter[facet] !== undefined)
  const shown: P[] = []
  for (const page of pages) {
    const values = allValues(page, style)
    const failing = asked.filter((facet) => !values[facets.indexOf(facet)]!.includes(filter[facet]!))
    if (failing.length === 0) shown.push(page)
    // A page that fails in one heading alone still counts under that heading.
    if (failing.length > 1) continue
    facets.forEach((facet, i) => {
      if (failing.length === 1 && failing[0] !== facet) return
      for (const value of values[i]!) counts[facet].set(value, (counts[facet].get(value) ?? 0) + 1)
    })
  }
  return { shown, counts }
}

/** One line of what is left to do: a kind of mark, or something that is missing. */
export interface LeftToDo {
  facet: 'mark' | 'missing'
  value: string
  pages: number
}

/** What is left, most weighty first: kinds of mark by their severity and pages, and what is missing. */
export function whatIsLeft(
  pages: readonly FilteredPage[],
  severityOf: (rule: string) => 'blocker' | 'flaw' | 'nit',
  style: HouseStyle,
): { marks: LeftToDo[]; missing: LeftToDo[] } {
  const { counts } = filterPages(pages, {}, style)
  const rank = { blocker: 0, flaw: 1, nit: 2 }
  const marks = [...counts.mark]
    .map(([value, n]): LeftToDo => ({ facet: 'mark', value, pages: n }))
    .sort(
      (a, b) =>
        rank[severityOf(a.value)] - rank[severityOf(b.value)] ||
        b.pages - a.pages ||
        (a.value < b.value ? -1 : 1),
    )
  const missing = missables.flatMap((value): LeftToDo[] => {
    const n = counts.missing.get(value) ?? 0
    return n > 0 ? [{ facet: 'missing', value, pages: n }] : []
  })
  return { marks, missing }
}
