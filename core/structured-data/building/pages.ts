/** Data about what a page says: questions, its place in the site, articles, courses, films, pages. */
import {
  Builder,
  type Ground,
  type Found,
  date,
  description,
  headline,
  label,
  lead,
  named,
  organisation,
  own,
  picture,
  pieceAs,
  price,
  questionsOf,
} from './ground.ts'
import { dateIn, durationIn } from '../figures-in-text.ts'
import { resolveAddress } from '../../addresses/addresses.ts'

export function faqPage({ content }: Ground): Builder {
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

export function breadcrumbList({ site, page }: Ground): Builder {
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

export function article(ground: Ground): Builder {
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
  organisation(b, ['publisher'], ground)
  b.put(['mainEntityOfPage'], own(ground))
  return b
}

export function course(ground: Ground): Builder {
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
}

export function videoObject(ground: Ground): Builder {
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
}

export function webPage(ground: Ground): Builder {
  const b = new Builder('WebPage')
  b.put(['name'], headline(ground))
  b.put(['url'], own(ground))
  organisation(b, ['publisher'], ground)
  return b
}
