/** The keyword map: which page is for which phrase, and where pages are after the same one. */
import type { PageId } from '../site/page-identity.ts'
import { compileKeyword } from '../words/match.ts'
import { wordFormsOf } from './phrases.ts'

export interface PageKeywords {
  id: PageId
  lang: string | null
  primary: string
  secondary: readonly string[]
}
export type KeywordRole = 'primary' | 'secondary'
export interface AssignedPage {
  id: PageId
  phrase: string
  role: KeywordRole
}
/**
 * Pages after one phrase. `same`: the same word forms, the primary keyword of one of them at least. `contained`: the
 * first page's primary keyword is part of the others'.
 */
export interface Clash {
  kind: 'same' | 'contained'
  /** As it is assigned to the first of the pages. */
  phrase: string
  pages: AssignedPage[]
}
export interface KeywordMap {
  /** By word forms: the pages that have the phrase, primary before secondary. */
  byForms: Map<string, AssignedPage[]>
  clashes: Clash[]
}

/** A primary keyword of more words than this contains too many shorter ones to be looked up. */
const MOST_STEMS = 8

export function keywordMap(pages: Iterable<PageKeywords>): KeywordMap {
  const byForms = new Map<string, AssignedPage[]>()
  const primaries: { page: AssignedPage; stems: string[] }[] = []
  for (const { id, lang, primary, secondary } of pages) {
    const seen = new Set<string>()
    const assign = (phrase: string, role: KeywordRole) => {
      const stems = [...compileKeyword(phrase, lang).stems].sort()
      const key = stems.join(' ')
      if (key === '' || seen.has(key)) return
      seen.add(key)
      const page = { id, phrase, role }
      if (role === 'primary') primaries.push({ page, stems })
      const group = byForms.get(key)
      if (group) group.push(page)
      else byForms.set(key, [page])
    }
    if (primary) assign(primary, 'primary')
    for (const phrase of secondary) assign(phrase, 'secondary')
  }
  for (const group of byForms.values())
    group.sort((a, b) => Number(a.role === 'secondary') - Number(b.role === 'secondary'))
  const same = [...byForms.values()]
    .filter((group) => group.length > 1 && group[0]!.role === 'primary')
    .map((group): Clash => ({ kind: 'same', phrase: group[0]!.phrase, pages: group }))
  return { byForms, clashes: [...same, ...containedIn(byForms, primaries)] }
}

/** Primary keywords whose words are all in a longer one of another page. */
function containedIn(
  byForms: ReadonlyMap<string, AssignedPage[]>,
  primaries: readonly { page: AssignedPage; stems: string[] }[],
): Clash[] {
  const longer = new Map<string, AssignedPage[]>()
  for (const { page, stems } of primaries) {
    if (stems.length > MOST_STEMS) continue
    const all = (1 << stems.length) - 1
    for (let chosen = 1; chosen < all; chosen++) {
      const key = stems.filter((_, i) => chosen & (1 << i)).join(' ')
      const short = byForms.get(key)?.[0]
      if (short?.role !== 'primary' || short.id === page.id) continue
      const group = longer.get(key)
      if (group) group.push(page)
      else longer.set(key, [page])
    }
  }
  return [...longer].map(([key, group]) => {
    const short = byForms.get(key)![0]!
    return { kind: 'contained', phrase: short.phrase, pages: [short, ...group] }
  })
}

/** How a page is put down for a phrase. */
export interface Assignment {
  primary: string
  secondary: string[]
}

/**
 * A page's keywords with a phrase assigned in a role. What it replaces as primary becomes secondary, so that nothing is
 * lost; a phrase that it has already changes its role.
 */
export function withPhrase(
  now: Assignment,
  phrase: string,
  role: KeywordRole,
  lang: string | null,
): Assignment {
  const rest = withoutPhrase(now, phrase, lang)
  if (role === 'secondary') return { ...rest, secondary: [...rest.secondary, phrase] }
  return { primary: phrase, secondary: rest.primary ? [rest.primary, ...rest.secondary] : rest.secondary }
}

/** A page's keywords without a phrase in any of its word forms. */
export function withoutPhrase(now: Assignment, phrase: string, lang: string | null): Assignment {
  const key = wordFormsOf(phrase, lang)
  return {
    primary: wordFormsOf(now.primary, lang) === key ? '' : now.primary,
    secondary: now.secondary.filter((p) => wordFormsOf(p, lang) !== key),
  }
}
