/** What a page is built from: its pieces, the names that stand beside them, and the values found there with their places. */
import { descriptionOf, outlineOf, titleOf, type PageFacts } from '../../page/read/facts.ts'
import { resolveAddress } from '../../addresses/addresses.ts'
import { contentOf, type Content, type Piece } from '../content.ts'
import { step } from '../../json/edit-json.ts'
import { dateIn, pricesIn } from '../figures-in-text.ts'

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
/** What the site gives to the data of its pages. */
export interface SiteSide {
  base: string
  name: string | null
  /** `@id` of the organisation that the site describes already. */
  organisation: string | null
  /** Pages above this one, from the home page down, with the names that they go by. */
  trail: { url: string; name: string; path: string }[]
}

export interface Material {
  page: PageFacts
  lang: string
  site: SiteSide
  /** What the page shows, piece by piece: another reading of the page, made when it is first asked for. */
  readonly content: Content
  /** What stands beside a name, in its pieces. */
  readonly labels: Label[]
}
export interface Label {
  name: string
  value: string
  start: number
}

const cache = new WeakMap<PageFacts, { text: string; content: Content }>()
function contentFor(page: PageFacts, text: string): Content {
  let known = cache.get(page)
  if (known?.text !== text) cache.set(page, (known = { text, content: contentOf(text) }))
  return known.content
}
export function materialOf(page: PageFacts, text: string, site: SiteSide, language: string): Material {
  let labels: Label[] | null = null
  return {
    page,
    lang: page.lang ?? language,
    site,
    get content() {
      return contentFor(page, text)
    },
    get labels() {
      return (labels ??= labelsOf(this.content.pieces))
    },
  }
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
    if (p.kind !== 'heading') for (const said of saidIn(p.text)) out.push({ ...said, start: p.start })
  })
  return out
}
const beforeColon = /^([\p{L} ’']{2,28}):\s+(.+)$/u
const afterVerb =
  /^(posted|published|updated|last updated|apply by|serves|makes|filmed|first published)\s+(?:on\s+)?(.+)$/i
/** “Filmed on 13 February · Length: 4 minutes”: what a line says by name, several times where points or sentences part it. */
function saidIn(text: string): { name: string; value: string }[] {
  const whole = beforeColon.exec(text)
  if (text.length > 120) return whole ? [{ name: whole[1]!, value: whole[2]! }] : []
  const out: { name: string; value: string }[] = []
  let open: { name: string; value: string } | null = null
  for (const written of text.split(whole ? /[·|]/ : /[·|]|(?<=[.;])\s/)) {
    const part = written.trim()
    const said = beforeColon.exec(part) ?? afterVerb.exec(part)
    if (said) out.push((open = { name: said[1]!, value: said[2]! }))
    // What has no name of its own goes on with what was said last: “Where: the quay · Harrow”.
    else if (open && whole) open.value += ` · ${part}`
  }
  return out
}
export const label = ({ labels }: Material, names: RegExp): Label | null =>
  labels.find((l) => names.test(l.name.trim())) ?? null

export const named = {
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
export const ingredients = /ingredient|what you need|you will need|ingrediens|zutaten|du skal bruge/i
export const method =
  /method|how it is done|instruction|steps|directions|preparation|how to make|fremgangsmåde|zubereitung/i

export class Builder {
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

export const pieceAs = (
  role: string,
  what: string,
  { text, start }: { text: string; start: number },
): Found => ({
  value: text,
  what,
  start,
  role,
})
export function headline({ page }: Material): Found | null {
  const h1 = outlineOf(page).find((h) => h.level === 1 && h.text)
  if (h1) return { value: h1.text, what: 'the first heading', start: h1.start, role: 'h1' }
  const title = titleOf(page)
  return title?.text ? { value: title.text, what: 'the title', start: title.start, role: 'title' } : null
}
export function description({ page }: Material): Found | null {
  const meta = descriptionOf(page)
  return meta?.content
    ? { value: meta.content, what: 'the meta description', start: meta.start, role: 'description' }
    : null
}
export function picture({ page, content }: Material): Found | null {
  const image = content.images.find((m) => m.inMain && m.src !== '' && !m.src.startsWith('data:'))
  const url = image && resolveAddress(image.src, resolveAddress(page.base ?? '', page.url) ?? page.url)
  return image && url ? { value: url, what: 'the first picture', start: image.start, role: 'image' } : null
}
export const addressOfPage = ({ page }: Material): Found => ({
  value: page.url,
  what: 'the page’s address',
  start: null,
  role: 'url',
})

/** A date by its label, or by a `time` element that such a word stands before, with a time of day where one is named. */
export function date(material: Material, names: RegExp, role: string): Found | null {
  const { content, lang } = material
  const said = label(material, names)
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
        what: 'a date on the page',
        start: time.start,
        role,
      }
    : null
}

/** Puts in who is behind the page: by reference where the site describes it already. */
export function organisation(b: Builder, path: string[], { site }: Material): void {
  if (site.organisation !== null) b.fix([...path], { '@id': site.organisation })
  else if (site.name !== null) {
    b.fix([...path, '@type'], 'Organization')
    b.put([...path, 'name'], { value: site.name, what: 'the site’s name', start: null, role: 'site' })
    b.fix([...path, 'url'], site.base)
  }
}

export function price(b: Builder, path: string[], material: Material): boolean {
  const { content, lang } = material
  const by = label(material, named.price)
  const where = by && pricesIn(by.value, lang).length > 0 ? by : null
  const piece = where
    ? null
    : content.pieces.find((p) => p.kind !== 'heading' && pricesIn(p.text, lang).length > 0)
  const money = pricesIn(where?.value ?? piece?.text ?? '', lang)[0]
  if (!money) return false
  const start = (where ?? piece)!.start
  const what = where ? `beside “${where.name}”` : 'a price on the page'
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
        what: 'words on the page',
        start: said.start,
        role: 'availability',
      })
      break
    }
  }
  b.put([...path, 'url'], addressOfPage(material))
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

export function under(content: Content, names: RegExp): Piece[] {
  const at = content.pieces.findIndex((p) => p.kind === 'heading' && names.test(p.text))
  if (at < 0) return []
  const end = content.pieces.findIndex((p, i) => i > at && p.kind === 'heading')
  return content.pieces.slice(at + 1, end < 0 ? undefined : end)
}

export function lead({ content }: Material): Found | null {
  const first = content.pieces.find((p) => p.kind === 'text')
  return first ? pieceAs('lead', 'the first paragraph', first) : null
}
