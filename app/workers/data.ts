/** What the Data sheet shows of a page: its things as an editor reads them, what results can use, what it can be built as. */
import type { Decisions } from '../../core/exchange/work.ts'
import { draftOf } from '../../core/exchange/work.ts'
import type { Edit, TargetKey } from '../../core/page/draft.ts'
import type { PageFacts } from '../../core/page/facts.ts'
import { lineAndColumn, lineStarts } from '../../core/page/places.ts'
import { applyDraft, type Proof } from '../../core/page/proof.ts'
import { readPage } from '../../core/page/read-page.ts'
import { sourceOf, type Source } from '../../core/page/source.ts'
import { blockKey, sourceBytes } from '../../core/rules/resolve.ts'
import { auditPage } from '../../core/rules/runner.ts'
import { ruleOf } from '../../core/rules/runner.ts'
import { build, offersOf, type BuildKind, type Offer } from '../../core/structured-data/build.ts'
import { pretty } from '../../core/structured-data/edit-json.ts'
import { askedOf, featuresOf, inWords, type Addition } from '../../core/structured-data/features.ts'
import { currencyCodes } from '../../core/structured-data/formats.ts'
import { linksOf } from '../../core/structured-data/follow.ts'
import { isEnumeration, thingRanges } from '../../core/structured-data/judge.ts'
import { pointerAt } from '../../core/structured-data/json.ts'
import {
  dataOf,
  schemaTypes,
  textOf,
  valueText,
  type PageData,
  type Thing,
  type Value,
} from '../../core/structured-data/read.ts'
import { siteSideOf } from '../../core/structured-data/site-side.ts'
import {
  classNames,
  isA,
  isClass,
  membersOf,
  propertiesOf,
  rangesOf,
  replacementOf,
} from '../../core/structured-data/vocabulary.ts'
import { addressesFor, proofFor, siteNameOf } from './evaluate.ts'
import { current, sourceFor, type Open } from './open-site.ts'

/** With what a field is filled in. */
export type Control =
  | 'text'
  | 'long'
  | 'number'
  | 'yes-no'
  | 'date'
  | 'time'
  | 'duration'
  | 'address'
  | 'image'
  | 'currency'
  | 'choice'
  | 'thing'
export interface FieldKind {
  name: string
  control: Control
  /** Members of an enumeration. */
  choices: string[]
  /** Classes of things that it leads to. */
  things: string[]
  /** Whether text will do where things are taken as well. */
  text: boolean
}
export interface ValueView {
  pointer: string
  kind: Value['kind']
  text: string
  /** The literal is a number or true or false, and stays one. */
  json: 'string' | 'number' | 'boolean'
  thing: ThingView | null
  /** Where on the page it was found, in words; and whether it follows. */
  found: { what: string; start: number | null; line: number | null } | null
}
export interface FieldView extends FieldKind {
  pointer: string
  key: string
  reverse: boolean
  values: ValueView[]
  asked: 'required' | 'recommended' | null
  list: boolean
}
export interface ThingView {
  pointer: string
  start: number
  types: string[]
  id: string | null
  name: string | null
  fields: FieldView[]
  /** What a thing that says nothing yet is begun with. */
  begin: FieldKind[]
  /** Asked for by a feature and not there. */
  missing: (FieldKind & { asked: 'required' | 'recommended'; or: string[] })[]
}
export interface FeatureView {
  id: string
  name: string
  pointer: string
  eligible: boolean
  missing: string[]
  recommended: string[]
  adds: Addition[]
  retired: string | null
}
export interface BlockView {
  key: TargetKey
  line: number
  start: number
  json: string
  jsonStart: number
  error: { message: string; line: number; column: number } | null
  /** No context that is schema.org's: listed and left alone. */
  foreign: boolean
  things: ThingView[]
  features: FeatureView[]
  /** What it was built as from the page. */
  built: string | null
}
export interface SiteThingView {
  id: string
  name: string
  types: string[]
}
export interface DataView {
  blocks: BlockView[]
  inline: { microdata: boolean; rdfa: boolean }
  offers: Offer[]
  /** Things of the site that can be pointed to. */
  siteThings: SiteThingView[]
  images: string[]
  url: string
}

