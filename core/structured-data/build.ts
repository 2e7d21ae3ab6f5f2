/**
 * First versions of a page's data, filled from the page itself: each value with the place where it was found. What was
 * not found is left open, never invented.
 */
import { descriptionOf, outlineOf, titleOf, type PageFacts } from '../page/facts.ts'
import { resolveAddress } from '../site/addresses.ts'
import { contentOf, type Content, type Piece } from './content.ts'
import { step } from './edit-json.ts'
import { dateIn, durationIn, hoursIn, pricesIn, timesIn } from './said.ts'

export type BuildKind =
  | 'FAQPage'
  | 'BreadcrumbList'
  | 'Article'
  | 'Product'
  | 'Event'
  | 'Recipe'
  | 'LocalBusiness'
  | 'JobPosting'
  | 'Course'
  | 'VideoObject'
  | 'Organization'
  | 'WebSite'
  | 'WebPage'

/** A value as it was found on the page. */
export interface Found {
  value: string
  /** What it is on the page, in words: "the first heading", "under this heading". */
  what: string
  /** Where it stands in the page's text; null for what the site gives. */
  start: number | null
  /** What it was found as, with `start` the name under which it is found again. */
  role: string
}
export interface BuiltValue extends Found {
  pointer: string
}
export interface Built {
  kind: BuildKind
  data: Record<string, unknown>
  found: BuiltValue[]
}
/** What a page's data may be built as, and why it is offered. */
export interface Offer {
  kind: BuildKind
  because: string
  /** Whether the page holds all that the feature needs. */
  likely: boolean
}

/** What the site gives to the data of its pages. */
export interface SiteSide {
  base: string
  name: string | null
  /** `@id` of the organisation that the site describes already. */
  organisation: string | null
  /** Pages above this one, from the home page down, with the names that they go by. */
  trail: { url: string; name: string; path: string }[]
}

interface Ground {
  page: PageFacts
  content: Content
  lang: string
  site: SiteSide
  labels: Label[]
}
interface Label {
  name: string
  value: string
  start: number
}

const cache = new WeakMap<PageFacts, { text: string; content: Content }>()
function groundOf(page: PageFacts, text: string, site: SiteSide, language: string): Ground {
  let known = cache.get(page)
  if (known?.text !== text) cache.set(page, (known = { text, content: contentOf(text) }))
  const { content } = known
  return { page, content, lang: page.lang ?? language, site, labels: labelsOf(content.pieces) }
}

