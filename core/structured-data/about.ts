/** What a page is about, among all that its data describes. */
import { rememberLast } from '../remember.ts'
import { standsAlone } from './features.ts'
import { schemaTypes, thingsUnder, valuesOf, type PageData, type Property, type Thing } from './page-data.ts'
import { isA } from './vocabulary.ts'

/** Classes that a page can be about; the others say who stands behind it, where it stands, or what it holds. */
const subjects = [
  'Article',
  'Product',
  'Event',
  'Recipe',
  'JobPosting',
  'Course',
  'LocalBusiness',
  'VideoObject',
  'SoftwareApplication',
  'Dataset',
  'Question',
  'HowTo',
  'Book',
  'Movie',
  'Review',
  'Service',
  'TouristAttraction',
  'Accommodation',
]
const behind = new Set([
  'publisher',
  'author',
  'creator',
  'provider',
  'organizer',
  'brand',
  'seller',
  'hiringOrganization',
  'isPartOf',
  'sourceOrganization',
  'location',
  'performer',
  'worksFor',
  'memberOf',
])

/** The things that the page is about, in order; publishers and authors are none of them, nor are breadcrumbs. */
export const aboutThings = rememberLast((data: PageData): Thing[] => {
  const pointedTo = new Set<string>()
  for (const thing of data.things)
    for (const property of thing.properties)
      if (behind.has(property.name))
        for (const v of property.values) if (v.kind === 'reference') pointedTo.add(v.id)
  return data.things.filter(
    (t) =>
      (t.id === null || !pointedTo.has(t.id)) &&
      schemaTypes(t).some((type) => subjects.some((s) => isA(type, s))) &&
      standsAlone(t),
  )
})

/** One value that ought to be seen on the page. */
export interface ToBeSeen {
  thing: Thing
  property: Property
  as: 'text' | 'number' | 'date'
  value: string
  start: number
  end: number
}
const dates = [
  'datePublished',
  'dateModified',
  'dateCreated',
  'startDate',
  'endDate',
  'uploadDate',
  'datePosted',
  'validThrough',
]
const prices = ['price', 'lowPrice', 'highPrice']

/** Questions, answers, names, prices, ratings and dates of what the page is about. */
export function toBeSeen(data: PageData): ToBeSeen[] {
  const out: ToBeSeen[] = []
  const take = (thing: Thing, names: string[], as: ToBeSeen['as']) => {
    for (const property of thing.properties)
      if (names.includes(property.name) && !property.reverse)
        for (const v of property.values)
          if (v.kind === 'literal' && String(v.value).trim() !== '')
            out.push({ thing, property, as, value: String(v.value), start: v.start, end: v.end })
  }
  const done = new Set<Thing>()
  const once = (things: Thing[], job: (t: Thing) => void) => {
    for (const t of things)
      if (!done.has(t)) {
        done.add(t)
        job(t)
      }
  }
  for (const thing of aboutThings(data)) {
    take(thing, ['name', 'headline', 'title'], 'text')
    take(thing, dates, 'date')
    take(thing, prices, 'number')
    for (const answer of ['acceptedAnswer', 'suggestedAnswer'])
      once(thingsUnder(thing, answer, data), (t) => take(t, ['text'], 'text'))
    once(thingsUnder(thing, 'offers', data), (t) => {
      take(t, prices, 'number')
      once(thingsUnder(t, 'priceSpecification', data), (p) => take(p, prices, 'number'))
    })
    once(thingsUnder(thing, 'aggregateRating', data), (t) => take(t, ['ratingValue'], 'number'))
    once(thingsUnder(thing, 'reviewRating', data), (t) => take(t, ['ratingValue'], 'number'))
    for (const review of [...thingsUnder(thing, 'review', data)])
      once(thingsUnder(review, 'reviewRating', data), (t) => take(t, ['ratingValue'], 'number'))
  }
  return out
}

/** The one thing that a page is about, where it is about one: questions are several by nature, and an organisation has a name and an address of its own. */
export function mainThing(data: PageData): Thing | null {
  const things = aboutThings(data).filter(
    (t) => !schemaTypes(t).some((n) => ['Question', 'Review', 'Organization'].some((c) => isA(n, c))),
  )
  return things.length === 1 ? things[0]! : null
}

/** The first literal of a property with its place. */
export const literalOf = (thing: Thing, name: string) =>
  valuesOf(thing, name).find((v) => v.kind === 'literal') ?? null