const long = new Set([
  'description',
  'text',
  'articleBody',
  'reviewBody',
  'abstract',
  'disambiguatingDescription',
  'recipeInstructions',
  'responsibilities',
  'qualifications',
])

/** With what a property is filled in, by what it takes. */
export function fieldKind(name: string): FieldKind {
  const ranges = rangesOf(name)
  const has = (r: string) => ranges.includes(r)
  const enumerations = ranges.filter(isEnumeration)
  const things = thingRanges(name).filter((t) => t !== 'Role')
  const text = ranges.length === 0 || ranges.some((r) => isA(r, 'Text') && r !== 'URL')
  const control: Control =
    name === 'priceCurrency' || name === 'currency'
      ? 'currency'
      : enumerations.length > 0
        ? 'choice'
        : has('Duration')
          ? 'duration'
          : has('Date') || has('DateTime')
            ? 'date'
            : has('Time')
              ? 'time'
              : has('Boolean')
                ? 'yes-no'
                : things.includes('ImageObject')
                  ? 'image'
                  : has('Number') || has('Integer') || has('Float')
                    ? 'number'
                    : has('URL')
                      ? things.length > 0 && !text && !has('URL')
                        ? 'thing'
                        : 'address'
                      : things.length > 0 && !text
                        ? 'thing'
                        : things.length > 0 &&
                            [
                              'address',
                              'location',
                              'offers',
                              'author',
                              'mainEntity',
                              'acceptedAnswer',
                              'recipeInstructions',
                            ].includes(name)
                          ? 'thing'
                          : long.has(name)
                            ? 'long'
                            : 'text'
  return {
    name,
    control,
    choices: enumerations.flatMap((e) => [...membersOf(e)]),
    things: sortThings(things),
    text: text || has('URL'),
  }
}
/** The classes that a page most likely means come first. */
const likely = [
  'Person',
  'Organization',
  'Place',
  'PostalAddress',
  'Offer',
  'Brand',
  'Question',
  'Answer',
  'HowToStep',
  'ListItem',
  'ImageObject',
]
const sortThings = (things: string[]) =>
  [...things].sort((a, b) => ((likely.indexOf(a) + 99) % 99) - ((likely.indexOf(b) + 99) % 99))

interface Looked {
  open: Open
  source: Source
  proof: Proof
  page: PageFacts
}
async function lookAt(path: string, decisions: Decisions): Promise<Looked | null> {
  const open = current
  const source = open && (await sourceFor(open, path))
  if (!source) return null
  const { url } = addressesFor(path, open.setting)
  const proof = proofFor(path, source, decisions, open.setting)
  return { open, source, proof, page: readPage(proof.source, { path, url, main: open.setting.style.main }) }
}

const sideOf = ({ open: { setting }, page }: Looked) => siteSideOf(page, setting.index, siteNameOf(setting))
const languageOf = ({ open }: Looked) => open.setting.style.language ?? 'en'

