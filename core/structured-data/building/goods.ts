/** Data about what a page offers: products, events, recipes. */
import {
  Builder,
  type Material,
  date,
  description,
  headline,
  ingredients,
  label,
  method,
  named,
  organisation,
  picture,
  pieceAs,
  price,
  under,
} from './material.ts'
import { dateIn, durationIn, timesIn } from '../figures-in-text.ts'

export function product(material: Material): Builder {
  const b = new Builder('Product')
  b.put(['name'], headline(material))
  b.put(['description'], description(material))
  const image = picture(material)
  if (image) b.put(['image', 0], image)
  const sku = label(material, named.sku)
  if (sku) b.put(['sku'], { value: sku.value, what: `beside “${sku.name}”`, start: sku.start, role: 'sku' })
  const brand = label(material, named.brand)
  if (brand) {
    b.fix(['brand', '@type'], 'Brand')
    b.put(['brand', 'name'], {
      value: brand.value,
      what: `beside “${brand.name}”`,
      start: brand.start,
      role: 'brand',
    })
  }
  price(b, ['offers'], material)
  const rated = material.content.pieces.find(
    (p) =>
      /(\d(?:[.,]\d+)?)\s+(?:out\s+)?of\s+(?:5|five|10|ten)\b/i.test(p.text) &&
      /\d+\s+(?:reviews?|ratings?|people|customers|readers)/i.test(p.text),
  )
  if (rated) {
    const value = /(\d(?:[.,]\d+)?)\s+(?:out\s+)?of\s+(5|five|10|ten)\b/i.exec(rated.text)!
    const count = /(\d+)\s+(?:reviews?|ratings?|people|customers|readers)/i.exec(rated.text)![1]!
    b.fix(['aggregateRating', '@type'], 'AggregateRating')
    b.put(['aggregateRating', 'ratingValue'], {
      value: value[1]!.replace(',', '.'),
      what: 'a rating on the page',
      start: rated.start,
      role: 'rating',
    })
    if (/10|ten/i.test(value[2]!)) b.fix(['aggregateRating', 'bestRating'], 10)
    b.put(
      ['aggregateRating', 'ratingCount'],
      { value: count, what: 'a rating on the page', start: rated.start, role: 'rating-count' },
      Number(count),
    )
  }
  return b
}

export function event(material: Material): Builder {
  const b = new Builder('Event')
  const { lang, content } = material
  b.put(['name'], headline(material))
  b.put(['description'], description(material))
  const image = picture(material)
  if (image) b.put(['image', 0], image)
  const when = label(material, named.when)
  const time = content.times.find((t) => /^\d{4}-\d{2}-\d{2}/.test(t.datetime))
  const day = when ? dateIn(when.value, lang) : null
  if (when && day) {
    const hours = timesIn(when.value.replace(/\d{4}/g, ' '))
    const what = `beside “${when.name}”`
    b.put(['startDate'], {
      value: hours[0] ? `${day}T${hours[0]}` : day,
      what,
      start: when.start,
      role: 'start',
    })
    if (hours[1]) b.put(['endDate'], { value: `${day}T${hours[1]}`, what, start: when.start, role: 'end' })
  } else if (time)
    b.put(['startDate'], {
      value: time.datetime,
      what: 'a date on the page',
      start: time.start,
      role: 'start',
    })
  const ends = date(material, named.ends, 'end')
  if (ends) b.put(['endDate'], ends)
  const where = label(material, named.where)
  if (where) {
    const [first, ...rest] = where.value.split(/,\s*/)
    const what = `beside “${where.name}”`
    b.fix(['location', '@type'], 'Place')
    b.put(['location', 'name'], { value: first!, what, start: where.start, role: 'place' })
    b.put(['location', 'address'], {
      value: rest.length > 0 ? rest.join(', ') : where.value,
      what,
      start: where.start,
      role: 'address',
    })
  }
  price(b, ['offers'], material)
  organisation(b, ['organizer'], material)
  return b
}

export function recipe(material: Material): Builder {
  const b = new Builder('Recipe')
  const { content } = material
  b.put(['name'], headline(material))
  b.put(['description'], description(material))
  const image = picture(material)
  if (image) b.put(['image', 0], image)
  organisation(b, ['author'], material)
  for (const [property, names, role] of [
    ['prepTime', named.prep, 'prep'],
    ['cookTime', named.cook, 'cook'],
    ['totalTime', named.total, 'total'],
  ] as const) {
    const said = label(material, names)
    const duration = said && durationIn(said.value)
    if (said && duration)
      b.put([property], { value: duration, what: `beside “${said.name}”`, start: said.start, role })
  }
  const serves = label(material, named.yield)
  if (serves)
    b.put(['recipeYield'], {
      value: serves.value.replace(/\.$/, ''),
      what: `beside “${serves.name}”`,
      start: serves.start,
      role: 'yield',
    })
  under(content, ingredients)
    .filter((p) => p.kind === 'item')
    .forEach((p, i) => b.put(['recipeIngredient', i], pieceAs('ingredient', 'an entry of the list', p)))
  const steps = under(content, method).filter((p) => p.kind === 'item' || p.kind === 'text')
  const listed = steps.filter((p) => p.kind === 'item')
  ;(listed.length > 0 ? listed : steps).forEach((p, i) => {
    b.fix(['recipeInstructions', i, '@type'], 'HowToStep')
    b.put(['recipeInstructions', i, 'text'], pieceAs('step', 'a step of the page', p))
  })
  return b
}