/** What stands beside a name: terms with definitions, cells beside a first cell, lines with a colon. */
function labelsOf(pieces: Piece[]): Label[] {
  const out: Label[] = []
  pieces.forEach((p, i) => {
    const next = pieces[i + 1]
    if (p.kind === 'term' && next?.kind === 'definition')
      out.push({ name: p.text, value: next.text, start: next.start })
    if (
      p.kind === 'cell' &&
      next?.kind === 'cell' &&
      next.group === p.group &&
      pieces[i - 1]?.group !== p.group
    )
      out.push({ name: p.text, value: next.text, start: next.start })
    const colon = /^([\p{L} ’']{2,28}):\s+(.+)$/u.exec(p.text)
    if (colon && p.kind !== 'heading') out.push({ name: colon[1]!, value: colon[2]!, start: p.start })
    if (p.kind === 'heading' || colon || p.text.length > 120) return
    for (const part of p.text.split(/\s*[·|]\s*|(?<=[.;])\s+/)) {
      const verb =
        /^(posted|published|updated|last updated|apply by|serves|makes|filmed|first published)\s+(?:on\s+)?(.+)$/i.exec(
          part,
        )
      if (verb) out.push({ name: verb[1]!, value: verb[2]!, start: p.start })
    }
  })
  return out
}
const label = ({ labels }: Ground, names: RegExp): Label | null =>
  labels.find((l) => names.test(l.name.trim())) ?? null

const named = {
  when: /^(?:when|date|dates|starts?|next|dato|hvornår|wann|datum|beginn)$/i,
  ends: /^(?:ends?|until|slut|ende)$/i,
  where: /^(?:where|place|venue|location|meeting place|sted|hvor|ort|wo)$/i,
  price: /^(?:price|prices|cost|costs|tickets?|fee|pris|preis)$/i,
  published: /^(?:published|first published|posted|date|udgivet|veröffentlicht)$/i,
  updated: /^(?:updated|last updated|opdateret|aktualisiert)$/i,
  closing: /^(?:apply by|closing date|closes|deadline|ansøgningsfrist)$/i,
  pay: /^(?:pay|salary|wage|løn|gehalt)$/i,
  hours: /^(?:hours|contract|employment|working time)$/i,
  prep: /^(?:prep|preparation|preparation time|prep time|forberedelse)$/i,
  cook: /^(?:cook|cooking|cooking time|cook time|baking|baking time|in the oven|tilberedning)$/i,
  total: /^(?:time|total|total time|takes|i alt)$/i,
  yield: /^(?:serves|makes|yield|servings|for|portioner|ergibt)$/i,
  sku: /^(?:sku|item|item no\.?|order no\.?|order number|varenummer|artikelnummer)$/i,
  brand: /^(?:brand|maker|made by|mærke|marke)$/i,
  phone: /^(?:telephone|phone|tel\.?|ring|telefon)$/i,
  filmed: /^(?:filmed|published|uploaded|posted)$/i,
  length: /^(?:length|running time|duration|længde|länge)$/i,
}
const ingredients = /ingredient|what you need|you will need|ingrediens|zutaten|du skal bruge/i
const method =
  /method|how it is done|instruction|steps|directions|preparation|how to make|fremgangsmåde|zubereitung/i

class Builder {
  readonly data: Record<string, unknown>
  readonly found: BuiltValue[] = []
  readonly kind: BuildKind
  constructor(kind: BuildKind, type: string = kind) {
    this.kind = kind
    this.data = { '@context': 'https://schema.org', '@type': type }
  }
  /** Puts a value where the path leads; nothing where nothing was found. */
  put(path: (string | number)[], found: Found | null, value: unknown = found?.value): void {
    if (!found || value === '' || value === undefined) return
    this.fix(path, value)
    if (typeof value === 'string' || typeof value === 'number')
      this.found.push({ ...found, value: String(value), pointer: path.map(step).join('') })
  }
  /** Puts in what is no value of the page: types, positions. */
  fix(path: (string | number)[], value: unknown): void {
    let at = this.data as Record<string | number, unknown>
    path.slice(0, -1).forEach((key, i) => {
      at[key] ??= typeof path[i + 1] === 'number' ? [] : {}
      at = at[key] as Record<string | number, unknown>
    })
    at[path.at(-1)!] = value
  }
  built(): Built {
    return { kind: this.kind, data: this.data, found: this.found }
  }
}

const pieceAs = (role: string, what: string, { text, start }: { text: string; start: number }): Found => ({
  value: text,
  what,
  start,
  role,
})
function headline({ page }: Ground): Found | null {
  const h1 = outlineOf(page).find((h) => h.level === 1 && h.text)
  if (h1) return { value: h1.text, what: 'the first heading', start: h1.start, role: 'h1' }
  const title = titleOf(page)
  return title?.text ? { value: title.text, what: 'the title', start: title.start, role: 'title' } : null
}
function description({ page }: Ground): Found | null {
  const meta = descriptionOf(page)
  return meta?.content
    ? { value: meta.content, what: 'the meta description', start: meta.start, role: 'description' }
    : null
}
function picture({ page, content }: Ground): Found | null {
  const image = content.images.find((m) => m.inMain && m.src !== '' && !m.src.startsWith('data:'))
  const url = image && resolveAddress(image.src, resolveAddress(page.base ?? '', page.url) ?? page.url)
  return image && url ? { value: url, what: 'the first picture', start: image.start, role: 'image' } : null
}
const own = ({ page }: Ground): Found => ({
  value: page.url,
  what: 'the page’s address',
  start: null,
  role: 'url',
})

/** A date by its label, or by a `time` element that such a word stands before, with a time of day where one is named. */
function date(ground: Ground, names: RegExp, role: string): Found | null {
  const { content, lang } = ground
  const said = label(ground, names)
  if (said) {
    const day = dateIn(said.value, lang)
    if (day) return { value: day, what: `beside “${said.name}”`, start: said.start, role }
  }
  const time = content.times.find((t) =>
    names.test(
      t.before
        .replace(/(?:\s+on)?[\s:,]*$/i, '')
        .split(/[.,·|]\s*/)
        .at(-1)!
        .trim(),
    ),
  )
  const day = time && (/^\d{4}-\d{2}-\d{2}/.exec(time.datetime)?.[0] ?? dateIn(time.text, lang))
  return time && day
    ? {
        value: /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}/.test(time.datetime) ? time.datetime : day,
        what: 'a date of the page',
        start: time.start,
        role,
      }
    : null
}

/** Puts in who is behind the page: by reference where the site describes it already. */
function organisation(b: Builder, path: string[], { site }: Ground): void {
  if (site.organisation !== null) b.fix([...path], { '@id': site.organisation })
  else if (site.name !== null) {
    b.fix([...path, '@type'], 'Organization')
    b.put([...path, 'name'], { value: site.name, what: 'the site’s name', start: null, role: 'site' })
    b.fix([...path, 'url'], site.base)
  }
}

function price(b: Builder, path: string[], ground: Ground): boolean {
  const { content, lang } = ground
  const by = label(ground, named.price)
  const where = by && pricesIn(by.value, lang).length > 0 ? by : null
  const piece = where
    ? null
    : content.pieces.find((p) => p.kind !== 'heading' && pricesIn(p.text, lang).length > 0)
  const money = pricesIn(where?.value ?? piece?.text ?? '', lang)[0]
  if (!money) return false
  const start = (where ?? piece)!.start
  const what = where ? `beside “${where.name}”` : 'a price of the page'
  b.fix([...path, '@type'], 'Offer')
  b.put([...path, 'price'], { value: money.amount, what, start, role: 'price' })
  b.put([...path, 'priceCurrency'], { value: money.currency, what, start, role: 'currency' })
  const stock: [RegExp, string][] = [
    [/\b(?:sold out|out of stock|udsolgt|ausverkauft)\b/i, 'OutOfStock'],
    [/\bpre-?order/i, 'PreOrder'],
    [/\b(?:made to order)\b/i, 'MadeToOrder'],
    [/\b(?:in stock|on the shelf now|på lager|auf lager|places left)\b/i, 'InStock'],
  ]
  for (const [words, member] of stock) {
    const said = content.pieces.find((p) => words.test(p.text))
    if (said) {
      b.put([...path, 'availability'], {
        value: `https://schema.org/${member}`,
        what: 'words of the page',
        start: said.start,
        role: 'availability',
      })
      break
    }
  }
  b.put([...path, 'url'], own(ground))
  return true
}

/** Questions with their answers: headings and what stands under them, `details`, definition lists. */
export function questionsOf(content: Content): { question: Piece; answer: Piece[] }[] {
  const out: { question: Piece; answer: Piece[] }[] = []
  const { pieces } = content
  const asks = (p: Piece) => /[?？]\s*$/.test(p.text)
  pieces.forEach((p, i) => {
    const answer: Piece[] = []
    if (p.kind === 'heading' && asks(p)) {
      for (let j = i + 1; j < pieces.length && pieces[j]!.kind !== 'heading'; j++)
        if (pieces[j]!.kind !== 'caption') answer.push(pieces[j]!)
    } else if (p.kind === 'summary') {
      for (
        let j = i + 1;
        j < pieces.length && pieces[j]!.group === p.group && pieces[j]!.kind !== 'summary';
        j++
      )
        answer.push(pieces[j]!)
    } else if (p.kind === 'term' && asks(p)) {
      for (let j = i + 1; pieces[j]?.kind === 'definition'; j++) answer.push(pieces[j]!)
    }
    if (answer.length > 0) out.push({ question: p, answer })
  })
  // Summaries that ask nothing are mere headings of what is folded away.
  const folded = out.filter((q) => q.question.kind === 'summary')
  return folded.length > 0 && !folded.some((q) => asks(q.question))
    ? out.filter((q) => q.question.kind !== 'summary')
    : out
}

function under(content: Content, names: RegExp): Piece[] {
  const at = content.pieces.findIndex((p) => p.kind === 'heading' && names.test(p.text))
  if (at < 0) return []
  const end = content.pieces.findIndex((p, i) => i > at && p.kind === 'heading')
  return content.pieces.slice(at + 1, end < 0 ? undefined : end)
}

const makers: Record<BuildKind, (ground: Ground) => Builder> = {
  FAQPage({ content }) {
    const b = new Builder('FAQPage')
    questionsOf(content).forEach(({ question, answer }, i) => {
      b.fix(['mainEntity', i, '@type'], 'Question')
      b.put(['mainEntity', i, 'name'], pieceAs('question', 'a question of the page', question))
      b.fix(['mainEntity', i, 'acceptedAnswer', '@type'], 'Answer')
      b.put(['mainEntity', i, 'acceptedAnswer', 'text'], {
        ...pieceAs('answer', 'what stands under it', answer[0]!),
        value: answer.map((a) => a.text).join(' '),
      })
    })
    return b
  },
  BreadcrumbList({ site, page }) {
    const b = new Builder('BreadcrumbList')
    const all = [...site.trail]
    all.forEach(({ url, name, path }, i) => {
      b.fix(['itemListElement', i, '@type'], 'ListItem')
      b.fix(['itemListElement', i, 'position'], i + 1)
      b.put(['itemListElement', i, 'name'], {
        value: name,
        what: path === page.path ? 'the page’s name' : `the name of ${path}`,
        start: null,
        role: `name:${path}`,
      })
      b.put(['itemListElement', i, 'item'], {
        value: url,
        what: 'an address of the site',
        start: null,
        role: `address:${path}`,
      })
    })
    return b
  },
  Article(ground) {
    const b = new Builder('Article')
    b.put(['headline'], headline(ground))
    b.put(['description'], description(ground))
    const image = picture(ground)
    if (image) b.put(['image', 0], image)
    b.put(['datePublished'], date(ground, named.published, 'published'))
    b.put(['dateModified'], date(ground, named.updated, 'updated'))
    const { content, page } = ground
    const byline = content.pieces.find(
      (p) => p.kind !== 'heading' && p.text.length < 120 && /^(?:[Bb]y|[Aa]f|[Vv]on)\s+\p{Lu}/u.test(p.text),
    )
    const name =
      byline &&
      /^(?:by|af|von)\s+([^,·|–—.]+?)(?:\s+(?:on|published|den)\b.*)?(?:[,·|–—.].*)?$/iu.exec(
        byline.text,
      )?.[1]
    const link = content.links.find((l) => l.rel.split(/\s+/).includes('author') && l.text !== '')
    const meta = page.metas.find((m) => m.name === 'author' && m.content)
    const author: Found | null = link
      ? { value: link.text, what: 'the link to the author', start: link.start, role: 'author' }
      : name
        ? { value: name.trim(), what: 'the line “by …”', start: byline.start, role: 'author' }
        : meta
          ? { value: meta.content, what: 'the author meta', start: meta.start, role: 'author' }
          : null
    if (author) {
      b.fix(['author', '@type'], 'Person')
      b.put(['author', 'name'], author)
      const url = link && resolveAddress(link.href, page.url)
      if (link && url)
        b.put(['author', 'url'], {
          value: url,
          what: 'the link to the author',
          start: link.start,
          role: 'author-url',
        })
    }
    organisation(b, ['publisher'], ground)
    b.put(['mainEntityOfPage'], own(ground))
    return b
  },
  Product(ground) {
    const b = new Builder('Product')
    b.put(['name'], headline(ground))
    b.put(['description'], description(ground))
    const image = picture(ground)
    if (image) b.put(['image', 0], image)
    const sku = label(ground, named.sku)
    if (sku) b.put(['sku'], { value: sku.value, what: `beside “${sku.name}”`, start: sku.start, role: 'sku' })
    const brand = label(ground, named.brand)
    if (brand) {
      b.fix(['brand', '@type'], 'Brand')
      b.put(['brand', 'name'], {
        value: brand.value,
        what: `beside “${brand.name}”`,
        start: brand.start,
        role: 'brand',
      })
    }
    price(b, ['offers'], ground)
    const rated = ground.content.pieces.find(
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
        what: 'a rating of the page',
        start: rated.start,
        role: 'rating',
      })
      if (/10|ten/i.test(value[2]!)) b.fix(['aggregateRating', 'bestRating'], 10)
      b.put(
        ['aggregateRating', 'ratingCount'],
        { value: count, what: 'a rating of the page', start: rated.start, role: 'rating-count' },
        Number(count),
      )
    }
    return b
  },
  Event(ground) {
    const b = new Builder('Event')
    const { lang, content } = ground
    b.put(['name'], headline(ground))
    b.put(['description'], description(ground))
    const image = picture(ground)
    if (image) b.put(['image', 0], image)
    const when = label(ground, named.when)
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
        what: 'a date of the page',
        start: time.start,
        role: 'start',
      })
    const ends = date(ground, named.ends, 'end')
    if (ends) b.put(['endDate'], ends)
    const where = label(ground, named.where)
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
    price(b, ['offers'], ground)
    organisation(b, ['organizer'], ground)
    return b
  },
  Recipe(ground) {
    const b = new Builder('Recipe')
    const { content } = ground
    b.put(['name'], headline(ground))
    b.put(['description'], description(ground))
    const image = picture(ground)
    if (image) b.put(['image', 0], image)
    organisation(b, ['author'], ground)
    for (const [property, names, role] of [
      ['prepTime', named.prep, 'prep'],
      ['cookTime', named.cook, 'cook'],
      ['totalTime', named.total, 'total'],
    ] as const) {
      const said = label(ground, names)
      const duration = said && durationIn(said.value)
      if (said && duration)
        b.put([property], { value: duration, what: `beside “${said.name}”`, start: said.start, role })
    }
    const serves = label(ground, named.yield)
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
  },
  LocalBusiness(ground) {
    const b = new Builder('LocalBusiness')
    const { content, lang, site, page } = ground
    if (site.name !== null)
      b.put(['name'], { value: site.name, what: 'the site’s name', start: null, role: 'site' })
    else b.put(['name'], headline(ground))
    b.put(['url'], { value: site.base, what: 'the site’s address', start: null, role: 'site-address' })
    const address = content.pieces.find((p) => p.kind === 'address') ?? null
    if (address)
      addressParts(address.text.replace(new RegExp(`^${site.name ?? ''},?\\s*`), '')).forEach(
        ([property, value]) => {
          b.fix(['address', '@type'], 'PostalAddress')
          b.put(['address', property], {
            value,
            what: 'the address on the page',
            start: address.start,
            role: `address-${property}`,
          })
        },
      )
    const tel = content.links.find((l) => /^tel:/i.test(l.href))
    const phone = label(ground, named.phone)
    if (tel)
      b.put(['telephone'], {
        value: decodeURI(tel.href.slice(4)),
        what: 'the telephone link',
        start: tel.start,
        role: 'phone',
      })
    else if (phone && /\d{4}/.test(phone.value))
      b.put(['telephone'], {
        value: phone.value,
        what: `beside “${phone.name}”`,
        start: phone.start,
        role: 'phone',
      })
    const mail = content.links.find((l) => /^mailto:/i.test(l.href))
    if (mail)
      b.put(['email'], {
        value: mail.href.slice(7).split('?')[0]!,
        what: 'the mail link',
        start: mail.start,
        role: 'mail',
      })
    let i = 0
    const rows = new Map<number, string>()
    content.pieces.forEach(
      (p) =>
        p.kind === 'cell' && p.group !== null && rows.set(p.group, `${rows.get(p.group) ?? ''} ${p.text}`),
    )
    const lines = [
      ...[...rows].map(([start, text]) => ({ start, text })),
      ...content.pieces
        .filter((p) => p.kind !== 'cell' && p.text.length < 90)
        .flatMap((p) => p.text.split(/;\s*|(?<=\d)\.\s+/).map((text) => ({ start: p.start, text }))),
    ]
    for (const { start, text } of lines) {
      const hours = hoursIn(text, lang)
      if (!hours) continue
      const what = 'the opening hours on the page'
      b.fix(['openingHoursSpecification', i, '@type'], 'OpeningHoursSpecification')
      b.fix(['openingHoursSpecification', i, 'dayOfWeek'], hours.days)
      b.put(['openingHoursSpecification', i, 'opens'], {
        value: hours.opens,
        what,
        start,
        role: `opens-${i}`,
      })
      b.put(['openingHoursSpecification', i, 'closes'], {
        value: hours.closes,
        what,
        start,
        role: `closes-${i}`,
      })
      i++
    }
    const image = picture(ground)
    if (image) b.put(['image', 0], image)
    b.fix(['@id'], `${page.url.split('#')[0]}#business`)
    return b
  },
  JobPosting(ground) {
    const b = new Builder('JobPosting')
    const { content, lang } = ground
    b.put(['title'], headline(ground))
    const text = content.pieces.filter((p) => p.kind === 'text' || p.kind === 'item')
    const first = text[0]
    if (first)
      b.put(['description'], {
        value: text.map((p) => p.text).join('\n'),
        what: 'the page’s text',
        start: first.start,
        role: 'body',
      })
    b.put(['datePosted'], date(ground, named.published, 'posted'))
    b.put(['validThrough'], date(ground, named.closing, 'closing'))
    organisation(b, ['hiringOrganization'], ground)
    const where = label(ground, named.where)
    if (where) {
      b.fix(['jobLocation', '@type'], 'Place')
      b.put(['jobLocation', 'address'], {
        value: where.value,
        what: `beside “${where.name}”`,
        start: where.start,
        role: 'address',
      })
    }
    const kinds: [RegExp, string][] = [
      [/\bfull[- ]time\b/i, 'FULL_TIME'],
      [/\bpart[- ]time\b/i, 'PART_TIME'],
      [/\bseasonal|temporary\b/i, 'TEMPORARY'],
      [/\bvolunteer\b/i, 'VOLUNTEER'],
    ]
    const hours = label(ground, named.hours)
    for (const [words, value] of kinds) {
      const said =
        hours && words.test(hours.value)
          ? hours
          : content.pieces.find((p) => p.kind !== 'heading' && words.test(p.text))
      if (!said) continue
      b.put(['employmentType'], { value, what: 'words of the page', start: said.start, role: 'employment' })
      break
    }
    const pay = label(ground, named.pay)
    const piece = pay
      ? null
      : content.pieces.find(
          (p) =>
            p.kind !== 'heading' &&
            /\b(?:a|per|an)\s+(?:year|month|week|day|hour)\b/i.test(p.text) &&
            pricesIn(p.text, lang).length > 0,
        )
    const said = pay?.value ?? piece?.text ?? ''
    const money = pricesIn(said, lang)[0]
    const unit = /\b(?:a|per|an)\s+(year|month|week|day|hour)\b/i.exec(said)?.[1]?.toUpperCase()
    if (money && unit) {
      const at = {
        what: pay ? `beside “${pay.name}”` : 'pay named on the page',
        start: (pay ?? piece)!.start,
      }
      b.fix(['baseSalary', '@type'], 'MonetaryAmount')
      b.put(['baseSalary', 'currency'], { ...at, value: money.currency, role: 'pay-currency' })
      b.fix(['baseSalary', 'value', '@type'], 'QuantitativeValue')
      b.put(
        ['baseSalary', 'value', 'value'],
        { ...at, value: money.amount, role: 'pay' },
        Number(money.amount),
      )
      b.put(['baseSalary', 'value', 'unitText'], { ...at, value: unit, role: 'pay-unit' })
    }
    return b
  },
  Course(ground) {
    const b = new Builder('Course')
    b.put(['name'], headline(ground))
    b.put(['description'], description(ground) ?? lead(ground))
    organisation(b, ['provider'], ground)
    const when = label(ground, named.when)
    const day = when && dateIn(when.value, ground.lang)
    if (when && day) {
      b.fix(['hasCourseInstance', '@type'], 'CourseInstance')
      b.put(['hasCourseInstance', 'startDate'], {
        value: day,
        what: `beside “${when.name}”`,
        start: when.start,
        role: 'start',
      })
    }
    price(b, ['offers'], ground)
    return b
  },
  VideoObject(ground) {
    const b = new Builder('VideoObject')
    const { content, page } = ground
    const video = content.videos[0]
    b.put(['name'], headline(ground))
    b.put(['description'], description(ground))
    const whole = (href: string) => resolveAddress(href, page.url) ?? ''
    if (video?.poster)
      b.put(['thumbnailUrl'], {
        value: whole(video.poster),
        what: 'the film’s still',
        start: video.start,
        role: 'poster',
      })
    b.put(['uploadDate'], date(ground, named.filmed, 'uploaded'))
    if (video)
      b.put([/\.(?:mp4|webm|ogv|mov|m4v)(?:[?#]|$)/i.test(video.src) ? 'contentUrl' : 'embedUrl'], {
        value: whole(video.src),
        what: 'the film',
        start: video.start,
        role: 'video',
      })
    const length = label(ground, named.length)
    const duration = length && durationIn(length.value)
    if (length && duration)
      b.put(['duration'], {
        value: duration,
        what: `beside “${length.name}”`,
        start: length.start,
        role: 'length',
      })
    return b
  },
  Organization(ground) {
    const b = new Builder('Organization')
    const { site, content, page } = ground
    b.fix(['@id'], `${site.base}#organisation`)
    if (site.name !== null)
      b.put(['name'], { value: site.name, what: 'the site’s name', start: null, role: 'site' })
    else b.put(['name'], headline(ground))
    b.put(['url'], { value: site.base, what: 'the site’s address', start: null, role: 'site-address' })
    const logo =
      content.images.find((m) => m.inHeader && m.src !== '') ??
      content.images.find((m) => /logo/i.test(m.src + m.alt))
    const url = logo && resolveAddress(logo.src, page.url)
    if (logo && url)
      b.put(['logo'], { value: url, what: 'the picture in the header', start: logo.start, role: 'logo' })
    b.put(['description'], description(ground))
    const tel = content.links.find((l) => /^tel:/i.test(l.href))
    if (tel)
      b.put(['telephone'], {
        value: decodeURI(tel.href.slice(4)),
        what: 'the telephone link',
        start: tel.start,
        role: 'phone',
      })
    const mail = content.links.find((l) => /^mailto:/i.test(l.href))
    if (mail)
      b.put(['email'], {
        value: mail.href.slice(7).split('?')[0]!,
        what: 'the mail link',
        start: mail.start,
        role: 'mail',
      })
    content.links
      .filter((l) => l.rel.split(/\s+/).includes('me') && /^https?:/i.test(l.href))
      .forEach((l, i) =>
        b.put(['sameAs', i], {
          value: l.href,
          what: 'a link to the same elsewhere',
          start: l.start,
          role: 'same',
        }),
      )
    return b
  },
  WebPage(ground) {
    const b = new Builder('WebPage')
    b.put(['name'], headline(ground))
    b.put(['url'], own(ground))
    organisation(b, ['publisher'], ground)
    return b
  },
  WebSite(ground) {
    const b = new Builder('WebSite')
    const { site } = ground
    b.fix(['@id'], `${site.base}#website`)
    if (site.name !== null)
      b.put(['name'], { value: site.name, what: 'the site’s name', start: null, role: 'site' })
    else b.put(['name'], headline(ground))
    b.put(['url'], { value: site.base, what: 'the site’s address', start: null, role: 'site-address' })
    organisation(b, ['publisher'], ground)
    return b
  },
}

function lead({ content }: Ground): Found | null {
  const first = content.pieces.find((p) => p.kind === 'text')
  return first ? pieceAs('lead', 'the first paragraph', first) : null
}

/** Parts of an address written on one line: the last part with figures and capitals is the post code. */
function addressParts(text: string): [string, string][] {
  const parts = text
    .split(/\s*[,\n]\s*/)
    .map((p) => p.trim())
    .filter(Boolean)
  const out: [string, string][] = []
  const code = parts.findLastIndex((p, i) => i > 0 && /\d/.test(p) && /^[A-Z0-9 -]{4,10}$/.test(p))
  if (code > 0) out.push(['postalCode', parts.splice(code, 1)[0]!])
  const inside = parts.findLastIndex((p) => /^\d{4,5}\s+\p{L}/u.test(p))
  if (code < 0 && inside >= 0) {
    const [, post, town] = /^(\d{4,5})\s+(.+)$/u.exec(parts[inside]!)!
    out.push(['postalCode', post!])
    parts[inside] = town!
  }
  if (parts.length > 1) out.push(['addressLocality', parts.pop()!])
  if (parts.length > 0) out.unshift(['streetAddress', parts.join(', ')])
  return out
}

const needed: Partial<Record<BuildKind, string[]>> = {
  FAQPage: ['mainEntity'],
  BreadcrumbList: ['itemListElement'],
  Article: ['headline', 'datePublished'],
  Product: ['name', 'offers'],
  Event: ['name', 'startDate', 'location'],
  Recipe: ['name', 'recipeIngredient'],
  LocalBusiness: ['name', 'address'],
  JobPosting: ['title', 'datePosted', 'jobLocation'],
  Course: ['name', 'description', 'provider'],
  VideoObject: ['name', 'thumbnailUrl', 'uploadDate'],
  Organization: ['name'],
  WebSite: ['name'],
}

/** One kind of data built from a page. `text` is the page's own text, which `page` was read from. */
export function build(
  kind: BuildKind,
  page: PageFacts,
  text: string,
  site: SiteSide,
  language: string,
): Built {
  return makers[kind](groundOf(page, text, site, language)).built()
}

/** What the page may be described as, by what it holds; what it holds all of first. */
export function offersOf(page: PageFacts, text: string, site: SiteSide, language: string): Offer[] {
  const ground = groundOf(page, text, site, language)
  const { content } = ground
  const home = page.url === site.base
  const questions = questionsOf(content).length
  const words = `${page.path} ${titleOf(page)?.text ?? ''}`
  const evidence: [BuildKind, string | null][] = [
    [
      'FAQPage',
      questions > 0
        ? `${questions} ${questions === 1 ? 'question with its answer' : 'questions with their answers'}`
        : null,
    ],
    [
      'Recipe',
      under(content, ingredients).some((p) => p.kind === 'item') ? 'a list of what is needed' : null,
    ],
    [
      'JobPosting',
      label(ground, named.closing) ||
      label(ground, named.pay) ||
      /\bjobs?\b|\bvacanc|\bstilling|\bstellen/i.test(words)
        ? 'a job with its terms'
        : null,
    ],
    [
      'Event',
      label(ground, named.when) && dateIn(label(ground, named.when)!.value, ground.lang)
        ? 'a date and a place'
        : null,
    ],
    ['Course', /\bcourses?\b|\bkursus|\bkurs\b/i.test(words) ? 'a course' : null],
    ['VideoObject', content.videos.length > 0 ? 'a film' : null],
    ['Product', content.pieces.some((p) => pricesIn(p.text, ground.lang).length > 0) ? 'a price' : null],
    ['LocalBusiness', content.pieces.some((p) => p.kind === 'address') ? 'an address' : null],
    [
      'Article',
      date(ground, named.published, 'published')
        ? 'a date of publication'
        : page.main.words > 150 && !home
          ? 'running text'
          : null,
    ],
    ['Organization', home ? 'it is the home page' : null],
    ['WebSite', home ? 'it is the home page' : null],
    ['BreadcrumbList', site.trail.length > 1 ? 'pages above it in the site' : null],
  ]
  return evidence
    .flatMap(([kind, because]): Offer[] => {
      if (because === null) return []
      const { data } = build(kind, page, text, site, language)
      return [{ kind, because, likely: (needed[kind] ?? []).every((p) => data[p] !== undefined) }]
    })
    .sort((a, b) => Number(b.likely) - Number(a.likely))
}
