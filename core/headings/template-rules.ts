/**
 * Rules for what recurs on pages built on one template: "every line with class `page-title` becomes H1", "H3 in the
 * menu become paragraphs". Kept with the site; what they change in a page is worked out anew each time from the page's
 * source, so that pages taken in later follow, and a rule that is taken back leaves nothing behind.
 */
import Joi from 'joi'
import type { Draft, Edit } from '../page/edits/draft.ts'
import { outlineOf, type Landmark, type PageFacts } from '../page/read/facts.ts'
import { toBytePlaces } from '../page/source/places.ts'
import type { Source } from '../page/source/source.ts'

/** A heading of a page's source, or a line that looks like one (`level` null), as far as a rule looks at it. */
export interface OutlineItem {
  /** Start byte in the source. */
  at: number
  tag: string
  level: number | null
  text: string
  className: string
  landmark: Landmark | null
  /** Whether it can be changed with certainty: it has an end tag of its own and no role. */
  sure: boolean
  /** Nothing but white space stands between the heading before it and this one. */
  adjacent: boolean
}

export interface TemplateRule {
  id: string
  /** What a line must be: its tag, and a class among its own, or the landmark that it stands in; null where any will do. */
  tag: string
  className: string | null
  landmark: Landmark | null
  /** What it becomes: a level, or a paragraph. */
  become: number | 'p'
  /** Pages that are left as they are, by id. */
  except: readonly string[]
}

const landmarks: Landmark[] = ['header', 'nav', 'main', 'aside', 'footer', 'search']
export const templateRulesSchema = Joi.array()
  .items(
    Joi.object({
      id: Joi.string().max(100).required(),
      tag: Joi.string()
        .pattern(/^(?:h[1-6]|p|div)$/)
        .required(),
      className: Joi.string().max(200).allow(null).required(),
      landmark: Joi.valid(...landmarks, null).required(),
      become: Joi.alternatives(Joi.number().integer().min(1).max(6), Joi.valid('p')).required(),
      except: Joi.array().items(Joi.string().max(2000)).max(20_000).required(),
    }),
  )
  .max(200)

/** The lines of a page's source that rules look at, in order. */
export function outlineItems(source: Source, page: PageFacts): OutlineItem[] {
  const headings = outlineOf(page).map((h) => ({
    start: h.start,
    tag: h.tag,
    level: h.level as number | null,
    text: h.label || h.text,
    className: h.className,
    landmark: h.landmark,
    sure: h.endStart !== null && h.role === null,
    adjacent: h.adjacent,
  }))
  const likes = page.lookAlikes.map((l) => ({
    start: l.start,
    tag: l.tag as string,
    level: null,
    text: l.text,
    className: l.className,
    landmark: 'main' as Landmark | null,
    sure: l.endStart !== null,
    adjacent: false,
  }))
  const all = [...headings, ...likes].sort((a, b) => a.start - b.start)
  const bytes = toBytePlaces(
    source,
    all.map((i) => i.start),
  )
  return all.map(({ start: _, text, ...item }, i) => ({ at: bytes[i]!, ...item, text: text.slice(0, 160) }))
}

const classesOf = (className: string): string[] => className.split(/\s+/).filter(Boolean)

export const ruleMatches = (rule: TemplateRule, item: OutlineItem): boolean =>
  item.tag === rule.tag &&
  (rule.className === null || classesOf(item.className).includes(rule.className)) &&
  (rule.landmark === null || item.landmark === rule.landmark)

/** Whether a rule would change a line that it matches. */
const changes = (rule: TemplateRule, item: OutlineItem): boolean =>
  item.sure && (rule.become === 'p' ? item.level !== null : item.level !== rule.become)

/** The edits that the site's rules make in one page; the first rule that matches a line decides. */
export function templateDraft(items: OutlineItem[], rules: readonly TemplateRule[], page: string): Draft {
  const draft: Record<string, Edit> = {}
  for (const item of items) {
    const rule = rules.find((r) => ruleMatches(r, item) && !r.except.includes(page))
    if (!rule || !changes(rule, item)) continue
    const key = `${item.level === null ? 'block' : 'heading'}@${item.at}`
    draft[key] = rule.become === 'p' ? { tag: 'p' } : { level: rule.become }
  }
  return draft
}

/** A page's own edits laid over what the site's rules make of it: what an editor decided of a heading goes first. */
export function overTemplates(own: Draft, templates: Draft): Draft {
  const all: Record<string, Edit> = { ...templates }
  for (const [key, edit] of Object.entries(own)) {
    const below = templates[key]
    const decidesKind =
      edit.level !== undefined || edit.tag !== undefined || edit.hgroup !== undefined || edit.remove
    all[key] = below && !decidesKind ? { ...below, ...edit } : edit
  }
  return all
}

/** One line of an outline before or after. */
export interface OutlineLine {
  level: number | null
  text: string
  changed: boolean
}

/** A page's outline with a draft's changes of levels in it; lines that are no headings are left out unless they change. */
export function outlineWith(items: OutlineItem[], draft: Draft): OutlineLine[] {
  return items.flatMap((item) => {
    const edit = draft[`${item.level === null ? 'block' : 'heading'}@${item.at}`]
    const level = edit?.tag === 'p' || edit?.remove ? null : (edit?.level ?? item.level)
    const changed = level !== item.level
    return level === null && !changed ? [] : [{ level, text: item.text, changed }]
  })
}

