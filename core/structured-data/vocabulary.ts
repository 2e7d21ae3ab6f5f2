/**
 * schema.org's vocabulary: classes, properties and members, what they come from and what they take. The table is
 * schema.org's (CC BY-SA 3.0), a generated file of its own; inheritance is worked out here, once.
 */
import table from './vocabulary.generated.json' with { type: 'json' }

interface Any {
  /** Layer such as `pending`; the core vocabulary when left out. */
  l?: string
  /** The term that replaces it. */
  s?: string
}
export interface VocabularyTable {
  meta: { source: string; of: string; licence: string; note: string }
  /** Classes: parents; and what a class is a member of besides. */
  c: Record<string, Any & { u: string[]; m?: string[] }>
  /** Properties: domains, ranges, inverse, parents. */
  p: Record<string, Any & { d: string[]; r: string[]; i?: string; sp?: string[] }>
  /** Members of enumerations, by the enumerations they belong to. */
  e: Record<string, Any & { t: string[] }>
}
export type DescriptionTable = Record<string, string>

const { c, p, e } = table as unknown as VocabularyTable
const classes = new Map(Object.entries(c))
const properties = new Map(Object.entries(p))
const members = new Map(Object.entries(e))

export const isClass = (name: string): boolean => classes.has(name)
/** Every class, in alphabetical order. */
export const classNames = (): string[] => [...classes.keys()]
export const isProperty = (name: string): boolean => properties.has(name)
/** Whether a name is a member of an enumeration, as some classes are as well. */
export const isMember = (name: string): boolean =>
  members.has(name) || (classes.get(name)?.m?.length ?? 0) > 0

export interface TermInfo {
  id: string
  kind: 'class' | 'property' | 'member'
  parents: string[]
  /** Of a class: all that it may have, its own and inherited, in alphabetical order. */
  properties: string[]
  ranges: string[]
  domains: string[]
  /** Of an enumeration: its members. Of a member: the enumerations it belongs to are its parents. */
  members: string[]
  supersededBy: string | null
  layer: string | null
}

const ancestors = new Map<string, readonly string[]>()
/** A class and all that it comes from, itself first, nearest before farther; nothing for what is no class. */
export function lineage(name: string): readonly string[] {
  const known = ancestors.get(name)
  if (known) return known
  if (!isClass(name)) return []
  const seen = [name]
  for (let i = 0; i < seen.length; i++)
    for (const parent of classes.get(seen[i]!)?.u ?? []) if (!seen.includes(parent)) seen.push(parent)
  ancestors.set(name, seen)
  return seen
}

/** Whether a class is another, or comes from it. */
export const isA = (name: string, other: string): boolean => lineage(name).includes(other)

let byDomain: Map<string, string[]> | null = null
/** Properties whose domain is just this class. */
function ownProperties(name: string): readonly string[] {
  if (!byDomain) {
    byDomain = new Map()
    for (const [property, { d }] of properties)
      for (const domain of d) byDomain.set(domain, [...(byDomain.get(domain) ?? []), property])
  }
  return byDomain.get(name) ?? []
}

const ofClass = new Map<string, ReadonlySet<string>>()
/** Every property that a class may have: its own and those of all that it comes from. */
export function propertiesOf(name: string): ReadonlySet<string> {
  let all = ofClass.get(name)
  if (!all) ofClass.set(name, (all = new Set(lineage(name).flatMap(ownProperties))))
  return all
}

/** What a property takes, by class name; nothing for what is no property. */
export const rangesOf = (property: string): readonly string[] => properties.get(property)?.r ?? []
export const domainsOf = (property: string): readonly string[] => properties.get(property)?.d ?? []
const anyTerm = (name: string): Any | undefined =>
  classes.get(name) ?? properties.get(name) ?? members.get(name)
/** The term that replaces a superseded one, followed to the end; null for one that still holds. */
export function replacementOf(name: string): string | null {
  let next = anyTerm(name)?.s
  if (next === undefined) return null
  const seen = new Set([name])
  while (next !== undefined && !seen.has(next)) {
    seen.add(next)
    const further: string | undefined = anyTerm(next)?.s
    if (further === undefined) return next
    next = further
  }
  return next ?? null
}

