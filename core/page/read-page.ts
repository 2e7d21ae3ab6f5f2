/** Proof to facts: one parse, one walk over the tree. */
import { isUtf8 } from './encoding.ts'
import type { AnchorFact, DataBlock, HeadingFact, Landmark, MainBy, PageFacts, Place } from './facts.ts'
import { attribute, HTML, isElement, parsePage, type Element, type Node } from './parse.ts'
import { resolveAddress } from '../site/addresses.ts'
import { toBytePlaces } from './places.ts'
import type { Source } from './source.ts'
import { countWords } from './words.ts'

const NOT_TEXT = new Set([
  'script',
  'style',
  'template',
  'noscript',
  'textarea',
  'iframe',
  'noframes',
  'noembed',
  'object',
  'select',
  'desc',
  'metadata',
  'head',
  'title',
  'audio',
  'video',
  'canvas',
  'datalist',
])
const INLINE = new Set([
  'a',
  'abbr',
  'acronym',
  'b',
  'bdi',
  'bdo',
  'big',
  'cite',
  'code',
  'data',
  'del',
  'dfn',
  'em',
  'font',
  'i',
  'img',
  'ins',
  'kbd',
  'label',
  'mark',
  'nobr',
  'q',
  'rp',
  'rt',
  'ruby',
  's',
  'samp',
  'small',
  'span',
  'strike',
  'strong',
  'sub',
  'sup',
  'time',
  'tt',
  'u',
  'var',
  'wbr',
  'picture',
  'source',
])
/** Within these a header or footer is the part's own, not the page's (HTML-AAM 1.0, header and footer). */
const SECTIONING = new Set(['article', 'aside', 'main', 'nav', 'section'])
const ROLE_LANDMARK: Record<string, Landmark> = {
  banner: 'header',
  navigation: 'nav',
  main: 'main',
  complementary: 'aside',
  contentinfo: 'footer',
  search: 'search',
}
const hiding = /(?:^|;)\s*(?:display\s*:\s*none|visibility\s*:\s*hidden)\b/i
const folding = /[ \t\n\f\r]+/g

/** As shown: white space folded and trimmed. */
export const fold = (text: string) => text.replace(folding, ' ').trim()

/** One element that is open during the walk. */
interface Frame {
  node: Element
  next: number
  hidden: boolean
  /** Not drawn: its text is no visible text. */
  unseen: boolean
  landmark: Landmark | null
  sectioning: boolean
  inHead: boolean
  leave: (() => void) | null
  block: boolean
}

interface Capture {
  text: string
}

function landmarkOf(node: Element, role: string | null, sectioning: boolean): Landmark | null {
  if (role !== null && role !== '') return ROLE_LANDMARK[role] ?? null
  switch (node.tagName) {
    case 'main':
    case 'nav':
    case 'aside':
    case 'search':
      return node.tagName
    case 'header':
    case 'footer':
      return sectioning ? null : node.tagName
    default:
      return null
  }
}

/** A stretch of the body's visible text. */
interface Region {
  from: number
  to: number
}

/**
 * Reads a page. `path` and `url` are where it was taken in and its address; relative addresses resolve against the
 * page's `<base>` and that address. Never throws, on any text.
 */
