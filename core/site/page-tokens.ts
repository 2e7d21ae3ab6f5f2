/** What one page gives for the tokens in its title, and the draft with them filled. */
import type { Draft, Edit } from '../page/edits/draft.ts'
import { outlineOf, titleOf, type PageFacts } from '../page/read/facts.ts'
import type { SiteIndex } from './site-index.ts'
import { shownPrice } from '../structured-data/shown-price.ts'
import { furnitureOf } from '../structured-data/things.ts'
import { pageWords } from '../wording/patterns.ts'
import { dateTokens, fillTokens, hasTokens, type TokenValues } from '../wording/tokens.ts'

/** The name of the part of the site in which an address lies: its folder page's H1 or title, else the folder's name; null at the top. */
export function sectionOf(url: string, site: SiteIndex): string | null {
  const rest = url.startsWith(site.base) ? url.slice(site.base.length) : ''
  const folder = /^([^/?#]+)\//.exec(rest)?.[1]
  if (folder === undefined) return null
  const entry = site.entries.get(site.addresses.get(`${site.base}${folder}/`) ?? '')
  if (entry && entry.url !== url) {
    const name = entry.h1 ?? entry.title
    if (name) return name
  }
  const words = decodeURIComponent(folder.replace(/%(?![\da-f]{2})/gi, '%25'))
    .replace(/[-_]+/g, ' ')
    .trim()
  return words ? words.slice(0, 1).toUpperCase() + words.slice(1) : null
}

/** What is kept of a page, enough for every token but `{page}`. */
export interface KnownOfPage {
  url: string
  lang: string | null
  h1: string | null
  author: string | null
  price: string | null
}

export interface TokenContext {
  /** null where sections need not be told. */
  site: SiteIndex | null
  /** Of the house style: the site's name as titles carry it, its language, and the pattern of its titles. */
  style: { siteName: string | null; language: string | null; titlePattern: string | null }
  /** YYYY-MM-DD */
  date: string
}

export const valuesFrom = (known: KnownOfPage, { site, style, date }: TokenContext): TokenValues => ({
  ...dateTokens(date, known.lang ?? style.language),
  site: style.siteName,
  section: site && sectionOf(known.url, site),
  h1: known.h1,
  author: known.author,
  price: known.price,
})

/** Values from a page's facts; `{page}` is its own words, from its title without what the pattern adds, else from its H1. */
export function tokenValues(page: PageFacts, { site, style, date }: TokenContext): TokenValues {
  const { author, price } = furnitureOf(page)
  const h1 = outlineOf(page).find((h) => h.level === 1 && h.text)?.text ?? null
  const { url, lang } = page
  const known = { url, lang, h1, author, price: price ? shownPrice(price, lang) : null }
  const values = valuesFrom(known, { site, style, date })
  const title = titleOf(page)?.text
  return { ...values, page: (title && pageWords(title, style.titlePattern, values)) || h1 }
}

/** Whether any edit holds tokens that are filled in the files. */
export const draftHasTokens = (draft: Draft): boolean =>
  Object.entries(draft).some(
    ([key, edit]) => isWording(key) && edit.value !== undefined && hasTokens(edit.value),
  )
const isWording = (key: string) => key === 'title' || key.startsWith('meta:')

/** A draft as it is written to files: tokens filled. What the page has nothing for stays as typed, and is a mark. */
export function fillDraft(draft: Draft, values: TokenValues): Draft {
  const filled: Record<string, Edit> = { ...draft }
  for (const [key, edit] of Object.entries(draft))
    if (isWording(key) && edit.value !== undefined)
      filled[key] = { ...edit, value: fillTokens(edit.value, values).text }
  return filled
}

/** Metas that carry the title's or the description's wording elsewhere, as pages that are shared do. From memory. */
export const carriers = ['og:title', 'twitter:title', 'og:description', 'twitter:description'] as const
export const carriesTitle = (name: string): boolean => name.endsWith('title')

/** A draft in which the metas named follow the title and the description that the draft leads to. */
export function followDraft(
  draft: Draft,
  follow: readonly string[],
  present: { title: string | null; description: string | null },
): Draft {
  if (follow.length === 0) return draft
  const title = draft.title?.value ?? present.title
  const description = draft['meta:description']?.value ?? present.description
  const next: Record<string, Edit> = { ...draft }
  for (const name of follow) {
    const value = carriesTitle(name) ? title : description
    if (value !== null) next[`meta:${name}`] = { value }
  }
  return next
}
