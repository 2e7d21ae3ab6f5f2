/** Runs the catalogue over a page or a site: pure, ordered, the same marks for the same facts. */
import { compileKeyword, hitsOf, matchesAmong, type Keywords } from '../words/match.ts'
import { measure, type Measured, type Role } from '../measure/snippet.ts'
import { descriptionOf, titleOf, type Need, type PageFacts } from '../page/read/facts.ts'
import type { PageId } from '../site/page-identity.ts'
import type { SiteIndex } from '../site/site-index.ts'
import { catalogue } from './catalogue.ts'
import { styleFor, type HouseStyle, type Severity } from './house-style.ts'
import type { Mark, MarkPage, PageCheck, PageRule, Placed, Rule, SiteMark, SiteRule } from './rule.ts'

const pageRules = catalogue.filter((r): r is PageRule => r.scope === 'page')
const siteRules = catalogue.filter((r): r is SiteRule => r.scope === 'site')
const byId = new Map(catalogue.map((r) => [r.id, r]))

/** The rule of an id, for its name, its sign and why it matters. */
export const ruleOf = (id: string): Rule => {
  const rule = byId.get(id)
  if (!rule) throw new Error(`No rule is called ${id}`)
  return rule
}

export const ruleIds: ReadonlySet<string> = new Set(byId.keys())

/** The ids among a house style's rules, for the site or for some addresses, that no rule has. */
export const unknownRules = (style: Pick<HouseStyle, 'rules' | 'addresses'>): string[] =>
  [...new Set([style.rules, ...style.addresses.map((a) => a.rules ?? {})].flatMap(Object.keys))].filter(
    (id) => !byId.has(id),
  )

/** The severity that the house gives a rule, null when it is off. */
export function severityOf(rule: Rule, style: HouseStyle): Severity | null {
  const chosen = Object.hasOwn(style.rules, rule.id) ? style.rules[rule.id] : undefined
  return chosen === 'off' ? null : (chosen ?? rule.severity)
}

const among = new WeakMap<ReadonlySet<string>, PageRule[]>()
function rulesAmong(only: ReadonlySet<string>): PageRule[] {
  let rules = among.get(only)
  if (!rules) among.set(only, (rules = pageRules.filter((r) => only.has(r.id))))
  return rules
}

/** Of a rule's marks on one page so many offer a repair: further ones are offered once these are mended. */
const MOST_REPAIRS = 100

export interface AuditOptions {
  date: string
  keywords?: Keywords | null
  /** What is known of a page that was taken from a sheet; all of it when left out. */
  known?: ReadonlySet<Need>
  baseKnown?: boolean
  /** Only these rules; the whole catalogue when left out. */
  only?: ReadonlySet<string>
}

/** All marks of one page that its own facts give, in document order, marks on the page as a whole first. */
export function auditPage(
  page: PageFacts,
  site: SiteIndex,
  houseStyle: HouseStyle,
  options: AuditOptions,
): Mark[] {
  const style = styleFor(houseStyle, page.url)
  const { date, keywords = null, known, baseKnown = true, only } = options
  const measured: Partial<Record<Role, Measured | null>> = {}
  let placed: Placed | null | undefined
  const context: PageCheck = {
    page,
    site,
    style,
    date,
    keywords,
    primary: keywords?.primary ? compileKeyword(keywords.primary, page.lang ?? style.language) : null,
    baseKnown,
    placed() {
      const { primary } = context
      if (placed !== undefined) return placed
      if (primary === null) return (placed = null)
      const hits = hitsOf(page.main.text, primary)
      return (placed = {
        matches: matchesAmong(hits, primary).length,
        words: primary.stems.length,
        hits,
      })
    },
    measured(role) {
      if (measured[role] === undefined) {
        const text = role === 'title' ? titleOf(page)?.text : descriptionOf(page)?.content
        measured[role] = text ? measure(text, role, style.slots) : null
      }
      return measured[role]!
    },
  }
  const marks: Mark[] = []
  const silenced = new Set<string>()
  let rule: PageRule
  let severity: Severity
  let before = 0
  const mark: MarkPage = (place, values, repair) =>
    marks.push({
      rule: rule.id,
      severity: style.rules[rule.id] === undefined && rule.weigh ? rule.weigh(values) : severity,
      message: rule.message(values),
      start: place?.start ?? null,
      end: place?.end ?? null,
      values,
      repair: repair && marks.length - before < MOST_REPAIRS ? repair : null,
    })
  for (rule of only ? rulesAmong(only) : pageRules) {
    const ruleSeverity = severityOf(rule, style)
    if (ruleSeverity === null || silenced.has(rule.id)) continue
    if (known && !rule.needs.every((n) => known.has(n))) continue
    severity = ruleSeverity
    before = marks.length
    rule.check(context, mark)
    if (marks.length > before) for (const id of rule.silences ?? []) silenced.add(id)
  }
  return marks.sort((a, b) => (a.start ?? -1) - (b.start ?? -1))
}

/** All marks on the site as a whole, each naming its pages, in the order of the catalogue. */
export function auditSite(
  site: SiteIndex,
  style: HouseStyle,
  date: string,
  only?: ReadonlySet<string>,
): SiteMark[] {
  const marks: SiteMark[] = []
  for (const rule of siteRules) {
    const severity = severityOf(rule, style)
    if (severity === null || (only && !only.has(rule.id))) continue
    const asked = (id: PageId) => severityOf(rule, styleFor(style, site.entries.get(id)!.url)) !== null
    rule.check({ site, style, date }, (named, values) => {
      const pages = style.addresses.length === 0 ? named : named.filter(asked)
      if (pages.length > 0)
        marks.push({ rule: rule.id, severity, message: rule.message(values), pages, values })
    })
  }
  return marks
}