export async function dataView(path: string, decisions: Decisions): Promise<DataView | null> {
  const looked = await lookAt(path, decisions)
  if (!looked) return null
  const { open, proof, page } = looked
  const { text } = proof.source
  const data = dataOf(page)
  const starts = lineStarts(text)
  const draft = draftOf(decisions)
  const states = featuresOf(data)
  const ids = new Map<string, SiteThingView>()
  for (const id of open.setting.index.withThings)
    for (const t of open.setting.index.entries.get(id)!.things!.things)
      if (t.id !== null && !t.id.startsWith('_:') && t.name !== null && !ids.has(t.id))
        ids.set(t.id, { id: t.id, name: t.name, types: t.types })
  return {
    blocks: page.data.map((block, i): BlockView => {
      const { json, error, roots, unknown } = data.blocks[i]!
      const key = blockKey(proof, block.start)
      const edit: Edit | undefined = draft[key]
      const pointer = (start: number) => (json ? pointerAt(json, start - block.jsonStart) : '')
      const foundAt = foundValues(looked, edit, text, starts)
      return {
        key,
        line: lineAndColumn(starts, block.start).line,
        start: block.start,
        json: block.json,
        jsonStart: block.jsonStart,
        error: error
          ? { message: error.message, ...lineAndColumn(lineStarts(block.json), error.at - block.jsonStart) }
          : null,
        foreign: !error && unknown.length > 0 && roots.length === 0,
        things: roots.map((t) => thingView(t, data, pointer, foundAt, new Set())),
        features: states
          .filter((s) => s.thing.block === i)
          .map(({ feature, thing, eligible, missing, recommended }) => ({
            id: feature.id,
            name: feature.name,
            pointer: pointer(thing.start),
            eligible,
            missing: missing.map((l) => inWords(l.path)),
            recommended: recommended.map((l) => inWords(l.path)),
            adds: feature.adds,
            retired: feature.retired ? `${feature.retired.now} Since ${feature.retired.since}.` : null,
          })),
        built: edit?.built?.kind ?? null,
      }
    }),
    inline: page.inline,
    offers: offersOf(page, text, sideOf(looked), languageOf(looked)),
    siteThings: [...ids.values()].sort((a, b) => (a.name < b.name ? -1 : 1)).slice(0, 300),
    images: [
      ...new Set(
        page.images.flatMap((m) => (m.src === '' || m.src.startsWith('data:') ? [] : [resolve(m.src, page)])),
      ),
    ],
    url: page.url,
  }
}
const resolve = (src: string, page: PageFacts): string => {
  try {
    return new URL(src, page.base === null ? page.url : new URL(page.base, page.url)).href
  } catch {
    return src
  }
}

/** What is said first of a thing, where it is not its name. */
const first: [string, string[]][] = [
  ['Answer', ['text']],
  ['HowToStep', ['text']],
  ['Offer', ['price', 'priceCurrency', 'availability']],
  ['PostalAddress', ['streetAddress', 'addressLocality', 'postalCode', 'addressCountry']],
  ['GeoCoordinates', ['latitude', 'longitude']],
  ['MonetaryAmount', ['value', 'currency']],
  ['QuantitativeValue', ['value', 'unitText']],
  ['AggregateRating', ['ratingValue', 'ratingCount']],
  ['Rating', ['ratingValue']],
  ['OpeningHoursSpecification', ['dayOfWeek', 'opens', 'closes']],
  ['ImageObject', ['url']],
  ['ListItem', ['position', 'name', 'item']],
]
const beginWith = (types: string[]): string[] =>
  first.find(([type]) => types.some((t) => isA(t, type)))?.[1] ?? ['name']

type FoundAt = (pointer: string) => ValueView['found']
/** Where the values of a block that was built stand on the page now. */
function foundValues(looked: Looked, edit: Edit | undefined, text: string, starts: number[]): FoundAt {
  if (!edit?.built) return () => null
  const built = build(edit.built.kind as BuildKind, looked.page, text, sideOf(looked), languageOf(looked))
  const byLink = new Map(
    Object.entries(linksOf(built, (s) => sourceBytes(looked.proof, [s])[0]!).links).map(([pointer, link]) => [
      link,
      built.found.find((f) => f.pointer === pointer)!,
    ]),
  )
  return (pointer) => {
    const link = edit.built!.links[pointer]
    const found = link === undefined ? undefined : byLink.get(link)
    return found
      ? {
          what: found.what,
          start: found.start,
          line: found.start === null ? null : lineAndColumn(starts, found.start).line,
        }
      : null
  }
}

