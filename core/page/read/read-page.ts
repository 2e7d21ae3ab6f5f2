/** Proof to facts: one parse, one walk over the tree. */
import {
  CONTAINER,
  FORM_CONTROL,
  INLINE,
  isHeadingTag,
  kindOf,
  landmarkOf,
  NO_HEADINGS,
  NOT_TEXT,
  SECTIONING,
} from './elements.ts'
import { isUtf8 } from '../source/encoding.ts'
import type {
  AnchorFact,
  ControlFact,
  DataBlock,
  FocusableFact,
  HeadingFact,
  Landmark,
  LookAlikeFact,
  PageFacts,
  Place,
} from './facts.ts'
import { couldBeHeading, emptyBox, looksBy, type Box } from './look-alike.ts'
import { isOwnSign } from './heading-sign.ts'
import { findMain, isChosen, textOfRegions, type Candidates } from './main-content.ts'
import { attribute, HTML, isElement, parsePage, type Element, type Node } from './parse.ts'
import { resolveAddress } from '../../addresses/addresses.ts'
import { resolverFor } from '../../addresses/resolver.ts'
import { toBytePlaces } from '../source/places.ts'
import type { Source } from '../source/source.ts'
import { fold, foldSpaces } from '../../strings.ts'
import { countWords } from '../../words/count-words.ts'

/** So many things from the top are looked at for a skip link; common practice: it is the first, or right behind the home link. */
const FIRST_FOCUSABLE = 4
const boldStyle = /(?:^|;)\s*font-weight\s*:\s*(?:bold|bolder|[6-9]00)\b/i
const hiding = /(?:^|;)\s*(?:display\s*:\s*none|visibility\s*:\s*hidden)\b/i
/** A level deeper than this is none that a page can mean; WAI-ARIA 1.2 sets no bound. From memory. */
const DEEPEST_LEVEL = 99
/** Headings and links that gather their words at one time: deeper nesting than this is no page's, and the outermost are let go. */
const MOST_CAPTURES = 32

/** Whether an element is named by something else than what stands in it. */
const isNamed = (node: Element): boolean =>
  ['aria-label', 'aria-labelledby', 'title'].some((a) => fold(attribute(node, a) ?? '') !== '')

/** Whether an image's tag keeps room for it: a width and a height, or a ratio or both sizes in its style. */
function isSized(node: Element, style: string): boolean {
  const figure = (name: string) => /^\s*\d/.test(attribute(node, name) ?? '')
  if (figure('width') && figure('height')) return true
  const says = (name: string) =>
    new Set(style.split(';').map((d) => d.split(':', 1)[0]!.trim().toLowerCase())).has(name)
  return style !== '' && (says('aspect-ratio') || (says('height') && (says('width') || figure('width'))))
}