export function readPage(source: Source, where: { path: string; url: string }): PageFacts {
  const { text } = source
  const { document, comments, errors } = parsePage(text)
  const page: PageFacts = {
    path: where.path,
    url: where.url,
    length: text.length,
    doctype: document.childNodes.some((n) => n.nodeName === '#documentType'),
    charset: {
      encoding: source.encoding,
      by: source.encodingBy,
      utf8: source.encoding === 'utf-8' || isUtf8(source.bytes),
      late: null,
    },
    html: null,
    lang: null,
    base: null,
    titles: [],
    metas: [],
    canonicals: [],
    alternates: [],
    headings: [],
    landmarks: [],
    images: [],
    links: [],
    ids: [],
    data: [],
    comments,
    parseErrors: errors,
    main: { by: 'body', text: '', words: 0 },
  }

  let base = where.url
  const seenIds = new Set<number>()
  const labelled: { image: PageFacts['images'][number]; ids: string[] }[] = []
  const parts: string[] = []
  let length = 0
  const captures: Capture[] = []
  const mains: (Region & { by: MainBy })[] = []
  const articles: Region[] = []
  const excluded: Region[] = []
  let openHeading: HeadingFact | null = null
  let headingTextFrom = 0

  const say = (chunk: string, unseen: boolean) => {
    if (!unseen) {
      parts.push(chunk)
      length += chunk.length
    }
    for (const capture of captures) capture.text += chunk
  }
  const words = (from: number) => {
    const joined = parts.slice(from).join('')
    return countWords(joined)
  }

  const place = (node: Element): Place => ({
    start: node.place?.start ?? 0,
    end: node.place?.startEnd ?? null,
  })

  function enterHead(node: Element, inHead: boolean): void {
    switch (node.tagName) {
      case 'title':
        page.titles.push({ text: fold(textOf(node)), inHead, ...place(node) })
        break
      case 'base':
        if (page.base === null) {
          const href = attribute(node, 'href')
          if (href !== null) {
            page.base = href
            base = resolveAddress(href, where.url) ?? where.url
          }
        }
        break
      case 'meta': {
        const name = attribute(node, 'name') ?? attribute(node, 'property') ?? attribute(node, 'http-equiv')
        const charset = attribute(node, 'charset')
        if (name !== null)
          page.metas.push({
            name: name.trim().toLowerCase(),
            content: fold(attribute(node, 'content') ?? ''),
            inHead,
            ...place(node),
          })
        const declares =
          charset !== null ||
          (name?.toLowerCase() === 'content-type' && /charset/i.test(attribute(node, 'content') ?? ''))
        if (
          declares &&
          node.place &&
          page.charset.late === null &&
          source.encodingBy !== 'meta' &&
          source.encodingBy !== 'bom'
        ) {
          const [end] = toBytePlaces(source, [node.place.startEnd])
          if (end! > 1024) page.charset.late = place(node)
        }
        break
      }
      case 'link': {
        const rel = attribute(node, 'rel')?.toLowerCase().split(/\s+/) ?? []
        const href = (attribute(node, 'href') ?? '').trim()
        const url = href === '' ? null : resolveAddress(href, base)
        if (rel.includes('canonical')) page.canonicals.push({ href, url, inHead, ...place(node) })
        else if (rel.includes('alternate')) page.alternates.push({ href, url, inHead, ...place(node) })
        break
      }
    }
  }

  function data(node: Element): void {
    if (!/^application\/ld\+json\s*(;|$)/i.test((attribute(node, 'type') ?? '').trim()) || !node.place) return
    const jsonStart = node.place.startEnd
    const json = text.slice(jsonStart, node.place.endStart ?? text.length)
    const block: DataBlock = { json, jsonStart, ...place(node) }
    page.data.push(block)
  }

  function heading(node: Element, frame: Frame, role: string | null): void {
    const byTag = /^h[1-6]$/.test(node.tagName)
    const byRole = role === 'heading'
    if (!byTag && !byRole) return
    const level = byRole
      ? Number(attribute(node, 'aria-level') ?? (byTag ? node.tagName[1] : 2))
      : Number(node.tagName[1])
    closeHeading()
    const previous = page.headings.at(-1)
    const fact: HeadingFact = {
      level: level >= 1 && Number.isInteger(level) ? level : 2,
      text: '',
      landmark: frame.landmark,
      className: attribute(node, 'class') ?? '',
      id: attribute(node, 'id') ?? '',
      label: fold(attribute(node, 'aria-label') ?? ''),
      role: role && role !== '' ? role : null,
      hidden: frame.hidden,
      start: node.place?.start ?? 0,
      end: node.place?.end ?? null,
      startEnd: node.place?.startEnd ?? 0,
      endStart: node.place?.endStart ?? null,
      adjacent:
        previous?.end != null &&
        node.place !== undefined &&
        text.slice(previous.end, node.place.start).trim() === '',
      words: 0,
    }
    page.headings.push(fact)
    const capture = { text: '' }
    captures.push(capture)
    const before = frame.leave
    frame.leave = () => {
      before?.()
      captures.splice(captures.indexOf(capture), 1)
      fact.text = fold(capture.text)
      openHeading = fact
      headingTextFrom = parts.length
    }
  }
  function closeHeading(): void {
    if (openHeading) openHeading.words = words(headingTextFrom)
    openHeading = null
  }

  function enter(node: Element, up: Frame | null): Frame {
    const role = attribute(node, 'role')?.trim().toLowerCase().split(/\s+/)[0] ?? null
    const tag = node.tagName
    const isHtml = node.namespaceURI === HTML
    let hides = false
    let invisible = false
    for (const a of node.attrs) {
      switch (a.name) {
        case 'hidden':
          hides = invisible = a.value.toLowerCase() !== 'until-found'
          break
        case 'aria-hidden':
          if (a.value.trim().toLowerCase() === 'true') hides = true
          break
        case 'style':
          if (hiding.test(a.value)) hides = invisible = true
          break
        case 'id':
          if (node.place && a.value !== '' && !seenIds.has(node.place.start)) {
            seenIds.add(node.place.start)
            page.ids.push({ id: a.value, ...place(node) })
          }
          break
      }
    }
    const own = isHtml ? landmarkOf(node, role, up?.sectioning ?? false) : null
    const frame: Frame = {
      node,
      next: 0,
      hidden: hides || (up?.hidden ?? false),
      unseen: invisible || (up?.unseen ?? false) || NOT_TEXT.has(tag),
      landmark: own ?? up?.landmark ?? null,
      sectioning: (up?.sectioning ?? false) || SECTIONING.has(tag),
      inHead: tag === 'head' || (up?.inHead ?? false),
      leave: null,
      // A drawing's words stand in boxes of their own.
      block: isHtml ? !INLINE.has(tag) : tag === 'text',
    }
    if (!isHtml) {
      if (frame.block) say('\n', frame.unseen)
      return frame
    }
    if (tag === 'html') {
      page.lang = attribute(node, 'lang')
      page.html = node.place ? place(node) : null
      return frame
    }
    enterHead(node, frame.inHead)
    if (tag === 'script') data(node)
    if (frame.inHead) return frame
    if (frame.block) say('\n', frame.unseen)
    if (tag === 'br') say('\n', frame.unseen)

    if (own) {
      const fact = {
        landmark: own,
        label: fold(attribute(node, 'aria-label') ?? ''),
        hidden: frame.hidden,
        ...place(node),
      }
      page.landmarks.push(fact)
      const from = length
      closeHeading()
      frame.leave = () => {
        closeHeading()
        fact.end = node.place?.end ?? null
        if (own === 'main') {
          if (!frame.unseen) mains.push({ from, to: length, by: tag === 'main' ? 'main' : 'role' })
        } else excluded.push({ from, to: length })
      }
    } else if (tag === 'article') {
      const from = length
      frame.leave = () => void (frame.unseen || articles.push({ from, to: length }))
    }
    heading(node, frame, role)
    if (tag === 'img') image(node, frame, role)
    if (tag === 'a' || tag === 'area') anchor(node, frame)
    return frame
  }

  function image(node: Element, frame: Frame, role: string | null): void {
    const alt = attribute(node, 'alt')
    const fact = {
      src: (attribute(node, 'src') ?? '').trim(),
      alt,
      named: fold(attribute(node, 'aria-label') ?? '') !== '' || fold(attribute(node, 'title') ?? '') !== '',
      presentational: role === 'presentation' || role === 'none',
      hidden: frame.hidden,
      ...place(node),
    }
    page.images.push(fact)
    const ids = attribute(node, 'aria-labelledby')
    if (ids) labelled.push({ image: fact, ids: ids.split(/\s+/) })
    if (alt !== null && !frame.hidden) for (const capture of captures) capture.text += ` ${alt} `
  }

  function anchor(node: Element, frame: Frame): void {
    const href = attribute(node, 'href')
    if (href === null) return
    const trimmed = href.trim()
    const fact: AnchorFact = {
      href: trimmed,
      url: resolveAddress(trimmed, base),
      text: '',
      landmark: frame.landmark,
      ...place(node),
    }
    page.links.push(fact)
    const capture = { text: '' }
    captures.push(capture)
    const before = frame.leave
    frame.leave = () => {
      before?.()
      captures.splice(captures.indexOf(capture), 1)
      fact.text = fold(capture.text)
    }
  }

  walk(
    document.childNodes,
    enter,
    (node, frame) => {
      if (frame.unseen && NOT_TEXT.has(frame.node.tagName)) return
      if (!frame.inHead && frame.node.tagName !== 'html') say(node.value.replace(folding, ' '), frame.unseen)
    },
    (frame) => {
      frame.leave?.()
      if (frame.block && !frame.inHead) say('\n', frame.unseen)
    },
  )
  closeHeading()
  for (const { image: fact, ids } of labelled)
    if (ids.some((id) => page.ids.some((i) => i.id === id))) fact.named = true

  page.main = mainContent(parts.join(''), mains, articles, excluded)
  return page
}