function thingView(
  thing: Thing,
  data: PageData,
  pointer: (start: number) => string,
  foundAt: FoundAt,
  above: Set<Thing>,
): ThingView {
  const types = thing.types.map((t) => t.name)
  const asked = askedOf(
    schemaTypes(thing).filter(isClass),
    thing.within && { property: thing.within.property.name, types: schemaTypes(thing.within.thing) },
  )
  const kindOf = (name: string) => {
    const of = asked.filter((a) => a.anyOf.includes(name))
    return of.some((a) => a.kind === 'required') ? 'required' : of.length > 0 ? 'recommended' : null
  }
  const within = new Set([...above, thing])
  const at = pointer(thing.start)
  const fields = thing.properties.map((property): FieldView => {
    const under = pointer(property.at.start)
    return {
      ...fieldKind(property.name),
      pointer: under,
      key: property.key,
      reverse: property.reverse,
      asked: kindOf(property.name),
      list:
        property.values.length > 1 ||
        pointer(property.under.start) !==
          (property.values[0] ? pointer(property.values[0].start) : pointer(property.under.start)),
      values: property.values.map((value): ValueView => {
        const own = pointer(value.start)
        return {
          pointer: own,
          kind: value.kind,
          text:
            value.kind === 'reference'
              ? value.id
              : value.kind === 'literal'
                ? String(value.value)
                : (valueText(value, data) ?? ''),
          json:
            value.kind === 'literal' && typeof value.value !== 'string'
              ? (typeof value.value as 'number' | 'boolean')
              : 'string',
          thing:
            value.kind === 'thing' && !within.has(value.thing) && within.size < 12
              ? thingView(value.thing, data, pointer, foundAt, within)
              : null,
          found: foundAt(own),
        }
      }),
    }
  })
  const used = new Set(thing.properties.map((p) => p.name))
  // Of several that will do, the first is asked for, and the others named beside it.
  const missing = asked
    .filter((a) => !a.anyOf.some((name) => used.has(name)))
    .map(({ kind, anyOf: [name, ...or] }) => ({ ...fieldKind(name!), asked: kind, or }))
    .filter((m, i, all) => all.findIndex((o) => o.name === m.name) === i)
  return {
    pointer: at,
    start: thing.start,
    types,
    id: thing.id,
    name: textOf(thing, 'name', data) ?? textOf(thing, 'headline', data) ?? textOf(thing, 'title', data),
    fields,
    begin: fields.length > 0 ? [] : beginWith(types).map(fieldKind),
    missing,
  }
}

/** A block built from the page as its draft leaves it: JSON, and what of it follows the page. */
export async function buildData(
  path: string,
  decisions: Decisions,
  kind: BuildKind,
): Promise<{ value: string; built: NonNullable<Edit['built']>; open: string[] } | null> {
  const looked = await lookAt(path, decisions)
  if (!looked) return null
  const { proof, page } = looked
  const built = build(kind, page, proof.source.text, sideOf(looked), languageOf(looked))
  const asked = askedOf([String(built.data['@type'])], null)
  return {
    value: pretty(built.data),
    built: linksOf(built, (start) => sourceBytes(proof, [start])[0]!),
    open: asked.flatMap((a) => (a.anyOf.some((p) => built.data[p] !== undefined) ? [] : [a.anyOf[0]!])),
  }
}

/** What the page's microdata and RDFa describe, and the same as one JSON-LD text; null where nothing could be read. */
export async function inlineData(
  path: string,
  decisions: Decisions,
): Promise<{ microdata: ThingView[]; rdfa: ThingView[]; json: string } | null> {
  const looked = await lookAt(path, decisions)
  if (!looked) return null
  const { page, proof } = looked
  if (!page.inline.microdata && !page.inline.rdfa) return null
  const { inlineThings } = await import('../../core/structured-data/inline.ts')
  const found = await inlineThings(proof.source.text, page.url, page.inline)
  const viewsOf = (things: Record<string, unknown>[]): ThingView[] => {
    const json = JSON.stringify({ '@context': 'https://schema.org', '@graph': things })
    const blank = readPage(sourceOf(new Uint8Array(), 'utf-8', 'bom', 0), { path, url: page.url })
    blank.data.push({ json, jsonStart: 0, start: 0, end: 0 })
    const data = dataOf(blank)
    return data.roots.map((t) =>
      thingView(
        t,
        data,
        () => '',
        () => null,
        new Set(),
      ),
    )
  }
  const all = [...found.microdata, ...found.rdfa]
  return {
    microdata: viewsOf(found.microdata),
    rdfa: viewsOf(found.rdfa),
    json: pretty(
      all.length === 1
        ? { '@context': 'https://schema.org', ...all[0] }
        : { '@context': 'https://schema.org', '@graph': all },
    ),
  }
}

export interface PropertyChoice extends FieldKind {
  description: string
}
let descriptions: Promise<Record<string, string>> | null = null
const loadDescriptions = () =>
  (descriptions ??= import('../../core/structured-data/vocabulary-descriptions.generated.json').then(
    (m) => m.default as Record<string, string>,
  ))