/** The address that a script of one statement goes to, such as `location.href='/visit/'`; null for any other script. */
function addressOfScript(script: string): string | null {
  const goes =
    /^\s*(?:return\s+)?(?:(?:window|document|self|top)\.)?(?:location(?:\.href)?\s*=\s*|location\.(?:assign|replace)\(\s*|open\(\s*)(["'])([^"']{1,2000})\1[^;]{0,100};?\s*(?:return\s+false;?\s*)?$/
  return goes.exec(script.slice(0, 4000))?.[2] ?? null
}

/** One element that is open during the walk; frames are used again, one for each depth. */
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
  bold: boolean
  linked: boolean
  /** Within something in which no heading of the page is looked for. */
  noHeadings: boolean
  /** Within banner, menu, aside or footer. */
  furniture: boolean
  /** Counts of the paragraph or div that the text here belongs to; `ownBox` where this element is the one. */
  box: Box | null
  ownBox: boolean
  className: string | null
  style: string
  /** Where the element's text begins, in parts and in characters, and the running text before it; -1: no container. */
  part: number
  from: number
  prose: number
  /** Whether the element holds headings only, once asked. */
  onlyHeadings: boolean | null
}

interface Capture {
  text: string
  images: string[]
  /** Whether the whole of it is hidden; else what is hidden within is no part of it. */
  hidden: boolean
  /** Of a heading: the last link in it that is only a sign for itself, in places of the text. */
  sign?: { from: number; to: number }
}

/** Whether an element holds headings, white space and comments only, and more than one heading. */
function holdsOnlyHeadings(node: Element): boolean {
  let headings = 0
  for (const child of node.childNodes)
    if (isElement(child)) {
      if (!isHeadingTag(child.tagName)) return false
      headings++
    } else if (child.nodeName === '#text' && (child as unknown as { value: string }).value.trim() !== '')
      return false
  return headings > 1
}

/** Where a page was taken in, its address, and what the house says of where its main content stands. */
export interface Where {
  path: string
  url: string
  main?: string | null
}

/**
 * Reads a page. Relative addresses resolve against the page's `<base>` and its address. Never throws, on any text.
 */
export function readPage(source: Source, where: Where): PageFacts {
  const { text } = source
  const { beyond, document, comments, errors } = parsePage(text)
  const page: PageFacts = {
    beyond,
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
    rels: [],
    headings: [],
    lookAlikes: [],
    unnamedSections: [],
    focusables: [],
    bodyStart: null,
    landmarks: [],
    images: [],
    links: [],
    controls: [],
    ids: [],
    data: [],
    inline: { microdata: false, rdfa: false },
    comments,
    parseErrors: errors,
    text: '',
    main: { by: 'body', text: '', words: 0, lead: 0 },
  }

  let resolve = resolverFor(where.url)
  const seenIds = new Set<number>()
  const labelled: { image: PageFacts['images'][number]; ids: string[] }[] = []
  const ids = new Set<string>()
  const parts: string[] = []
  let length = 0
  const captures: Capture[] = []
  const candidates: Candidates = {
    chosen: null,
    mains: [],
    articles: [],
    containers: [],
    excluded: [],
    prose: 0,
  }
  /** Where each heading's words begin in the text, to tell which stand in the main content. */
  const textAt: number[] = []
  let openHeading: HeadingFact | null = null
  /** Of the heading that the walk is in. */
  let headingCapture: Capture | null = null
  /** The words under each heading, as stretches of the text. */
  const under: { fact: HeadingFact; from: number; to: number }[] = []
  let headingTextFrom = 0

  const say = (chunk: string, { unseen, hidden }: Frame) => {
    // One line end says as much as several.
    if (!unseen && (chunk !== '\n' || parts.length === 0 || parts[parts.length - 1] !== '\n')) {
      parts.push(chunk)
      length += chunk.length
    }
    for (const capture of captures) if (!hidden || capture.hidden) capture.text += chunk
  }

  const open = (capture: Capture) => {
    captures.push(capture)
    if (captures.length > MOST_CAPTURES) captures.shift()
  }
  const close = (capture: Capture) => {
    const at = captures.indexOf(capture)
    if (at >= 0) captures.splice(at, 1)
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
            resolve = resolverFor(resolveAddress(href, where.url) ?? where.url)
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
        const url = href === '' ? null : resolve(href)
        if (rel.includes('canonical')) page.canonicals.push({ href, url, inHead, ...place(node) })
        else if (rel.includes('alternate')) page.alternates.push({ href, url, inHead, ...place(node) })
        else page.rels.push({ rel: rel.join(' '), href, url, inHead, ...place(node) })
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

  function heading(node: Element, frame: Frame, role: string | null, up: Frame | null): void {
    const byTag = isHeadingTag(node.tagName)
    const byRole = role === 'heading'
    if (!byTag && !byRole) return
    const level = byRole
      ? Number(attribute(node, 'aria-level') ?? (byTag ? node.tagName[1] : 2))
      : Number(node.tagName[1])
    closeHeading()
    if (up) up.onlyHeadings ??= up.node.tagName === 'header' || holdsOnlyHeadings(up.node)
    const previous = page.headings.at(-1)
    const fact: HeadingFact = {
      level: level >= 1 && level <= DEEPEST_LEVEL && Number.isInteger(level) ? level : 2,
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
      tag: node.tagName,
      ariaLevel: attribute(node, 'aria-level'),
      images: [],
      group: up?.onlyHeadings ? (up.node.place?.start ?? null) : null,
      inMain: false,
      words: 0,
    }
    page.headings.push(fact)
    textAt.push(length)
    const capture: Capture = { text: '', images: fact.images, hidden: frame.hidden }
    open(capture)
    headingCapture = capture
    onLeave(frame, () => {
      close(capture)
      headingCapture = null
      const { text, sign } = capture
      fact.text = fold(sign && fold(text.slice(sign.to)) === '' ? text.slice(0, sign.from) : text)
      openHeading = fact
      headingTextFrom = length
    })
  }
  function closeHeading(): void {
    if (openHeading) under.push({ fact: openHeading, from: headingTextFrom, to: length })
    openHeading = null
  }

  function enter(frame: Frame, node: Element, up: Frame | null): void {
    const tag = node.tagName
    const kind = kindOf(tag)
    const isHtml = node.namespaceURI === HTML
    let role: string | null = null
    let hides = false
    let invisible = false
    let style = ''
    let className: string | null = null
    let id: string | null = null
    for (const a of node.attrs) {
      switch (a.name) {
        case 'role':
          role = a.value.trim().toLowerCase().split(/\s+/)[0]!
          break
        case 'hidden':
          hides = invisible = a.value.toLowerCase() !== 'until-found'
          break
        case 'aria-hidden':
          if (a.value.trim().toLowerCase() === 'true') hides = true
          break
        case 'style':
          style = a.value
          if (hiding.test(style)) hides = invisible = true
          break
        case 'class':
          className = a.value
          break
        case 'itemscope':
          page.inline.microdata = true
          break
        case 'typeof':
          page.inline.rdfa = true
          break
        case 'id':
          id = a.value
          if (node.place && a.value !== '' && !seenIds.has(node.place.start)) {
            seenIds.add(node.place.start)
            ids.add(a.value)
            page.ids.push({ id: a.value, ...place(node) })
          }
          break
      }
    }
    const own = isHtml ? landmarkOf(node, role, up?.sectioning ?? false) : null
    frame.node = node
    frame.next = 0
    frame.hidden = hides || (up?.hidden ?? false)
    frame.unseen = invisible || (up?.unseen ?? false) || (kind & NOT_TEXT) !== 0
    frame.landmark = own ?? up?.landmark ?? null
    frame.sectioning = (up?.sectioning ?? false) || (kind & SECTIONING) !== 0
    frame.inHead = tag === 'head' || (up?.inHead ?? false)
    frame.leave = null
    // A drawing's words stand in boxes of their own.
    frame.block = isHtml ? (kind & INLINE) === 0 : tag === 'text'
    frame.bold =
      (up?.bold ?? false) || tag === 'b' || tag === 'strong' || (style !== '' && boldStyle.test(style))
    frame.linked = (up?.linked ?? false) || tag === 'a'
    frame.noHeadings = (up?.noHeadings ?? false) || (kind & NO_HEADINGS) !== 0
    frame.furniture = (up?.furniture ?? false) || (own !== null && own !== 'main')
    frame.box = up?.box ?? null
    frame.ownBox = false
    frame.className = className
    frame.style = style
    frame.part = 0
    frame.from = -1
    frame.prose = 0
    frame.onlyHeadings = null
    if (frame.box && (frame.block || !isHtml || tag === 'img')) frame.box.mixed = true
    if (!isHtml) {
      if (frame.block) say('\n', frame)
      return
    }
    if (tag === 'html') {
      page.lang = attribute(node, 'lang')
      page.html = node.place ? place(node) : null
      return
    }
    enterHead(node, frame.inHead)
    if (tag === 'script') data(node)
    if (frame.inHead) return
    if (frame.block || tag === 'br') say('\n', frame)
    if (page.bodyStart === null && node.place && up?.node.tagName === 'body') page.bodyStart = place(node)
    if ((tag === 'p' || tag === 'div') && !frame.noHeadings && !frame.hidden) {
      frame.box = emptyBox()
      // One with a role is something else; its text counts as its own all the same.
      frame.ownBox = role === null && !frame.furniture
      frame.part = parts.length
    } else if (frame.block) frame.box = null
    if (page.focusables.length < FIRST_FOCUSABLE && !frame.hidden) focusable(node, kind)
    if (
      where.main &&
      candidates.chosen === null &&
      !frame.unseen &&
      isChosen(where.main, tag, id, className)
    ) {
      const region = { from: length, to: length }
      candidates.chosen = region
      onLeave(frame, () => void (region.to = length))
    }
    if ((kind & CONTAINER) !== 0 && !own && !frame.unseen && !frame.furniture) {
      frame.from = length
      frame.prose = candidates.prose
    }
    if (tag === 'section') section(node, frame)

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
      onLeave(frame, () => {
        closeHeading()
        fact.end = node.place?.end ?? null
        if (own === 'main') {
          if (!frame.unseen) candidates.mains.push({ from, to: length, by: tag === 'main' ? 'main' : 'role' })
        } else candidates.excluded.push({ from, to: length })
      })
    } else if (tag === 'article') {
      const from = length
      onLeave(frame, () => void (frame.unseen || candidates.articles.push({ from, to: length })))
    }
    heading(node, frame, role, up)
    if (tag === 'img') image(node, frame, role)
    if (tag === 'a' || tag === 'area') anchor(node, frame)
    if (tag === 'a' || tag === 'button') control(node, frame, role)
  }

  /** Whether a paragraph or div of the content, now left, looks like a heading. */
  function lookAlike({ node, box, className, style, part }: Frame): void {
    const by = looksBy(box!, className ?? '', style)
    if (by === null) return
    const text = fold(parts.slice(part).join(''))
    if (!couldBeHeading(text)) return
    const fact: LookAlikeFact = {
      tag: node.tagName as 'p' | 'div',
      text,
      className: className ?? '',
      by,
      start: node.place?.start ?? 0,
      end: node.place?.end ?? null,
      startEnd: node.place?.startEnd ?? 0,
      endStart: node.place?.endStart ?? null,
    }
    page.lookAlikes.push(fact)
  }

  /** A section that has neither a heading within it nor a name of its own. */
  function section(node: Element, frame: Frame): void {
    if (frame.hidden || attribute(node, 'aria-label') || attribute(node, 'aria-labelledby')) return
    const headings = page.headings.length
    const at = place(node)
    onLeave(frame, () => {
      if (page.headings.length === headings) page.unnamedSections.push(at)
    })
  }

  function focusable(node: Element, kind: number): void {
    const tag = node.tagName
    const href = tag === 'a' || tag === 'area' ? attribute(node, 'href') : null
    const reached =
      href !== null ||
      ((kind & FORM_CONTROL) !== 0 &&
        attribute(node, 'disabled') === null &&
        attribute(node, 'type')?.toLowerCase() !== 'hidden') ||
      Number(attribute(node, 'tabindex') ?? -1) >= 0
    if (!reached || Number(attribute(node, 'tabindex') ?? 0) < 0) return
    const fact: FocusableFact = { href: href?.trim() ?? null, ...place(node) }
    page.focusables.push(fact)
  }

  function image(node: Element, frame: Frame, role: string | null): void {
    const alt = attribute(node, 'alt')
    const fact = {
      sized: isSized(node, frame.style),
      src: (attribute(node, 'src') ?? '').trim(),
      alt,
      named: fold(attribute(node, 'aria-label') ?? '') !== '' || fold(attribute(node, 'title') ?? '') !== '',
      presentational: role === 'presentation' || role === 'none',
      hidden: frame.hidden,
      ...place(node),
    }
    page.images.push(fact)
    const labelledBy = attribute(node, 'aria-labelledby')
    if (labelledBy) labelled.push({ image: fact, ids: labelledBy.split(/\s+/) })
    if (alt !== null && !frame.hidden)
      for (const capture of captures) {
        capture.text += ` ${alt} `
        if (fold(alt) !== '') capture.images.push(fold(alt))
      }
  }

  function control(node: Element, frame: Frame, role: string | null): void {
    const tag = node.tagName as 'a' | 'button'
    if (tag === 'a' && (attribute(node, 'href') !== null || (role !== null && role !== 'link'))) return
    // An anchor that is led to is no link.
    if (tag === 'a' && (attribute(node, 'id') !== null || attribute(node, 'name') !== null)) return
    const fact: ControlFact = {
      tag,
      text: '',
      named: isNamed(node),
      goesTo: tag === 'button' ? addressOfScript(attribute(node, 'onclick') ?? '') : null,
      hidden: frame.hidden,
      ...place(node),
    }
    page.controls.push(fact)
    const capture: Capture = { text: '', images: [], hidden: frame.hidden }
    open(capture)
    onLeave(frame, () => {
      close(capture)
      fact.text = fold(capture.text)
    })
  }

  function anchor(node: Element, frame: Frame): void {
    const href = attribute(node, 'href')
    if (href === null) return
    const trimmed = href.trim()
    const fact: AnchorFact = {
      href: trimmed,
      url: resolve(trimmed),
      text: '',
      landmark: frame.landmark,
      untabbed: node.tagName === 'area' || attribute(node, 'tabindex') === '-1',
      named: isNamed(node),
      hidden: frame.hidden,
      ...place(node),
    }
    page.links.push(fact)
    const capture: Capture = { text: '', images: [], hidden: frame.hidden }
    open(capture)
    const within = headingCapture
    const from = within?.text.length ?? 0
    onLeave(frame, () => {
      close(capture)
      fact.text = fold(capture.text)
      if (within && isOwnSign(fact.text)) within.sign = { from, to: within.text.length }
    })
  }

  walk(
    document.childNodes,
    enter,
    (node, frame) => {
      if (frame.unseen && (kindOf(frame.node.tagName) & NOT_TEXT) !== 0) return
      if (frame.inHead || frame.node.tagName === 'html') return
      const chunk = foldSpaces(node.value)
      say(chunk, frame)
      if (frame.unseen || chunk === ' ' || chunk === '') return
      if (frame.box) {
        if (frame.bold) frame.box.bold += chunk.length
        else frame.box.plain += chunk.length
        if (frame.linked) frame.box.linked += chunk.length
      }
      if (!frame.linked && !frame.furniture) candidates.prose += chunk.length
    },
    (frame) => {
      if (frame.ownBox) lookAlike(frame)
      if (frame.from >= 0 && candidates.prose > frame.prose)
        candidates.containers.push({ from: frame.from, to: length, prose: candidates.prose - frame.prose })
      frame.leave?.()
      if (frame.block && !frame.inHead) say('\n', frame)
    },
  )
  closeHeading()
  page.beyond ??= tooMuch(page)
  for (const { image: fact, ids: of } of labelled) if (of.some((id) => ids.has(id))) fact.named = true

  const all = parts.join('')
  page.text = all
  for (const { fact, from, to } of under) fact.words = countWords(all, from, to)
  const { by, regions } = findMain(all, candidates)
  let first = -1
  // Both in document order: one pass over the regions is enough.
  let region = 0
  page.headings.forEach((h, i) => {
    const at = textAt[i]!
    while (region < regions.length && at >= regions[region]!.to) region++
    h.inMain = region < regions.length && at >= regions[region]!.from
    if (h.inMain && !h.hidden && first < 0) first = at
  })
  const content = textOfRegions(all, regions)
  page.main = {
    by,
    ...content,
    lead: first < 0 ? content.words : textOfRegions(all, regions, first).words,
  }
  return page
}

/** More headings than this are no outline; a title longer than this, in UTF-16 units, is none. From memory. */
const MOST_HEADINGS = 20_000
const LONGEST_TITLE = 20_000

/** Why a page that was read says more than can be judged; null where it does not. */
function tooMuch({ headings, titles }: PageFacts): string | null {
  if (headings.length > MOST_HEADINGS)
    return `It has ${headings.length.toLocaleString('en')} headings; at most ${MOST_HEADINGS.toLocaleString('en')} are read. Divide the page and take it in again.`
  const longest = titles.reduce((n, t) => Math.max(n, t.text.length), 0)
  return longest > LONGEST_TITLE
    ? `Its title has ${longest.toLocaleString('en')} characters; at most ${LONGEST_TITLE.toLocaleString('en')} are read. Close or shorten the title in the source and take the page in again.`
    : null
}

/** Something more to do when an element is left, in the order in which it was asked for. */
function onLeave(frame: Frame, job: () => void): void {
  const before = frame.leave
  frame.leave = before
    ? () => {
        before()
        job()
      }
    : job
}

/** Depth-first, by a stack of its own: pages nest deeper than the call stack does. */
function walk(
  roots: Node[],
  enter: (frame: Frame, node: Element, up: Frame | null) => void,
  onText: (node: { value: string }, frame: Frame) => void,
  leave: (frame: Frame) => void,
): void {
  const frames: Frame[] = []
  let depth = -1
  const open = (node: Element) => {
    depth++
    if (depth === frames.length) frames.push({} as Frame)
    enter(frames[depth]!, node, depth > 0 ? frames[depth - 1]! : null)
  }
  for (const root of roots) {
    if (!isElement(root)) continue
    open(root)
    while (depth >= 0) {
      const frame = frames[depth]!
      const child = frame.node.childNodes[frame.next++]
      if (child === undefined) {
        depth--
        leave(frame)
      } else if (child.nodeName === '#text') onText(child as unknown as { value: string }, frame)
      // Nodes that are no elements have names that begin with a number sign.
      else if (child.nodeName.charCodeAt(0) !== 0x23) open(child as Element)
    }
  }
}

function textOf(node: Element): string {
  let text = ''
  for (const child of node.childNodes) if ('value' in child) text += child.value
  return text
}