let ofAddress: Set<string> | null = null
/** Properties whose value is an address and never text: in schema.org's own context a string there is an `@id`. */
export function propertiesOfAddress(): ReadonlySet<string> {
  ofAddress ??= new Set(
    [...properties].flatMap(([name, { r }]) => (r.includes('URL') && !r.includes('Text') ? [name] : [])),
  )
  return ofAddress
}

let byEnumeration: Map<string, string[]> | null = null
/** Members of an enumeration and of those that come from it. */
export function membersOf(enumeration: string): readonly string[] {
  if (!byEnumeration) {
    byEnumeration = new Map()
    const note = (name: string, of: readonly string[]) => {
      for (const owner of new Set(of.flatMap(lineage)))
        byEnumeration!.set(owner, [...(byEnumeration!.get(owner) ?? []), name])
    }
    for (const [name, { t }] of members) note(name, t)
    for (const [name, { m }] of classes) if (m) note(name, m)
    for (const list of byEnumeration.values()) list.sort()
  }
  return byEnumeration.get(enumeration) ?? []
}

/** What is known of a term; names keep their case, since some differ by nothing else. Null for one that is not there. */
export function termOf(name: string): TermInfo | null {
  const c = classes.get(name)
  const p = properties.get(name)
  const e = members.get(name)
  const term = c ?? p ?? e
  if (!term) return null
  return {
    id: name,
    kind: c ? 'class' : p ? 'property' : 'member',
    parents: [...(c?.u ?? p?.sp ?? e?.t ?? [])],
    properties: c ? [...propertiesOf(name)].sort() : [],
    ranges: [...(p?.r ?? [])],
    domains: [...(p?.d ?? [])],
    members: c ? [...membersOf(name)] : [],
    supersededBy: replacementOf(name),
    layer: term.l ?? null,
  }
}

/** How many single letters must change, come, go or change places to make one word of another; stops counting above `most`. */
export function distance(a: string, b: string, most: number): number {
  if (Math.abs(a.length - b.length) > most) return most + 1
  let before: number[] = []
  let row = Array.from({ length: b.length + 1 }, (_, j) => j)
  for (let i = 1; i <= a.length; i++) {
    const next = [i]
    for (let j = 1; j <= b.length; j++) {
      let cost = Math.min(row[j]! + 1, next[j - 1]! + 1, row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1))
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        cost = Math.min(cost, before[j - 2]! + 1)
      next.push(cost)
    }
    if (Math.min(...next) > most) return most + 1
    before = row
    row = next
  }
  return row[b.length]!
}

/** A longer name than this is no slip of the pen: schema.org's longest has 44 letters. */
const LONGEST_NAME = 60

/** The terms whose names are nearest to one that is not there, at most three: another case first, then a letter or two. */
export function nearestTerms(name: string, kind: 'class' | 'property' | 'member'): readonly string[] {
  if (name.length > LONGEST_NAME) return []
  const key = `${kind} ${name}`
  let nearestNames = nearest.get(key)
  if (!nearestNames) {
    // A mistake on a template is made on every page: what was found is kept, for a while.
    if (nearest.size > 500) nearest.clear()
    nearest.set(key, (nearestNames = findNearest(name, kind)))
  }
  return nearestNames
}
const nearest = new Map<string, readonly string[]>()

function findNearest(name: string, kind: 'class' | 'property' | 'member'): string[] {
  const names = [...(kind === 'class' ? classes : kind === 'property' ? properties : members).keys()]
  const lower = name.toLowerCase()
  const most = name.length < 5 ? 1 : name.length < 12 ? 2 : 3
  return names
    .map((n) => ({ n, d: n.toLowerCase() === lower ? 0 : distance(lower, n.toLowerCase(), most) }))
    .filter(({ d }) => d <= most)
    .sort((a, b) => a.d - b.d || (a.n < b.n ? -1 : 1))
    .slice(0, 3)
    .map(({ n }) => n)
}