/** The vocabulary is written in American English; editors need not. */
const american = (words: string): string =>
  words
    .replace(/our\b/g, 'or')
    .replace(/is(e[sd]?|ing|ations?)\b/g, 'iz$1')
    .replace(/tre\b/g, 'ter')
    .replace(/logue\b/g, 'log')

/** Terms by name and by what schema.org says of them, the best first, at most 40; superseded ones are not found. */
async function searchTerms(
  names: readonly string[],
  words: string,
): Promise<{ name: string; description: string }[]> {
  const all = await loadDescriptions()
  const asked = [...new Set([words, american(words)].map((w) => w.trim().toLowerCase()))]
  const rankOf = (name: string): number => {
    if (asked[0] === '') return 3
    const lower = name.toLowerCase()
    return Math.min(
      ...asked.map((w) => {
        const joined = w.replace(/\s+/g, '')
        if (lower === joined) return 0
        if (lower.startsWith(joined)) return 1
        if (lower.includes(joined)) return 2
        return (all[name] ?? '').toLowerCase().includes(w) ? 3 : 4
      }),
    )
  }
  return names
    .filter((name) => replacementOf(name) === null)
    .map((name) => ({ name, rank: rankOf(name) }))
    .filter(({ rank }) => rank < 4)
    .sort((a, b) => a.rank - b.rank || (a.name < b.name ? -1 : 1))
    .slice(0, 40)
    .map(({ name }) => ({ name, description: all[name] ?? '' }))
}

/** Properties that things of these types may have. */
export async function searchProperties(types: string[], words: string): Promise<PropertyChoice[]> {
  const own = new Set(types.filter(isClass).flatMap((t) => [...propertiesOf(t)]))
  return (await searchTerms([...own], words)).map((found) => ({ ...fieldKind(found.name), ...found }))
}

export const searchTypes = (words: string): Promise<{ name: string; description: string }[]> =>
  searchTerms(classNames(), words)

/** What schema.org says of a term, its first sentence. */
export async function describeTerm(name: string): Promise<string> {
  const text = (await loadDescriptions())[name] ?? ''
  return /^.*?[.!?](?=\s|$)/.exec(text)?.[0] ?? text
}
export const currencies = (): readonly string[] => currencyCodes

/** A block that is put into many pages, previewed: what each would describe, and the marks that it would bring. */
export interface SpreadPage {
  path: string
  name: string
  json: string
  /** The same in words. */
  says: string
  /** Names of marks that the page's data would have and has not now. */
  marks: string[]
  /** Why the page is passed over; null where it is not. */
  skipped: string | null
  edit: Edit | null
}
/** What can be said of every page in one step: its breadcrumb; or who publishes it, the organisation being described on the home page. */
export type Spread = 'breadcrumb' | 'organisation'
export const spreadKey = (kind: Spread): TargetKey => `data:${kind}`

