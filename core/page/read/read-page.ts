/** Proof to facts: one parse, one walk over the tree. Each kind of fact is collected in a file of its own (collect/). */
import { foldSpaces } from '../../strings.ts'
import type { Source } from '../source/source.ts'
import { collectData } from './collect/data.ts'
import { collectHead } from './collect/head.ts'
import { Headings } from './collect/headings.ts'
import { Images } from './collect/images.ts'
import { collectAnchor, collectControl, collectFocusable } from './collect/links.ts'
import { leaveBox } from './collect/look-alikes.ts'
import {
  collectArticle,
  collectCandidate,
  collectLandmark,
  collectSection,
  leaveContainer,
} from './collect/parts.ts'
import { collectFixedWidth, collectScript } from './collect/resources.ts'
import { INLINE, kindOf, landmarkOf, NO_HEADINGS, NOT_TEXT, SECTIONING } from './elements.ts'
import type { PageFacts } from './facts.ts'
import { walk, type Frame, type Visitor } from './frame.ts'
import { emptyBox } from './look-alike.ts'
import { findMain, textOfRegions, wordsBefore } from './main-content.ts'
import { attribute, HTML, parsedSource, type Element } from './parse.ts'
import { beginReading, placeOf, type Reading, type Where } from './reading.ts'

export type { Where }

/** More headings than this are no outline; a title longer than this, in UTF-16 units, is none. From memory. */
const MOST_HEADINGS = 20_000
const LONGEST_TITLE = 20_000

const boldStyle = /(?:^|;)\s*font-weight\s*:\s*(?:bold|bolder|[6-9]00)\b/i
const hidingStyle = /(?:^|;)\s*(?:display\s*:\s*none|visibility\s*:\s*hidden)\b/i

/**
 * Reads a page. Relative addresses resolve against the page's `<base>` and its address. Never throws, on any text.
 */
export function readPage(source: Source, where: Where): PageFacts {
  const parsed = parsedSource(source)
  const reading = beginReading(source, where, parsed)
  const collector = new Collector(reading)
  walk(parsed.document.childNodes, collector)
  return collector.finish()
}

/** Goes with the walk, and hands each element to those who collect facts from it. */
class Collector implements Visitor {
  private readonly headings: Headings
  private readonly images: Images
  private readonly seenIds = new Set<number>()
  private readonly reading: Reading

  constructor(reading: Reading) {
    this.reading = reading
    this.headings = new Headings(reading)
    this.images = new Images(reading)
  }

  enter(frame: Frame, node: Element, parent: Frame | null): void {
    const tag = node.tagName
    const kind = kindOf(tag)
    const isHtml = node.namespaceURI === HTML
    this.readAttributes(frame, node, parent)
    frame.ownLandmark = isHtml ? landmarkOf(node, frame.role, parent?.sectioning ?? false) : null
    inherit(frame, parent, kind)
    // A drawing's words stand in boxes of their own.
    frame.block = isHtml ? (kind & INLINE) === 0 : tag === 'text'
    if (frame.box && (frame.block || !isHtml || tag === 'img')) frame.box.mixed = true
    if (isHtml) this.enterHtml(frame, node, parent, kind)
    else if (frame.block) this.endLine(frame)
  }

  /** Role, id, class and style of an element, and whether it is hidden or not drawn. */
  private readAttributes(frame: Frame, node: Element, parent: Frame | null): void {
    const { page } = this.reading
    let hidden = parent?.hidden ?? false
    let unseen = parent?.unseen ?? false
    frame.role = frame.id = frame.className = null
    frame.style = ''
    for (const { name, value } of node.attrs) {
      switch (name) {
        case 'role':
          frame.role = value.trim().toLowerCase().split(/\s+/)[0]!
          break
        case 'hidden':
          if (value.toLowerCase() !== 'until-found') hidden = unseen = true
          break
        case 'aria-hidden':
          if (value.trim().toLowerCase() === 'true') hidden = true
          break
        case 'style':
          frame.style = value
          if (hidingStyle.test(value)) hidden = unseen = true
          break
        case 'class':
          frame.className = value
          break
        case 'itemscope':
          page.inline.microdata = true
          break
        case 'typeof':
          page.inline.rdfa = true
          break
        case 'id':
          frame.id = value
          // One tag may stand for several elements: formatting is opened again in each paragraph.
          if (node.place && value !== '' && !this.seenIds.has(node.place.start)) {
            this.seenIds.add(node.place.start)
            page.ids.push({ id: value, ...placeOf(node) })
          }
      }
    }
    frame.hidden = hidden
    frame.unseen = unseen
  }