/** Depth-first, by a stack of its own: pages nest deeper than the call stack does. */
function walk(
  roots: Node[],
  enter: (node: Element, up: Frame | null) => Frame,
  onText: (node: { value: string }, frame: Frame) => void,
  leave: (frame: Frame) => void,
): void {
  const stack: Frame[] = []
  for (const root of roots) {
    if (!isElement(root)) continue
    stack.push(enter(root, null))
    while (stack.length > 0) {
      const frame = stack[stack.length - 1]!
      const child = frame.node.childNodes[frame.next++]
      if (child === undefined) {
        stack.pop()
        leave(frame)
      } else if (isElement(child)) stack.push(enter(child, frame))
      else if (child.nodeName === '#text') onText(child as unknown as { value: string }, frame)
    }
  }
}

function textOf(node: Element): string {
  let text = ''
  for (const child of node.childNodes) if ('value' in child) text += child.value
  return text
}

function mainContent(
  all: string,
  mains: (Region & { by: MainBy })[],
  articles: Region[],
  excluded: Region[],
): PageFacts['main'] {
  let by: MainBy = 'body'
  let content: string
  const main = mains.sort((a, b) => a.from - b.from)[0]
  if (main) {
    by = main.by
    content = all.slice(main.from, main.to)
  } else if (articles.length === 1) {
    by = 'article'
    content = all.slice(articles[0]!.from, articles[0]!.to)
  } else {
    content = ''
    let at = 0
    for (const { from, to } of excluded.sort((a, b) => a.from - b.from)) {
      if (from > at) content += all.slice(at, from)
      at = Math.max(at, to)
    }
    content += all.slice(at)
  }
  const text = content
    .replace(/ *\n[ \n]*/g, '\n')
    .replace(/ {2,}/g, ' ')
    .trim()
  return { by, text, words: countWords(text) }
}
