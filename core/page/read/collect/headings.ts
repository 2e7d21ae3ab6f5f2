/** Headings, by tag or by role, with their words and the words under them. */
import { fold } from '../../../strings.ts'
import { countWords } from '../../../words/count-words.ts'
import { isHeadingTag } from '../elements.ts'
import type { HeadingFact } from '../facts.ts'
import { onLeave, type Frame } from '../frame.ts'
import type { Region } from '../main-content.ts'
import { attribute, isElement, type Element } from '../parse.ts'
import type { Reading } from '../reading.ts'
import type { Capture } from '../running-text.ts'

/** A level deeper than this is none that a page can mean; WAI-ARIA 1.2 sets no bound. From memory. */
const DEEPEST_LEVEL = 99
/** The level of a heading by role that names none. Source: WAI-ARIA 1.2, aria-level. */
const DEFAULT_LEVEL = 2

/** The words under a heading, as a stretch of the text. */
interface Stretch {
  fact: HeadingFact
  from: number
  to: number
}
/** The text that was counted last: a change of a level, a link or a title leaves it as it is, and its counts too. */
let lastCounted: { text: string; under: readonly Stretch[] } = { text: '', under: [] }

/** The heading that the walk is in; `sign` is its last link that is only a sign for itself, in places of the text. */
interface OpenHeading {
  words: Capture
  sign: { from: number; to: number } | null
}

export class Headings {
  /** The heading that the walk is in. */
  open: OpenHeading | null = null
  /** The heading that the words of the walk stand under, and where they begin. */
  private above: { fact: HeadingFact; from: number } | null = null
  private readonly under: Stretch[] = []
  /** Where each heading's words begin in the text, to tell which stand in the main content. */
  private readonly textAt: number[] = []
  private readonly reading: Reading

  constructor(reading: Reading) {
    this.reading = reading
  }

  enter(node: Element, frame: Frame, parent: Frame | null): void {
    const byTag = isHeadingTag(node.tagName)
    const byRole = frame.role === 'heading'
    if (!byTag && !byRole) return
    const { text, page } = this.reading
    this.endStretch()
    if (parent) parent.onlyHeadings ??= parent.node.tagName === 'header' || holdsOnlyHeadings(parent.node)
    const fact = this.factOf(node, frame, parent)
    page.headings.push(fact)
    this.textAt.push(text.length)
    const open: OpenHeading = { words: text.capture(frame.hidden, fact.images), sign: null }
    this.open = open
    onLeave(frame, () => {
      text.release(open.words)
      this.open = null
      fact.text = wordsOf(open)
      this.above = { fact, from: text.length }
    })
  }

  private factOf(node: Element, frame: Frame, parent: Frame | null): HeadingFact {
    const { page, source } = this.reading
    const { place } = node
    const previous = page.headings.at(-1)
    const ariaLevel = attribute(node, 'aria-level')
    return {
      level: levelOf(node.tagName, frame.role, ariaLevel),
      text: '',
      landmark: frame.landmark,
      className: frame.className ?? '',
      id: frame.id ?? '',
      label: fold(attribute(node, 'aria-label') ?? ''),
      role: frame.role !== '' ? frame.role : null,
      hidden: frame.hidden,
      start: place?.start ?? 0,
      end: place?.end ?? null,
      startEnd: place?.startEnd ?? 0,
      endStart: place?.endStart ?? null,
      adjacent:
        previous?.end != null &&
        place !== undefined &&
        source.text.slice(previous.end, place.start).trim() === '',
      tag: node.tagName,
      ariaLevel,
      images: [],
      group: parent?.onlyHeadings ? (parent.node.place?.start ?? null) : null,
      inMain: false,
      words: 0,
    }
  }

  /** What follows stands under no heading that came before: another begins, or a landmark does or ends. */
  endStretch(): void {
    if (this.above) this.under.push({ ...this.above, to: this.reading.text.length })
    this.above = null
  }

  /** Counts the words under each heading, once the whole text is known. */
  countWords(text: string): void {
    const before = lastCounted.text === text ? lastCounted.under : []
    this.under.forEach(({ fact, from, to }, i) => {
      const was = before[i]
      fact.words = was?.from === from && was.to === to ? was.fact.words : countWords(text, from, to)
    })
    lastCounted = { text, under: this.under }
  }

  /** Marks the headings in the main content. Returns where the first visible one's words begin, null without one. */
  placeInMain(regions: Region[]): number | null {
    let first: number | null = null
    // Both in document order: one pass over the regions is enough.
    let region = 0
    this.reading.page.headings.forEach((heading, i) => {
      const at = this.textAt[i]!
      while (region < regions.length && at >= regions[region]!.to) region++
      heading.inMain = region < regions.length && at >= regions[region]!.from
      if (heading.inMain && !heading.hidden) first ??= at
    })
    return first
  }
}

function levelOf(tag: string, role: string | null, ariaLevel: string | null): number {
  const ofTag = isHeadingTag(tag) ? Number(tag[1]) : DEFAULT_LEVEL
  const level = role === 'heading' && ariaLevel !== null ? Number(ariaLevel) : ofTag
  return level >= 1 && level <= DEEPEST_LEVEL && Number.isInteger(level) ? level : DEFAULT_LEVEL
}

/** A heading's words without the sign at their end by which it links to itself. */
function wordsOf({ words: { text }, sign }: OpenHeading): string {
  return fold(sign && fold(text.slice(sign.to)) === '' ? text.slice(0, sign.from) : text)
}

/** Whether an element holds headings, white space and comments only, and more than one heading. */
function holdsOnlyHeadings(node: Element): boolean {
  let headings = 0
  for (const child of node.childNodes)
    if (isElement(child)) {
      if (!isHeadingTag(child.tagName)) return false
      headings++
    } else if (child.nodeName === '#text' && (child as { value: string }).value.trim() !== '') return false
  return headings > 1
}
