/** What results would show where a page has no title or description of its own, or choose not to use it. */
import { hitsOf, matchesAmong, type Hit, type Keyword } from '../words/match.ts'
import { outlineOf, type PageFacts } from '../page/read/facts.ts'

/** A title's stand-in: the first H1 with text, else the file's name. Common practice, no source. */
export function insteadOfTitle(page: PageFacts): { text: string; from: 'the first H1' | 'the file’s name' } {
  const h1 = outlineOf(page).find((h) => h.level === 1 && h.text)?.text
  return h1
    ? { text: h1, from: 'the first H1' }
    : { text: page.path.slice(page.path.lastIndexOf('/') + 1), from: 'the file’s name' }
}

export type PassageFrom = 'around the keyword' | 'the first paragraph'
export interface Passage {
  text: string
  from: PassageFrom
  /** Which of the page's paragraphs, from 1. */
  paragraph: number
}

/** A paragraph has at least this many characters; shorter blocks are buttons and captions. From memory. */
const PARAGRAPH = 40
/** A passage this long fills any result; the cut is the result's own. */
const LONGEST = 400

const sentenceEnd = /[.!?…]["”’)]*(?=\s+\S)|[。！？]/gu

/** A paragraph's sentences, each with where it starts. */
export function sentencesOf(paragraph: string): { text: string; start: number }[] {
  const sentences: { text: string; start: number }[] = []
  let from = 0
  for (const m of paragraph.matchAll(sentenceEnd)) {
    const end = m.index + m[0].length
    // "Mr. Smith", "No. 5": an abbreviation is no end.
    const tail = paragraph.slice(Math.max(from, end - 12), end)
    if (/(?:^|\s)(?:\p{Lu}|Mr|Mrs|Ms|Dr|St|No|Prof|approx|ca|e\.g|i\.e|z\.B|Nr)\.$/u.test(tail)) continue
    const text = paragraph.slice(from, end).trim()
    if (text) sentences.push({ text, start: from })
    from = end
  }
  const rest = paragraph.slice(from).trim()
  if (rest) sentences.push({ text: rest, start: from })
  return sentences
}

/** A paragraph of the main content, and where in its text it starts, in UTF-16 units. */
interface Paragraph {
  text: string
  start: number
}

function* eachParagraph(page: PageFacts): Generator<Paragraph> {
  const { text } = page.main
  const headings = headingsOf(page)
  for (let from = 0; from < text.length;) {
    const to = lineEnd(text, from)
    const paragraph = paragraphIn(text, from, to, headings)
    if (paragraph) yield paragraph
    from = to + 1
  }
}
const headingsOf = (page: PageFacts): ReadonlySet<string> => new Set(page.headings.map((h) => h.text))

function lineEnd(text: string, from: number): number {
  const end = text.indexOf('\n', from)
  return end < 0 ? text.length : end
}

/** The paragraph that a line is; null for a short line or a heading. */
function paragraphIn(
  text: string,
  from: number,
  to: number,
  headings: ReadonlySet<string>,
): Paragraph | null {
  const line = text.slice(from, to)
  const paragraph = line.trim()
  return paragraph.length > PARAGRAPH && !headings.has(paragraph)
    ? { text: paragraph, start: from + line.length - line.trimStart().length }
    : null
}

export const paragraphsOf = (page: PageFacts): string[] => [...eachParagraph(page)].map(({ text }) => text)

/**
 * The sentence or two around the keyword, else the first paragraph; null where the page has no text for it. `hits` are
 * the keyword's in the main content, where they are known.
 */
export function passageFor(
  page: PageFacts,
  keyword: Keyword | null,
  hits: readonly Hit[] = keyword ? hitsOf(page.main.text, keyword) : [],
): Passage | null {
  const around = keyword && aroundKeyword(page, keyword, hits)
  if (around) return around
  const first = eachParagraph(page).next().value
  return first ? { text: first.text.slice(0, LONGEST), from: 'the first paragraph', paragraph: 1 } : null
}

/** The sentence or two around the keyword in the first paragraph that has it: of all lines, those with hits are looked at. */
function aroundKeyword(page: PageFacts, keyword: Keyword, hits: readonly Hit[]): Passage | null {
  const all = page.main.text
  const headings = headingsOf(page)
  for (let next = 0; next < hits.length;) {
    const at = hits[next]!.start
    const to = lineEnd(all, at)
    const from = next
    // Words do not go over a line's end, so that a paragraph's are among those of the whole text.
    while (next < hits.length && hits[next]!.start < to) next++
    // Few lines have as many hits as the keyword has words.
    if (next - from < keyword.stems.length) continue
    const [match] = matchesAmong(hits.slice(from, next), keyword)
    const paragraph = match && paragraphIn(all, all.lastIndexOf('\n', at) + 1, to, headings)
    if (!paragraph) continue
    const { text, start } = paragraph
    const sentence = sentencesOf(text).findLast((s) => start + s.start <= match.start)?.start ?? 0
    return {
      text: text.slice(sentence, sentence + LONGEST).trim(),
      from: 'around the keyword',
      paragraph: numberOf(page, start),
    }
  }
  return null
}

/** Which of the page's paragraphs begins at a place of its text, from 1. */
function numberOf(page: PageFacts, start: number): number {
  let number = 1
  for (const paragraph of eachParagraph(page)) {
    if (paragraph.start >= start) break
    number++
  }
  return number
}