/** What one kind of data for every page would be, for some of the pages. `decisionsOf` holds what was decided, by path. */
export async function spreadPreview(
  kind: Spread,
  decisionsOf: Record<string, Decisions>,
  paths: string[],
): Promise<SpreadPage[]> {
  const open = current
  if (!open) return []
  const out: SpreadPage[] = []
  for (const path of paths) {
    const decisions = decisionsOf[path] ?? {}
    const looked = await lookAt(path, decisions)
    if (!looked) continue
    const { page, proof, source } = looked
    const things = dataOf(page).things
    const row = open.rows.get(path)
    const name = row?.h1 ?? row?.title ?? path
    const skip = (why: string) =>
      out.push({ path, name, json: '', says: '', marks: [], skipped: why, edit: null })
    const side = sideOf(looked)
    const isHome = page.url === side.base
    const has = (type: string) => things.some((t) => schemaTypes(t).some((n) => isA(n, type)))
    if (kind === 'breadcrumb' && has('BreadcrumbList')) skip('It has a breadcrumb.')
    else if (kind === 'breadcrumb' && side.trail.length < 2) skip('It is the home page.')
    else if (kind === 'organisation' && things.some((t) => t.properties.some((p) => p.name === 'publisher')))
      skip('It says who publishes it.')
    else if (kind === 'organisation' && isHome && side.organisation !== null)
      skip('It describes the organisation.')
    else {
      const type: BuildKind = kind === 'breadcrumb' ? 'BreadcrumbList' : isHome ? 'Organization' : 'WebPage'
      // The home page is given the organisation in the same step.
      const given = { ...side, organisation: side.organisation ?? `${side.base}#organisation` }
      const built = build(type, page, proof.source.text, given, languageOf(looked))
      const edit: Edit = {
        value: pretty(built.data),
        built: linksOf(built, (s) => sourceBytes(proof, [s])[0]!),
      }
      const after = applyDraft(source, { ...draftOf(decisions), [spreadKey(kind)]: edit })
      const judged = readPage(after.source, { path, url: page.url, main: open.setting.style.main })
      const rulesOf = (p: PageFacts) =>
        auditPage(p, open.setting.index, open.setting.style, { date: open.setting.date })
          .map((m) => m.rule)
          .filter((rule) => ruleOf(rule).family === 'data')
      const more = rulesOf(judged)
      for (const rule of rulesOf(page)) if (more.includes(rule)) more.splice(more.indexOf(rule), 1)
      out.push({
        path,
        name,
        json: edit.value!,
        says:
          kind === 'breadcrumb'
            ? side.trail.map((t) => t.name).join(' › ')
            : isHome
              ? `The organisation: ${side.name ?? name}`
              : `Published by ${side.name ?? 'the organisation'}`,
        marks: [...new Set(more)].map((r) => ruleOf(r).name),
        skipped: null,
        edit,
      })
    }
  }
  return out
}

/** Everything that the site's pages describe, for the table and the graph. */
export interface SiteDataView {
  pages: { path: string; name: string; types: string[]; none: boolean }[]
  things: { id: string; name: string | null; types: string[]; pages: string[]; conflicts: boolean }[]
  /** Between things by `@id`; `to` may be described nowhere. */
  links: { from: string; property: string; to: string; pages: number; dangling: boolean }[]
}
export async function siteData(): Promise<SiteDataView> {
  const open = current
  if (!open) return { pages: [], things: [], links: [] }
  const { index } = open.setting
  const things = new Map<string, SiteDataView['things'][number]>()
  const links = new Map<string, SiteDataView['links'][number]>()
  const conflicts = new Set(
    open.siteMarks.filter((m) => m.rule === 'data-conflict').map((m) => String(m.values.what)),
  )
  const dangling = new Set(
    open.siteMarks.filter((m) => m.rule === 'data-dangling').map((m) => String(m.values.id)),
  )
  const label = (path: string) => open.rows.get(path)?.h1 ?? open.rows.get(path)?.title ?? path
  const pages: SiteDataView['pages'] = []
  for (const [path, entry] of [...index.entries].sort(([a], [b]) => (a < b ? -1 : 1))) {
    const own = entry.things?.things ?? []
    pages.push({
      path,
      name: label(path),
      types: [...new Set(own.flatMap((t) => t.types))],
      none: own.length === 0,
    })
    const nodeOf = (i: number) => own[i]!.id ?? `page:${path} ${i}`
    own.forEach((t, i) => {
      const id = nodeOf(i)
      const before = things.get(id)
      if (before) {
        if (!before.pages.includes(path)) before.pages.push(path)
        before.name ??= t.name
        for (const type of t.types) if (!before.types.includes(type)) before.types.push(type)
      } else
        things.set(id, {
          id,
          name: t.name ?? (t.id === null ? label(path) : null),
          types: [...t.types],
          pages: [path],
          conflicts: conflicts.has(t.id ?? ''),
        })
    })
    for (const { from, property, to } of entry.things?.links ?? []) {
      const target = typeof to === 'number' ? nodeOf(to) : to
      const source = nodeOf(from)
      if (source === target) continue
      const key = `${source} ${property} ${target}`
      const link = links.get(key)
      if (link) link.pages++
      else links.set(key, { from: source, property, to: target, pages: 1, dangling: dangling.has(target) })
    }
  }
  return { pages, things: [...things.values()], links: [...links.values()] }
}
