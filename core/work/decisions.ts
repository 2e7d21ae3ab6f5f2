/** What an editor decided, apart from the sources: the project file, the store and the command log all speak of it. */
import Joi from 'joi'
import { editSchema, targetKeyPattern, type Draft, type Edit } from '../page/edits/draft.ts'
import type { Keywords } from '../words/match.ts'
import { defaultStyle, houseStyleSchema, readHouseStyle, type HouseStyle } from '../rules/house-style.ts'
import { templateRulesSchema, type TemplateRule } from '../headings/template-rules.ts'
import type { PageId } from '../site/page-identity.ts'
import { phraseSchema, sameWording, type Phrase } from '../keywords/phrases.ts'
import { carriers } from '../site/page-tokens.ts'

/**
 * Decisions by key. Of a page: `edit:<target>`, `keyword:primary`, `keyword:secondary`, `stet:<rule>|<target>`,
 * `state`, `note`, `takes:title`, `takes:description`, `follow` (metas that carry the wording along), `answer` (from an
 * approval file); of a page that was taken in again `live` (edits that the page says now), `conflict:<target>` (an edit of
 * something that somebody else changed too) and `aside:<key>` (a decision whose target is gone); `suggested` (what a
 * consultant's sheet suggests for it). Of the site as a whole (page ""): `style`, `templates` (see
 * headings/template-rules.ts), `phrase:<wording>` (a phrase of the site's list), `mentions` (whether mentions
 * without a link are marked), `columns` and `views` of the ledger, `hand-offs`, `base`, `name`. A key that is absent is undecided.
 */
export type Decisions = Readonly<Record<string, unknown>>

export interface Stet {
  fingerprint: string
  reason: string
  date: string
}
/** One wording among alternatives; `from` says what it was drafted from, "" where an editor wrote it. */
export interface Take {
  text: string
  from: string
}
/** What a colleague answered to the wording that `of` fingerprints. */
export interface Answer {
  answer: 'yes' | 'no' | 'note'
  note: string
  date: string
  by: string
}
export type PageState = 'untouched' | 'drafted' | 'approved' | 'handed off' | 'in place'

/** An edit that was seen live when its page was taken in again. */
export interface LiveEdit {
  target: string
  /** What the page says now, as one line. */
  value: string
  /** YYYY-MM-DD */
  date: string
}
/** An edit of something that somebody else changed too: what was there, what was wanted, what is there now. */
export interface Conflict {
  edit: Edit
  was: string
  wanted: string
  says: string
  date: string
}
/** Fields for which a sheet may suggest something. */
export const suggestedFields = ['title', 'description', 'keyword', 'secondary', 'slug'] as const
export type SuggestedField = (typeof suggestedFields)[number]
/** What a consultant's sheet suggests for a page, and what was answered, field by field. */
export interface Suggestion {
  sheet: string
  /** YYYY-MM-DD */
  date: string
  row: number
  fields: Partial<Record<SuggestedField, string>>
  note: string
  answers: Partial<Record<SuggestedField, { answer: 'taken' | 'edited' | 'declined'; why: string }>>
}
/** One hand-off: which pages went out, when, and in which form. */
export interface HandOffRecord {
  /** YYYY-MM-DD */
  date: string
  /** In words, such as "changed files". */
  what: string
  pages: PageId[]
}
/** The hand-offs of a site, the oldest first. */
export const handOffsOf = (ofSite: Decisions): readonly HandOffRecord[] =>
  (ofSite['hand-offs'] as HandOffRecord[] | undefined) ?? []

/** A column of the ledger that is shown; its width in px, null for its usual one. */
export interface LedgerColumnChoice {
  id: string
  width: number | null
}
/** What the ledger shows, under a name; as the address has it behind its `?`. */
export interface LedgerView {
  name: string
  search: string
}
/** A decision whose target is gone, kept in sight. */
export interface Aside {
  value: unknown
  was: string
  date: string
}

/** One step of the command log: what it was called, and every decision that it changed. */
export interface LogEntry {
  at: string
  label: string
  /** `page` is a page's id, or "" for the site as a whole. */
  changes: { page: PageId; key: string; before: unknown; after: unknown }[]
  undone: boolean
}

