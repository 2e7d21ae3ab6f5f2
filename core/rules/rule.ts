/** The form in which every rule is written: one file a rule, which is its documentation and its test as well. */
import type { Hit, Keyword, Keywords } from '../words/match.ts'
import type { Measured, Role } from '../measure/snippet.ts'
import type { Draft, Edit } from '../page/edits/draft.ts'
import type { Need, PageFacts, Place } from '../page/read/facts.ts'
import type { Served } from '../page/source/served.ts'
import type { FileSize } from '../site/file-sizes.ts'
import type { PageId } from '../site/page-identity.ts'
import type { SiteIndex } from '../site/site-index.ts'
import type { HouseStyle, Severity } from './house-style.ts'

export type Family = 'title' | 'description' | 'address' | 'headings' | 'text' | 'images' | 'shell' | 'data'

/**
 * The proofreader's sign of a mark: something is missing, there is too much, the order is wrong or several are one,
 * it resembles another.
 */
export type Sign = 'missing' | 'too-much' | 'order' | 'alike'

/** Figures and words that a mark's message is made of; what a stet remembers. */
export type Values = Readonly<Record<string, string | number | boolean | null>>

/** An edit of one target; `at` is the place of the element's start tag in the proof's text. */
export interface RepairEdit {
  target: string
  at?: number
  edit: Edit
  /** Starts of further elements that the edit joins to it, in the proof's text. */
  merges?: number[]
  /** Start of the heading that the edit makes this one the subtitle of, in the proof's text. */
  above?: number
}
/** A repair: what it does in words, and its edits. */
export interface Repair {
  label: string
  edits: RepairEdit[]
  /** It needs an editor's judgement: offered, and never applied unasked. */
  judgement?: true
}
/** Whether a mark's repair is certain: one that needs no judgement. */
export const isCertain = (repair: Repair | null): repair is Repair => repair !== null && !repair.judgement

/** Where the primary keyword stands. */
export interface Placed {
  /** Matches in the main content. */
  matches: number
  /** Words of the keyword that a match is counted as. */
  words: number
  /** The words of the main content that are forms of the keyword's. */
  hits: readonly Hit[]
}

export interface PageCheck {
  page: PageFacts
  site: SiteIndex
  style: HouseStyle
  /** The audit's date, YYYY-MM-DD: rules have no clock. */
  date: string
  keywords: Keywords | null
  /** The primary keyword in the page's language, null where none is assigned. */
  primary: Keyword | null
  /** How often the primary keyword stands in the main content, found once for all rules; null where none is assigned. */
  placed(): Placed | null
  /** The title or description measured, once for all rules; null where there is none. */
  measured(role: Role): Measured | null
  /** Whether the site's address is known, or only the stand-in that rules fall back on. */
  baseKnown: boolean
}
export interface SiteCheck {
  site: SiteIndex
  style: HouseStyle
  date: string
}

/** place null: the page as a whole. */
export type MarkPage = (place: Place | null, values: Values, repair?: Repair) => void
export type MarkSite = (pages: PageId[], values: Values) => void

export interface Example {
  html: string
  /** Other pages of the site by path; the example's own path is `page.html` unless `path` says otherwise. */
  pages?: Record<string, string>
  path?: string
  url?: string
  keywords?: Keywords
  /** Keywords of the other pages, by path. */
  others?: Record<string, Keywords>
  style?: unknown
  date?: string
  /** What the server said with it, as far as it is not the usual. */
  served?: Partial<Served>
  /** Addresses that the site's sitemap lists. */
  sitemap?: string[]
  /** Files of the site that are no pages, by path, with their sizes. */
  files?: Record<string, FileSize>
}
export interface MarkedExample extends Example {
  /** What stands at the mark's place, from its start; null for a mark on the page as a whole. */
  at?: string | null
  says: RegExp
}

/** The sheets of the desk that show marks. */
export type SheetName = 'snippet' | 'outline' | 'galley' | 'links' | 'data' | 'head'
/** Where marks are shown: by sheet, the part of it that they stand beside. */
export type ShownOn = Readonly<Partial<Record<SheetName, string>>>

const shownOnBy: Record<Family, ShownOn> = {
  title: { snippet: 'title' },
  description: { snippet: 'description' },
  address: { snippet: 'trail' },
  headings: { outline: 'headings' },
  text: { outline: 'text', galley: 'text' },
  images: { head: 'images' },
  shell: { head: 'page' },
  data: { data: 'things' },
}

interface RuleBase {
  id: string
  family: Family
  /** By the family where a rule does not say otherwise. */
  shownOn: ShownOn
  severity: Severity
  sign: Sign
  /** A few words: what is wrong. */
  name: string
  /** Published source, or "common practice, no source". */
  basis: string
  /** Why it matters, for an editor. */
  why: string
  /** What would mend it, for an editor. */
  mend: string
  needs: Need[]
  /** The severity by what was found, where it is not the same for all; the house's own word goes before it. */
  weigh?(values: Values): Severity
  /** Rules that keep quiet about the same text when this one speaks. */
  silences?: string[]
  message(values: Values): string
  examples: { clean: (string | Example)[]; marked: MarkedExample[] }
}
export interface PageRule extends RuleBase {
  scope: 'page'
  check(context: PageCheck, mark: MarkPage): void
}
export interface SiteRule extends RuleBase {
  scope: 'site'
  check(context: SiteCheck, mark: MarkSite): void
}
export type Rule = PageRule | SiteRule

type Given<R extends Rule> = Omit<R, 'scope' | 'shownOn'> & { shownOn?: ShownOn }
export const rule = (given: Given<PageRule>): PageRule => ({
  shownOn: shownOnBy[given.family],
  ...given,
  scope: 'page',
})
export const siteRule = (given: Given<SiteRule>): SiteRule => ({
  shownOn: shownOnBy[given.family],
  ...given,
  scope: 'site',
})

/** One thing found. `start` and `end` are UTF-16 units of the proof's text; both null for the page as a whole. */
export interface Mark {
  rule: string
  severity: Severity
  message: string
  start: number | null
  end: number | null
  values: Values
  repair: Repair | null
}
export interface SiteMark {
  rule: string
  severity: Severity
  message: string
  pages: PageId[]
  values: Values
}

/** Which edits a repair comes to be, once the places of its targets in the source's bytes are known. */
export type ResolvedRepair = { label: string; edits: Draft; judgement: boolean }
