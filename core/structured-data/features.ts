/** What a results page can make of the things that a page describes: what each feature asks for, and what is missing. */
import { rememberLast } from '../remember.ts'
import table from './features.json' with { type: 'json' }
import { schemaTypes, thingsUnder, type PageData, type Thing } from './page-data.ts'
import { isA } from './vocabulary.ts'

/** What eligible data may add to a result. */
export type Addition = 'date' | 'rating' | 'price' | 'trail' | 'questions'

interface Requirement {
  types: string[]
  unless?: string[]
  /** Property names; `a|b` where one of several is enough, `a.b` for what stands within. */
  required: string[]
  recommended: string[]
  nested?: (Requirement & { under: string })[]
}
export interface Feature extends Requirement {
  id: string
  name: string
  /** It counts wherever the thing stands, not at the top alone. */
  anywhere?: boolean
  /** Required where the thing does not hang on another. */
  alone?: string[]
  adds: Addition[]
  retired?: { since: string; scope: 'limited' | 'gone'; now: string }
}
const { features } = table as unknown as { features: Feature[] }
export { features }

/** One property that a feature asks for and that is not there; `on` is the thing that lacks it. */
export interface Lack {
  on: Thing
  /** From the thing that the feature is about: `offers.price|offers.priceSpecification`. */
  path: string
}
export interface FeatureState {
  feature: Feature
  thing: Thing
  missing: Lack[]
  recommended: Lack[]
  eligible: boolean
}

/** Properties through which a page names what it is about, rather than what that has to do with. */
const leadsToMain = new Set([
  'mainEntity',
  'hasPart',
  'itemListElement',
  'item',
  'about',
  'hasVariant',
  'mentions',
  'subjectOf',
  'mainEntityOfPage',
])
const containers = ['WebPage', 'ItemList', 'ListItem', 'WebSite', 'CreativeWork', 'ProductGroup']
/** Whether a thing stands for itself on its page: at the top, or as what the page above it is about. */
export function standsAlone(thing: Thing): boolean {
  let at: Thing | null = thing
  while (at?.within) {
    const { thing: above, property }: NonNullable<Thing['within']> = at.within
    if (property.reverse || !leadsToMain.has(property.name)) return false
    if (!schemaTypes(above).some((t) => containers.some((c) => isA(t, c)))) return false
    at = above
  }
  return true
}

const isOf = (thing: Thing, { types, unless }: Pick<Requirement, 'types' | 'unless'>): boolean => {
  const thingTypes = schemaTypes(thing)
  return (
    thingTypes.some((t) => types.some((type) => isA(t, type))) &&
    !thingTypes.some((t) => unless?.some((u) => isA(t, u)))
  )
}

const split = new Map<string, string[]>()
function alternatives(asked: string): string[] {
  let all = split.get(asked)
  if (!all) split.set(asked, (all = asked.split('|')))
  return all
}

/** Whether a property, or what stands within it by a dotted path, has any value that is not empty. */
function hasValue(thing: Thing, path: string, data: PageData): boolean {
  if (!path.includes('.')) {
    for (const p of thing.properties)
      if (p.name === path && !p.reverse)
        for (const v of p.values) if (v.kind !== 'literal' || String(v.value).trim() !== '') return true
    return false
  }
  const [name, ...rest] = path.split('.')
  return thingsUnder(thing, name!, data).some((t) => hasValue(t, rest.join('.'), data))
}

function lacks(
  requirement: Requirement,
  thing: Thing,
  data: PageData,
  prefix: string,
  out: { missing: Lack[]; recommended: Lack[] },
): void {
  const full = (asked: string) =>
    prefix === ''
      ? asked
      : alternatives(asked)
          .map((p) => prefix + p)
          .join('|')
  for (const kind of ['required', 'recommended'] as const)
    for (const asked of requirement[kind])
      if (!alternatives(asked).some((p) => hasValue(thing, p, data)))
        out[kind === 'required' ? 'missing' : 'recommended'].push({ on: thing, path: full(asked) })
  for (const nested of requirement.nested ?? [])
    for (const inner of thingsUnder(thing, nested.under, data))
      if (inner !== thing && isOf(inner, nested)) lacks(nested, inner, data, `${prefix}${nested.under}.`, out)
}

/** Where a breadcrumb's entry leads nowhere: every entry but the last needs an address. */
function crumbsWithoutItem(thing: Thing, data: PageData): Lack[] {
  const entries = thingsUnder(thing, 'itemListElement', data)
  return entries
    .slice(0, -1)
    .flatMap((on) => (hasValue(on, 'item', data) ? [] : [{ on, path: 'itemListElement.item' }]))
}

const byTypes = new Map<string, Feature[]>()
/** The features that things of these types are candidates for. */
function candidates(thing: Thing): Feature[] {
  const key = thing.types.map((t) => t.name).join(' ')
  let fitting = byTypes.get(key)
  if (!fitting) {
    if (byTypes.size > 1000) byTypes.clear()
    byTypes.set(key, (fitting = features.filter((f) => isOf(thing, f))))
  }
  return fitting
}

/** The features that a page's things are candidates for, each with what is missing. A retired one that is gone asks for nothing. */
export const featuresOf = rememberLast((data: PageData): FeatureState[] => {
  const states: FeatureState[] = []
  for (const thing of data.things) {
    const possible = candidates(thing)
    if (possible.length === 0) continue
    const alone = standsAlone(thing)
    for (const feature of possible) {
      if (!alone && !feature.anywhere) continue
      const out: { missing: Lack[]; recommended: Lack[] } = { missing: [], recommended: [] }
      if (feature.retired?.scope !== 'gone') {
        lacks(feature, thing, data, '', out)
        if (alone && thing.within === null)
          for (const asked of feature.alone ?? [])
            if (!hasValue(thing, asked, data)) out.missing.push({ on: thing, path: asked })
        if (feature.id === 'BreadcrumbList') out.missing.push(...crumbsWithoutItem(thing, data))
      }
      states.push({
        feature,
        thing,
        ...out,
        eligible: out.missing.length === 0 && feature.retired?.scope !== 'gone',
      })
    }
  }
  return states
})

/** Properties of which one is asked for, of a thing of certain classes. */
export interface Asked {
  kind: 'required' | 'recommended'
  anyOf: string[]
}
/** What a thing of these classes is asked for by the features: by its own, or, where it hangs on another (of those types), by that one's. For a form. */
export function askedOf(types: string[], under: { property: string; types: string[] } | null): Asked[] {
  const asked = new Map<string, Asked>()
  const fits = (own: string[], r: Requirement) =>
    own.some((t) => r.types.some((c) => isA(t, c))) && !own.some((t) => r.unless?.some((u) => isA(t, u)))
  const take = (r: Requirement) => {
    for (const kind of ['required', 'recommended'] as const)
      for (const property of r[kind]) {
        const anyOf = [...new Set(property.split('|').map((p) => p.split('.')[0]!))]
        const key = anyOf.join('|')
        if (asked.get(key)?.kind !== 'required') asked.set(key, { kind, anyOf })
      }
  }
  const within = (r: Requirement) => {
    for (const n of r.nested ?? []) {
      if (n.under === under!.property && fits(under!.types, r) && fits(types, n)) take(n)
      within(n)
    }
  }
  for (const f of features) {
    if (f.retired?.scope === 'gone') continue
    if (fits(types, f) && (under === null || f.anywhere || leadsToMain.has(under.property))) take(f)
    if (under !== null) within(f)
  }
  return [...asked.values()].sort(
    (a, b) => Number(a.kind === 'recommended') - Number(b.kind === 'recommended'),
  )
}