/** Why a rule is better not applied to a page, or cannot be there; null where nothing speaks against it. */
export function conflictOf(items: OutlineItem[], rule: TemplateRule, draft: Draft): string | null {
  const unsure = items.find((i) => ruleMatches(rule, i) && !i.sure)
  if (unsure) return `“${unsure.text}” has no end tag of its own, or has a role, and is left unchanged.`
  let first = 0
  let previous: OutlineItem | null = null
  for (const item of items) {
    const edit = draft[`${item.level === null ? 'block' : 'heading'}@${item.at}`]
    const level = edit?.tag === 'p' || edit?.remove ? null : (edit?.level ?? item.level)
    if (level === 1 && !(item.adjacent && previous?.level === 1)) first++
    previous = { ...item, level }
  }
  const before = items.filter((i) => i.level === 1).length
  if (first > 1 && rule.become === 1) return `It would have ${first} H1.`
  if (first === 0 && before > 0) return 'It would be left without an H1.'
  return null
}

export interface TemplatePreview {
  rule: TemplateRule
  pages: {
    page: string
    before: OutlineLine[]
    after: OutlineLine[]
    changed: number
    conflict: string | null
  }[]
}

/**
 * What a rule would change on every page, the site's other rules as they are. `own` are drafts of pages by id:
 * where an editor has decided of a line, the rule changes nothing.
 */
export function previewRule(
  outlines: ReadonlyMap<string, OutlineItem[]>,
  rule: TemplateRule,
  others: readonly TemplateRule[],
  own: ReadonlyMap<string, Draft>,
): TemplatePreview {
  const pages: TemplatePreview['pages'] = []
  for (const [page, items] of outlines) {
    if (!items.some((i) => ruleMatches(rule, i))) continue
    const draft = own.get(page) ?? {}
    const without = overTemplates(draft, templateDraft(items, others, page))
    const with_ = overTemplates(draft, templateDraft(items, [{ ...rule, except: [] }, ...others], page))
    const before = outlineWith(items, without)
    const after = outlineWith(items, with_)
    const changed = items.filter((i) => {
      const key = `${i.level === null ? 'block' : 'heading'}@${i.at}`
      return JSON.stringify(without[key]) !== JSON.stringify(with_[key])
    }).length
    const conflict = conflictOf(items, rule, with_)
    if (changed > 0 || conflict) pages.push({ page, before, after, changed, conflict })
  }
  return { rule, pages }
}

/** Something recurs when it stands on so many pages at least; common practice, no source. */
const FEWEST_PAGES = 3

export interface Suggestion {
  rule: Omit<TemplateRule, 'id' | 'except'>
  pages: number
  /** Some of the lines that it is about. */
  samples: string[]
}

/** The words a rule is known by: "H3 in the menu", "paragraphs with class `page-title`". */
export function describeRule(rule: Omit<TemplateRule, 'id' | 'except'>): { what: string; become: string } {
  const name = /^h[1-6]$/.test(rule.tag)
    ? rule.tag.toUpperCase()
    : rule.tag === 'p'
      ? 'Paragraphs'
      : 'Plain blocks'
  const where: Record<Landmark, string> = {
    header: 'in the header',
    nav: 'in the menu',
    main: 'in the main content',
    aside: 'in an aside',
    footer: 'in the footer',
    search: 'in the search',
  }
  return {
    what: [
      name,
      rule.className === null ? '' : `with class “${rule.className}”`,
      rule.landmark === null ? '' : where[rule.landmark],
    ]
      .filter(Boolean)
      .join(' '),
    become: rule.become === 'p' ? 'paragraphs' : `H${rule.become}`,
  }
}

/**
 * Rules that would mend what recurs: headings in menus, headers and footers; lines that look like headings by a class;
 * a class that heads pages which have no H1. Most pages first.
 */
export function suggestRules(
  outlines: ReadonlyMap<string, OutlineItem[]>,
  kept: readonly TemplateRule[],
): Suggestion[] {
  interface Group {
    rule: Suggestion['rule']
    /** What each line would best become: the most of them decide. */
    votes: Map<TemplateRule['become'], number>
    pages: Set<string>
    samples: Set<string>
  }
  const groups = new Map<string, Group>()
  const note = (rule: Suggestion['rule'], path: string, text: string) => {
    const key = `${rule.tag} ${rule.className} ${rule.landmark} ${rule.become === 1}`
    const group = groups.get(key) ?? {
      rule,
      votes: new Map<TemplateRule['become'], number>(),
      pages: new Set<string>(),
      samples: new Set<string>(),
    }
    group.votes.set(rule.become, (group.votes.get(rule.become) ?? 0) + 1)
    group.pages.add(path)
    if (group.samples.size < 4) group.samples.add(text)
    groups.set(key, group)
  }
  for (const [path, items] of outlines) {
    const open = items.filter((i) => i.sure && !kept.some((r) => ruleMatches(r, i)))
    const headless = !items.some((i) => i.level === 1)
    let level = 1
    let first = true
    for (const item of open) {
      const [className = null] = classesOf(item.className)
      const furniture = item.landmark === 'nav' || item.landmark === 'footer' || item.landmark === 'header'
      if (item.level !== null && furniture && item.level !== 1)
        note({ tag: item.tag, className: null, landmark: item.landmark, become: 'p' }, path, item.text)
      else if (!furniture && item.landmark !== 'aside') {
        if (headless && first && className !== null)
          note({ tag: item.tag, className, landmark: null, become: 1 }, path, item.text)
        else if (item.level === null && className !== null)
          note({ tag: item.tag, className, landmark: null, become: Math.max(2, level) }, path, item.text)
        first = false
      }
      if (item.level !== null && !furniture) level = item.level
    }
  }
  return [...groups.values()]
    .filter((g) => g.pages.size >= FEWEST_PAGES && g.samples.size > 0)
    .map((g) => ({
      rule: { ...g.rule, become: [...g.votes].sort((a, b) => b[1] - a[1])[0]![0] },
      pages: g.pages.size,
      samples: [...g.samples],
    }))
    .sort((a, b) => b.pages - a.pages)
}
