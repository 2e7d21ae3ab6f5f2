/** The shipped schema.org table: what its package gives, and what the independent package schema-dts says of the same terms. */
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import table from '../../core/structured-data/vocabulary.generated.json' with { type: 'json' }
import { vocabularyTables } from '../../scripts/generate-vocabulary.ts'
import {
  isA,
  isMember,
  lineage,
  membersOf,
  nearestTerms,
  propertiesOf,
  replacementOf,
  termOf,
  type VocabularyTable,
} from '../../core/structured-data/vocabulary.ts'
import { readSchemaDts } from '../fixtures/schema-dts.ts'

const ours = table as unknown as VocabularyTable
const other = readSchemaDts()
const same = (a: readonly string[], b: readonly string[]) =>
  JSON.stringify([...a].sort()) === JSON.stringify([...b].sort())

describe('the vocabulary table', () => {
  it('is what its package gives, whole', () => {
    const { table: made, descriptions } = vocabularyTables()
    expect(ours).toEqual(made)
    expect(
      JSON.parse(readFileSync('core/structured-data/vocabulary-descriptions.generated.json', 'utf8')),
    ).toEqual(descriptions)
    // The figures found when the source was chosen.
    expect(Object.keys(ours.c)).toHaveLength(950)
    expect(Object.keys(ours.p)).toHaveLength(1520)
    const both = Object.values(ours.c).filter((c) => c.m).length
    expect(Object.keys(ours.e).length + both).toBe(520)
    const all = [...Object.values(ours.c), ...Object.values(ours.p), ...Object.values(ours.e)]
    expect(all.filter((t) => t.s)).toHaveLength(82)
    for (const name of [...Object.keys(ours.c), ...Object.keys(ours.p), ...Object.keys(ours.e)])
      expect(descriptions[name], name).toMatch(/\S/)
  })
  it('names only terms that it has', () => {
    const known = new Set([...Object.keys(ours.c), ...Object.keys(ours.p), ...Object.keys(ours.e)])
    for (const { u, m, s } of Object.values(ours.c))
      for (const n of [...u, ...(m ?? []), ...(s ? [s] : [])]) expect(known.has(n), n).toBe(true)
    for (const { d, r, i, sp, s } of Object.values(ours.p))
      for (const n of [...d, ...r, ...(sp ?? []), ...(i ? [i] : []), ...(s ? [s] : [])])
        expect(known.has(n), n).toBe(true)
  })
})

/**
 * schema-dts 2.1.0 follows a newer release of schema.org: it has Credential between a certificate and its creative work,
 * further properties, and domains and ranges that were added; and it keeps a few retired terms. Nothing else differs.
 */
const NEWER = {
  parents: ['EducationalOccupationalCredential: CreativeWork / Credential'],
  properties: [
    'credentialCategory',
    'floorLevel',
    'hasCredential',
    'previousStartDate',
    'provider',
    'qualifications',
    'recognizedBy',
    'suitableForDiet',
    'validFor',
    'validIn',
    'value',
    'variesBy',
  ],
}
/** Properties that schema-dts still gives to classes which schema.org has taken out: those names lead nowhere in our table. */
const RETIRED = ['deliveryTime', 'isUnlabelledFallback', 'shippingDestination']
/** Data types are values to schema-dts and have no parents to compare. */
const VALUES = ['Boolean', 'Date', 'DateTime', 'Number', 'Quantity', 'Text', 'Time']

describe('against schema-dts', () => {
  /** Parents of other vocabularies, which our table leaves out; and a helper type of the package. */
  const ofSchema = (list: readonly string[]) => list.filter((n) => !/_org_|_info_|^SchemaValue$/.test(n))
  it('parents of all shared classes', () => {
    const shared = Object.entries(ours.c).filter(
      ([name]) => other.parents.has(name) && !VALUES.includes(name),
    )
    const differ = shared
      .filter(([name, { u }]) => !same(u, ofSchema(other.parents.get(name)!)))
      .map(([name, { u }]) => `${name}: ${u.join()} / ${ofSchema(other.parents.get(name)!).join()}`)
    expect(shared.length).toBeGreaterThan(935)
    expect(differ).toEqual(NEWER.parents)
  })
  it('domains and ranges of all shared properties', () => {
    const shared = Object.entries(ours.p).filter(([name]) => other.domains.has(name))
    const differ = shared
      .filter(
        ([name, { d, r }]) => !same(d, other.domains.get(name)!) || !same(r, other.ranges.get(name) ?? []),
      )
      .map(([name]) => name)
    expect(shared.length).toBeGreaterThan(1510)
    expect(differ).toEqual([...NEWER.properties, ...RETIRED].sort())
  })
  it('terms that one has and the other has not', () => {
    // DataType is a value's root; interactionCount was retired.
    expect(Object.keys(ours.c).filter((n) => !other.parents.has(n))).toEqual(['DataType'])
    expect(Object.keys(ours.p).filter((n) => !other.domains.has(n))).toEqual(['interactionCount'])
    expect([...other.domains.keys()].filter((n) => !ours.p[n])).toHaveLength(20)
  })
  it('members of enumerations', () => {
    const mine = (name: string) => ours.e[name]?.t ?? ours.c[name]?.m
    const differ = [...other.members].filter(
      ([name, of]) => mine(name) && !of.some((o) => mine(name)!.includes(o)),
    )
    expect(differ.map(([name]) => name)).toEqual([])
    expect([...other.members.keys()].filter((n) => mine(n)).length).toBeGreaterThan(480)
  })
})

describe('what is worked out from it', () => {
  it('lineage, inherited properties, members, replacements to the end', () => {
    expect(lineage('NewsArticle')).toEqual(['NewsArticle', 'Article', 'CreativeWork', 'Thing'])
    // One that comes from two.
    expect(isA('LocalBusiness', 'Place')).toBe(true)
    expect(isA('LocalBusiness', 'Organization')).toBe(true)
    expect(propertiesOf('Article').has('headline')).toBe(true)
    expect(propertiesOf('Article').has('articleBody')).toBe(true)
    expect(propertiesOf('Person').has('headline')).toBe(false)
    expect(membersOf('ItemAvailability')).toContain('InStock')
    expect(replacementOf('area')).toBe('areaServed')
    expect(replacementOf('headline')).toBeNull()
    expect(termOf('constructor')).toBeNull()
    expect(termOf('Dermatology')).toMatchObject({ kind: 'class' })
    expect(isMember('Dermatology')).toBe(true)
  })
  it('every class but a root has all the properties of what it comes from', () => {
    for (const name of Object.keys(ours.c))
      for (const parent of ours.c[name]!.u)
        for (const property of propertiesOf(parent)) expect(propertiesOf(name).has(property)).toBe(true)
  })
  it('the nearest names: another case, a letter more, two changed about; none for what is far', () => {
    expect(nearestTerms('faqpage', 'class')[0]).toBe('FAQPage')
    expect(nearestTerms('Artcile', 'class')[0]).toBe('Article')
    expect(nearestTerms('datePublishd', 'property')[0]).toBe('datePublished')
    expect(nearestTerms('Instock', 'member')[0]).toBe('InStock')
    expect(nearestTerms('Lighthousekeeping', 'class')).toEqual([])
  })
})