  private enterHtml(frame: Frame, node: Element, parent: Frame | null, kind: number): void {
    const { reading, headings } = this
    const { page } = reading
    const tag = node.tagName
    if (tag === 'html') {
      page.lang = attribute(node, 'lang')
      page.html = node.place ? placeOf(node) : null
      return
    }
    collectHead(reading, node, frame.inHead)
    if (tag === 'script') {
      collectData(reading, node)
      collectScript(reading, node, frame.inHead)
    }
    if (frame.inHead) return
    if (frame.block || tag === 'br') this.endLine(frame)
    if (page.bodyStart === null && node.place && parent?.node.tagName === 'body')
      page.bodyStart = placeOf(node)
    this.enterBox(frame, tag)
    if (!frame.hidden) collectFocusable(reading, node, kind)
    collectCandidate(reading, node, frame, kind)
    collectFixedWidth(reading, node, frame)
    if (tag === 'section') collectSection(reading, node, frame)
    if (frame.ownLandmark) collectLandmark(reading, headings, node, frame)
    else if (tag === 'article') collectArticle(reading, frame)
    headings.enter(node, frame, parent)
    if (tag === 'img') this.images.enter(node, frame)
    else if (tag === 'a' || tag === 'area') collectAnchor(reading, headings, node, frame)
    if (tag === 'a' || tag === 'button') collectControl(reading, node, frame)
  }

  /** Begins the counts of a paragraph's or a div's own text, or ends those of the one around a block. */
  private enterBox(frame: Frame, tag: string): void {
    if ((tag === 'p' || tag === 'div') && !frame.noHeadings && !frame.hidden) {
      frame.box = emptyBox()
      // One with a role is something else; its text counts as its own all the same.
      frame.ownBox = frame.role === null && !frame.furniture
      frame.textMark = this.reading.text.mark
    } else if (frame.block) frame.box = null
  }

  text(value: string, frame: Frame): void {
    const { text, candidates } = this.reading
    if (frame.inHead || frame.node.tagName === 'html') return
    if (frame.unseen && (kindOf(frame.node.tagName) & NOT_TEXT) !== 0) return
    const words = foldSpaces(value)
    text.add(words, frame.unseen, frame.hidden)
    if (frame.unseen || words === ' ' || words === '') return
    if (frame.box) {
      if (frame.bold) frame.box.bold += words.length
      else frame.box.plain += words.length
      if (frame.linked) frame.box.linked += words.length
    }
    if (!frame.linked && !frame.furniture) candidates.prose += words.length
  }

  leave(frame: Frame): void {
    if (frame.ownBox) leaveBox(this.reading, frame)
    leaveContainer(this.reading, frame)
    frame.leave?.()
    if (frame.block && !frame.inHead) this.endLine(frame)
  }

  private endLine(frame: Frame): void {
    this.reading.text.add('\n', frame.unseen, frame.hidden)
  }

  /** What can be said only when the whole page was passed. */
  finish(): PageFacts {
    const { page, text, candidates } = this.reading
    this.headings.endStretch()
    this.images.findLabels()
    page.beyond ??= tooMuch(page)
    page.text = text.whole()
    this.headings.countWords(page.text)
    const { by, regions } = findMain(page.text, candidates)
    const firstHeading = this.headings.placeInMain(regions)
    const content = textOfRegions(page.text, regions)
    const lead = firstHeading === null ? content.words : wordsBefore(page.text, regions, firstHeading)
    page.main = { by, ...content, lead }
    return page
  }
}

/** What an element has from those that it stands in. */
function inherit(frame: Frame, parent: Frame | null, kind: number): void {
  const tag = frame.node.tagName
  const { ownLandmark, style } = frame
  frame.unseen ||= (kind & NOT_TEXT) !== 0
  frame.landmark = ownLandmark ?? parent?.landmark ?? null
  frame.sectioning = (parent?.sectioning ?? false) || (kind & SECTIONING) !== 0
  frame.inHead = tag === 'head' || (parent?.inHead ?? false)
  frame.bold =
    (parent?.bold ?? false) || tag === 'b' || tag === 'strong' || (style !== '' && boldStyle.test(style))
  frame.linked = (parent?.linked ?? false) || tag === 'a'
  frame.noHeadings = (parent?.noHeadings ?? false) || (kind & NO_HEADINGS) !== 0
  frame.furniture = (parent?.furniture ?? false) || (ownLandmark !== null && ownLandmark !== 'main')
  frame.box = parent?.box ?? null
  frame.ownBox = false
  frame.textMark = 0
  frame.from = -1
  frame.prose = 0
  frame.onlyHeadings = null
}

/** Why a page that was read says more than can be judged; null where it does not. */
function tooMuch({ headings, titles }: PageFacts): string | null {
  if (headings.length > MOST_HEADINGS)
    return `It has ${headings.length.toLocaleString('en')} headings; at most ${MOST_HEADINGS.toLocaleString('en')} are read. Divide the page and take it in again.`
  const longest = titles.reduce((n, t) => Math.max(n, t.text.length), 0)
  return longest > LONGEST_TITLE
    ? `Its title has ${longest.toLocaleString('en')} characters; at most ${LONGEST_TITLE.toLocaleString('en')} are read. Close or shorten the title in the source and take the page in again.`
    : null
}