const text = (most: number) => Joi.string().allow('').max(most)
export const decisionsSchema = Joi.object()
  .pattern(Joi.string().max(300), Joi.any())
  .custom((value: Record<string, unknown>, helpers) => {
    for (const [key, decision] of Object.entries(value)) {
      const schema = schemaFor(key)
      if (!schema) return helpers.message({ custom: `“${key}” is not a known decision` })
      const { error } = schema.validate(decision)
      if (error) return helpers.message({ custom: `“${key}”: ${error.message}` })
    }
    return value
  })

/** One change of a log entry: a decision as it was and as it is, each as a decision must be; nothing where it was or is not decided. */
const changeSchema = Joi.object({
  page: text(2000).required(),
  key: Joi.string().max(300).required(),
  before: Joi.any(),
  after: Joi.any(),
}).custom((change: LogEntry['changes'][number], helpers) => {
  const schema = schemaFor(change.key)
  if (!schema) return helpers.message({ custom: `“${change.key}” is not a known decision` })
  for (const side of ['before', 'after'] as const) {
    const value = change[side]
    const { error } = value === undefined || value === null ? {} : schema.validate(value)
    if (error) return helpers.message({ custom: `“${change.key}”, ${side}: ${error.message}` })
  }
  return change
})
/** A command log as a project file carries it. */
export const logSchema = Joi.array()
  .items(
    Joi.object({
      at: text(40).required(),
      label: text(2000).required(),
      changes: Joi.array().items(changeSchema).required(),
      undone: Joi.boolean().required(),
    }),
  )
  .max(200_000)

const perField = (value: Joi.Schema) =>
  Joi.object(Object.fromEntries(suggestedFields.map((field) => [field, value]))).required()
const suggestionSchema = Joi.object({
  sheet: text(300).required(),
  date: text(40).required(),
  row: Joi.number().integer().min(0).required(),
  fields: perField(text(5000)),
  note: text(2000).required(),
  answers: perField(
    Joi.object({ answer: Joi.valid('taken', 'edited', 'declined').required(), why: text(1000).required() }),
  ),
})

function schemaFor(key: string): Joi.Schema | null {
  if (key.startsWith('edit:')) return targetKeyPattern.test(key.slice(5)) ? editSchema : null
  if (key.startsWith('stet:'))
    return Joi.object({ fingerprint: text(10_000), reason: text(1000), date: text(40) })
  if (key.startsWith('phrase:')) return phraseSchema
  if (key.startsWith('conflict:'))
    return targetKeyPattern.test(key.slice(9))
      ? Joi.object({
          edit: editSchema.required(),
          was: text(2000),
          wanted: text(2000),
          says: text(2000),
          date: text(40),
        })
      : null
  if (key.startsWith('aside:'))
    return /^aside:(?:edit|stet):/.test(key)
      ? Joi.object({ value: Joi.object().required(), was: text(2000), date: text(40) })
      : null
  switch (key) {
    case 'keyword:primary':
      return text(200)
    case 'keyword:secondary':
      return Joi.array().items(text(200)).max(50)
    case 'state':
      return Joi.valid('drafted', 'approved', 'handed off', 'in place')
    case 'live':
      return Joi.array()
        .items(Joi.object({ target: text(300), value: text(2000), date: text(40) }))
        .max(10_000)
    case 'note':
      return text(2000)
    case 'takes:title':
    case 'takes:description':
      return Joi.array()
        .items(Joi.object({ text: text(2000), from: text(200) }))
        .max(50)
    case 'follow':
      return Joi.array()
        .items(Joi.valid(...carriers))
        .unique()
    case 'answer':
      return Joi.object({
        answer: Joi.valid('yes', 'no', 'note').required(),
        note: text(2000),
        date: text(40),
        by: text(200),
      })
    case 'suggested':
      return suggestionSchema
    case 'style':
      return houseStyleSchema
    case 'templates':
      return templateRulesSchema
    case 'base':
      return text(2000)
    case 'name':
      return text(200)
    case 'mentions':
      return Joi.valid(true)
    case 'hand-offs':
      return Joi.array()
        .items(
          Joi.object({
            date: text(40).required(),
            what: text(300).required(),
            pages: Joi.array().items(text(2000)).max(100_000).required(),
          }),
        )
        .max(1000)
    case 'columns':
      return Joi.array()
        .items(
          Joi.object({
            id: Joi.string().max(40).required(),
            width: Joi.number().integer().min(24).max(2000).allow(null).required(),
          }),
        )
        .max(60)
    case 'views':
      return Joi.array()
        .items(Joi.object({ name: text(100).required(), search: text(2000).required() }))
        .max(200)
    default:
      return null
  }
}

