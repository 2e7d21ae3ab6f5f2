/** Data about who stands behind a page: businesses, jobs, organisations, sites. */
import {
  Builder,
  type Material,
  date,
  description,
  headline,
  label,
  named,
  organisation,
  picture,
} from './material.ts'
import { hoursIn, pricesIn } from '../figures-in-text.ts'
import { resolveAddress } from '../../addresses/addresses.ts'

export function localBusiness(material: Material): Builder {
  const b = new Builder('LocalBusiness')
  const { content, lang, site, page } = material
  if (site.name !== null)
    b.put(['name'], { value: site.name, what: 'the site’s name', start: null, role: 'site' })
  else b.put(['name'], headline(material))
  b.put(['url'], { value: site.base, what: 'the site’s address', start: null, role: 'site-address' })
  const address = content.pieces.find((p) => p.kind === 'address') ?? null
  if (address)
    addressParts(withoutName(address.text, site.name)).forEach(([property, value]) => {
      b.fix(['address', '@type'], 'PostalAddress')
      b.put(['address', property], {
        value,
        what: 'the address on the page',
        start: address.start,
        role: `address-${property}`,
      })
    })
  reach(b, material)
  let i = 0
  const rows = new Map<number, string>()
  content.pieces.forEach(
    (p) => p.kind === 'cell' && p.group !== null && rows.set(p.group, `${rows.get(p.group) ?? ''} ${p.text}`),
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
  const image = picture(material)
  if (image) b.put(['image', 0], image)
  b.fix(['@id'], `${page.url.split('#')[0]}#business`)
  return b
}

export function jobPosting(material: Material): Builder {
  const b = new Builder('JobPosting')
  const { content, lang } = material
  b.put(['title'], headline(material))
  const text = content.pieces.filter((p) => p.kind === 'text' || p.kind === 'item')
  const first = text[0]
  if (first)
    b.put(['description'], {
      value: text.map((p) => p.text).join('\n'),
      what: 'the page’s text',
      start: first.start,
      role: 'body',
    })
  b.put(['datePosted'], date(material, named.published, 'posted'))
  b.put(['validThrough'], date(material, named.closing, 'closing'))
  organisation(b, ['hiringOrganization'], material)
  const where = label(material, named.where)
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
  const hours = label(material, named.hours)
  for (const [words, value] of kinds) {
    const said =
      hours && words.test(hours.value)
        ? hours
        : content.pieces.find((p) => p.kind !== 'heading' && words.test(p.text))
    if (!said) continue
    b.put(['employmentType'], { value, what: 'words on the page', start: said.start, role: 'employment' })
    break
  }
  const pay = label(material, named.pay)
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
    b.put(['baseSalary', 'value', 'value'], { ...at, value: money.amount, role: 'pay' }, Number(money.amount))
    b.put(['baseSalary', 'value', 'unitText'], { ...at, value: unit, role: 'pay-unit' })
  }
  return b
}

export function organization(material: Material): Builder {
  const b = new Builder('Organization')
  const { site, content, page } = material
  b.fix(['@id'], `${site.base}#organisation`)
  if (site.name !== null)
    b.put(['name'], { value: site.name, what: 'the site’s name', start: null, role: 'site' })
  else b.put(['name'], headline(material))
  b.put(['url'], { value: site.base, what: 'the site’s address', start: null, role: 'site-address' })
  const logo =
    content.images.find((m) => m.inHeader && m.src !== '') ??
    content.images.find((m) => /logo/i.test(m.src + m.alt))
  const url = logo && resolveAddress(logo.src, page.url)
  if (logo && url)
    b.put(['logo'], { value: url, what: 'the picture in the header', start: logo.start, role: 'logo' })
  b.put(['description'], description(material))
  reach(b, material)
  content.links
    .filter((l) => l.rel.split(/\s+/).includes('me') && /^https?:/i.test(l.href))
    .forEach((l, i) =>
      b.put(['sameAs', i], {
        value: l.href,
        what: 'a link to its profile elsewhere',
        start: l.start,
        role: 'same',
      }),
    )
  return b
}

export function webSite(material: Material): Builder {
  const b = new Builder('WebSite')
  const { site } = material
  b.fix(['@id'], `${site.base}#website`)
  if (site.name !== null)
    b.put(['name'], { value: site.name, what: 'the site’s name', start: null, role: 'site' })
  else b.put(['name'], headline(material))
  b.put(['url'], { value: site.base, what: 'the site’s address', start: null, role: 'site-address' })
  organisation(b, ['publisher'], material)
  return b
}

/** An address without the name that stands before it. */
const withoutName = (address: string, name: string | null): string =>
  name !== null && address.startsWith(name)
    ? address.slice(name.length).replace(/^,/, '').trimStart()
    : address

/** A telephone number as a link writes it; one that cannot be decoded stays as it is written. */
function decodedNumber(written: string): string {
  try {
    return decodeURI(written)
  } catch {
    return written
  }
}

/** Parts of an address written on one line: the last part with figures and capitals is the post code. */
function addressParts(text: string): [string, string][] {
  const parts = text
    .split(/[,\n]/)
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

/** Puts in the telephone number and the mail address that the page links to. */
function reach(b: Builder, { content, labels }: Material): void {
  const tel = content.links.find((l) => /^tel:/i.test(l.href))
  const phone = labels.find((l) => named.phone.test(l.name.trim()) && /\d{4}/.test(l.value))
  if (tel)
    b.put(['telephone'], {
      value: decodedNumber(tel.href.slice(4)),
      what: 'the phone link',
      start: tel.start,
      role: 'phone',
    })
  else if (phone)
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
      what: 'the email link',
      start: mail.start,
      role: 'mail',
    })
}
