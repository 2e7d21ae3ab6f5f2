import { schemaTypes, type Thing } from '../../structured-data/page-data.ts'
import { dataOf } from '../../structured-data/read.ts'
import { domainsOf, isA, isClass, propertiesOf } from '../../structured-data/vocabulary.ts'
import { rule } from '../rule.ts'
import { either } from './data-edit.ts'
import { described } from './example.ts'

/** The classes that lack a property, where none of a thing's has it; null where it may have it, or that cannot be told. */
function without(thing: Thing, property: string): string[] | null {
  const types = schemaTypes(thing)
  const known = types.filter(isClass)
  // A type that is not known may have it; a Role carries on the property that leads to it.
  if (known.length < thing.types.length || known.length === 0) return null
  if (known.some((t) => isA(t, 'Role') || propertiesOf(t).has(property))) return null
  return known
}

/** A property of schema.org's that the type does not have. */
export const dataWrongDomain = rule({
  id: 'data-wrong-domain',
  family: 'data',
  severity: 'flaw',
  sign: 'order',
  name: 'Property of another type',
  basis: 'schema.org, domainIncludes',
  why: 'Machines look for a property where it belongs; here they ignore it.',
  mend: 'Put it where it belongs, or use a property that this type has.',
  needs: ['data'],
  message: ({ property, type, belongs }) =>
    `${type} has no property “${property}”; it belongs to ${belongs}.`,
  check({ page }, mark) {
    for (const thing of dataOf(page).things)
      for (const { name, known, reverse, values, at } of thing.properties) {
        if (!known) continue
        const holders = reverse ? values.flatMap((v) => (v.kind === 'thing' ? [v.thing] : [])) : [thing]
        for (const holder of holders) {
          const types = without(holder, name)
          if (!types) continue
          const domains = domainsOf(name)
          const belongs =
            domains.length > 4 ? `${domains.slice(0, 4).join(', ')} and others` : either(domains)
          mark(at, { property: name, type: types.join(' and '), belongs: belongs || 'no type' })
        }
      }
  },
  examples: {
    clean: [
      described({ '@type': 'Product', offers: { '@type': 'Offer', price: 3 } }),
      described({ '@type': 'Restaurant', servesCuisine: 'x', telephone: '1' }),
      described({ '@type': ['Product', 'Book'], isbn: '9780306406157' }),
      described({
        '@type': 'Organization',
        member: { '@type': 'OrganizationRole', member: { '@type': 'Person' } },
      }),
      described({ '@type': 'Organization', '@reverse': { publisher: { '@type': 'Article' } } }),
    ],
    marked: [
      {
        html: described({ '@type': 'Product', price: 3 }),
        at: '"price"',
        says: /Product has no property “price”; it belongs to .*Offer/,
      },
      {
        html: described({ '@type': 'Person', headline: 'x' }),
        says: /Person has no property “headline”; it belongs to CreativeWork\./,
      },
      {
        html: described({ '@type': 'Place', '@reverse': { location: { '@type': 'Offer' } } }),
        at: '"location"',
        says: /Offer has no property/,
      },
    ],
  },
})