/** The draft among a page's decisions. */
export function draftOf(decisions: Decisions): Draft {
  const draft: Record<string, Edit> = {}
  for (const [key, value] of Object.entries(decisions))
    if (key.startsWith('edit:')) draft[key.slice(5)] = value as Edit
  return draft
}

export function keywordsOf(decisions: Decisions): Keywords | null {
  const primary = decisions['keyword:primary'] as string | undefined
  const secondary = decisions['keyword:secondary'] as string[] | undefined
  return primary || secondary?.length ? { primary: primary ?? '', secondary: secondary ?? [] } : null
}

export function stateOf(decisions: Decisions): PageState {
  const state = decisions.state as PageState | undefined
  if (state === 'approved' || state === 'handed off') return state
  if (state === 'in place' && !Object.keys(decisions).some(isEdit)) return state
  return state === 'drafted' || Object.keys(decisions).some(isEdit) ? 'drafted' : 'untouched'
}

/** The house style among the site's decisions; one that cannot be read any more is as if none were decided. */
export function styleOf(decisions: Decisions): HouseStyle {
  const read = readHouseStyle(decisions.style ?? {})
  return read.ok ? read.style : defaultStyle
}

/** The site's rules for what recurs; some that cannot be read any more are as if none were decided. */
export function templatesOf(decisions: Decisions): TemplateRule[] {
  const { value, error } = templateRulesSchema.validate(decisions.templates ?? [])
  return error ? [] : (value as TemplateRule[])
}

/** The key of a phrase of the site's list: by its wording, so that one wording is kept once. */
export const phraseKey = (phrase: string): string => `phrase:${sameWording(phrase)}`

/** The site's list of phrases, in the order in which they were put on it. */
export const phrasesOf = (ofSite: Decisions): Phrase[] =>
  Object.entries(ofSite).flatMap(([key, value]) => (key.startsWith('phrase:') ? [value as Phrase] : []))

export const followOf = (decisions: Decisions): string[] => (decisions.follow as string[] | undefined) ?? []
export const takesOf = (decisions: Decisions, field: 'title' | 'description'): Take[] =>
  (decisions[`takes:${field}`] as Take[] | undefined) ?? []

export const stetKey = (rule: string, target: string): string => `stet:${rule}|${target}`

/** Decisions that change the page's file. */
const isEdit = (key: string) => key.startsWith('edit:') || key === 'follow'

/**
 * The changes that deciding `key` makes: the decision itself, and, for an edit of a page that was approved or handed
 * off, that it is drafted again. `after` undefined takes the decision back.
 */
export function changesFor(
  page: PageId,
  decisions: Decisions,
  key: string,
  after: unknown,
): LogEntry['changes'] {
  const before = decisions[key]
  if (JSON.stringify(before) === JSON.stringify(after)) return []
  const changes: LogEntry['changes'] = [{ page, key, before, after }]
  const state = stateOf(decisions)
  if (isEdit(key) && (state === 'approved' || state === 'handed off' || state === 'in place'))
    changes.push({ page, key: 'state', before: decisions.state, after: 'drafted' })
  return changes
}

/** Decisions after a step, or, backwards, before it. */
export function applyChanges(
  decisions: Decisions,
  changes: LogEntry['changes'],
  backwards = false,
): Decisions {
  const next: Record<string, unknown> = { ...decisions }
  for (const { key, before, after } of backwards ? [...changes].reverse() : changes) {
    const value = backwards ? before : after
    if (value === undefined || value === null) delete next[key]
    else next[key] = value
  }
  return next
}
