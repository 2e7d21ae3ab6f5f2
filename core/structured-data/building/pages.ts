/** Data about what a page says: questions, its place in the site, articles, courses, films, pages. */
import {
  Builder,
  type Material,
  type Found,
  date,
  description,
  headline,
  label,
  lead,
  named,
  organisation,
  addressOfPage,
  picture,
  pieceAs,
  price,
  questionsOf,
} from './material.ts'
import { dateIn, durationIn } from '../figures-in-text.ts'
import { resolveAddress } from '../../addresses/addresses.ts'

export function faqPage({ content }: Material): Builder {
  const b = new Builder('FAQPage')
  questionsOf(content).forEach(({ question, answer }, i) => {
    b.fix(['mainEntity', i, '@type'], 'Question')
    b.put(['mainEntity', i, 'name'], pieceAs('question', 'a question on the page', question))
    b.fix(['mainEntity', i, 'acceptedAnswer', '@type'], 'Answer')
    b.put(['mainEntity', i, 'acceptedAnswer', 'text'], {
      ...pieceAs('answer', 'the text under it', answer[0]!),
      value: answer.map((a) => a.text).join(' '),
    })
  })
  return b
}

export function breadcrumbList({ site, page }: Material): Builder {
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
}

export function article(material: Material): Builder {
  const b = new Builder('Article')
  b.put(['headline'], headline(material))
  b.put(['description'], description(material))
  const image = picture(material)
  if (image) b.put(['image', 0], image)
  b.put(['datePublished'], date(material, named.published, 'published'))
  b.put(['dateModified'], date(material, named.updated, 'updated'))
  const { content, page } = material
  const byline = content.pieces.find(
    (p) => p.kind !== 'heading' && p.text.length < 120 && /^(?:[Bb]y|[Aa]f|[Vv]on)\s+\p{Lu}/u.test(p.text),
  )
  const name =
    byline &&
    /^(?:by|af|von)\s+([^,·|–—.]+?)(?:\s+(?:on|published|den)\b.*)?(?:[,·|–—.].*)?$/iu.exec(byline.text)?.[1]
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
  organisation(b, ['publisher'], material)
  b.put(['mainEntityOfPage'], addressOfPage(material))
  return b
}

export function course(material: Material): Builder {
  const b = new Builder('Course')
  b.put(['name'], headline(material))
  b.put(['description'], description(material) ?? lead(material))
  organisation(b, ['provider'], material)
  const when = label(material, named.when)
  const day = when && dateIn(when.value, material.lang)
  if (when && day) {
    b.fix(['hasCourseInstance', '@type'], 'CourseInstance')
    b.put(['hasCourseInstance', 'startDate'], {
      value: day,
      what: `beside “${when.name}”`,
      start: when.start,
      role: 'start',
    })
  }
  price(b, ['offers'], material)
  return b
}

export function videoObject(material: Material): Builder {
  const b = new Builder('VideoObject')
  const { content, page } = material
  const video = content.videos[0]
  b.put(['name'], headline(material))
  b.put(['description'], description(material))
  const whole = (href: string) => resolveAddress(href, page.url) ?? ''
  if (video?.poster)
    b.put(['thumbnailUrl'], {
      value: whole(video.poster),
      what: 'the film’s still',
      start: video.start,
      role: 'poster',
    })
  b.put(['uploadDate'], date(material, named.filmed, 'uploaded'))
  if (video)
    b.put([/\.(?:mp4|webm|ogv|mov|m4v)(?:[?#]|$)/i.test(video.src) ? 'contentUrl' : 'embedUrl'], {
      value: whole(video.src),
      what: 'the film',
      start: video.start,
      role: 'video',
    })
  const length = label(material, named.length)
  const duration = length && durationIn(length.value)
  if (length && duration)
    b.put(['duration'], {
      value: duration,
      what: `beside “${length.name}”`,
      start: length.start,
      role: 'length',
    })
  return b
}

export function webPage(material: Material): Builder {
  const b = new Builder('WebPage')
  b.put(['name'], headline(material))
  b.put(['url'], addressOfPage(material))
  organisation(b, ['publisher'], material)
  return b
}
