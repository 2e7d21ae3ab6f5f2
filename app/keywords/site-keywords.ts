/** The site's phrases and which page is for which, from what is decided; worked out anew only when that changes. */
import { useMemo } from 'react'
import {
  keywordMap,
  withPhrase,
  withoutPhrase,
  type KeywordMap,
  type KeywordRole,
} from '../../core/keywords/keyword-map.ts'
import type { Phrase } from '../../core/keywords/phrases.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import { keywordsOf, phraseKey, phrasesOf } from '../../core/work/decisions.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import type { Session } from '../session/session.ts'
import { useSessionParts } from '../session/use-session.ts'

const followed = ['rows', 'work', 'style'] as const

export interface SiteKeywords {
  rows: ReadonlyMap<PageId, LedgerRow>
  /** The language that phrases are taken to be in. */
  lang: string
  /** The site's list. */
  phrases: Phrase[]
  map: KeywordMap
}

export function useSiteKeywords(session: Session): SiteKeywords {
  const { rows, work, style } = useSessionParts(session, followed)
  const lang = style.language ?? 'en'
  const ofSite = work.get('')
  const phrases = useMemo(() => phrasesOf(ofSite ?? {}), [ofSite])
  const map = useMemo(
    () =>
      keywordMap(
        [...work].flatMap(([id, decisions]) => {
          const row = id === '' ? undefined : rows.get(id)
          const keywords = row && keywordsOf(decisions)
          return keywords ? [{ id, lang: row.lang ?? lang, ...keywords }] : []
        }),
      ),
    // A row changes with every mark; only a page's language matters here, and that changes with its decisions.
    // eslint-disable-next-line react-hooks/exhaustive-deps -- see above
    [work, rows.size, lang],
  )
  return { rows, lang, phrases, map }
}

/** What a page is called where it stands in a list. */
export const pageName = (row: LedgerRow): string => row.h1 || row.title || row.path

/** Puts phrases on the site's list, or takes them off it; one step. */
export function listPhrases(session: Session, phrases: readonly Phrase[], on: boolean): Promise<void> {
  const label = on
    ? phrases.length === 1
      ? `Phrase kept: ${phrases[0]!.phrase}`
      : `${phrases.length.toLocaleString('en')} phrases kept`
    : phrases.length === 1
      ? `Phrase taken off the list: ${phrases[0]!.phrase}`
      : `${phrases.length.toLocaleString('en')} phrases taken off the list`
  return session.decide(
    label,
    phrases.map((phrase) => ({
      page: '',
      key: phraseKey(phrase.phrase),
      after: on ? { ...phrase, phrase: phrase.phrase.trim() } : undefined,
    })),
  )
}

/** One phrase for one page. */
export interface Assigning {
  page: PageId
  phrase: string
  /** null takes it away. */
  role: KeywordRole | null
}

/** Assigns phrases to pages, or takes them away; one step. */
export function assignPhrases(session: Session, label: string, given: readonly Assigning[]): Promise<void> {
  return session.decide(label, () => {
    const { rows, style } = session.get()
    const pages = new Map<PageId, { primary: string; secondary: string[] }>()
    for (const { page, phrase, role } of given) {
      const now = pages.get(page) ?? keywordsOf(session.decisionsOf(page)) ?? { primary: '', secondary: [] }
      const lang = rows.get(page)?.lang ?? style.language
      pages.set(page, role === null ? withoutPhrase(now, phrase, lang) : withPhrase(now, phrase, role, lang))
    }
    return [...pages].flatMap(([page, { primary, secondary }]) => [
      { page, key: 'keyword:primary', after: primary || undefined },
      { page, key: 'keyword:secondary', after: secondary.length > 0 ? secondary : undefined },
    ])
  })
}
