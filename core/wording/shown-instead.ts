/** What results would show where a page has no title or description of its own, or choose not to use it. */
import { findKeyword, type Keyword } from '../words/match.ts'
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
  const found: { text: string; start: number }[] = []
  let from = 0
  for (const m of paragraph.matchAll(sentenceEnd)) {
    const end = m.index + m[0].length
    // "Mr. Smith", "No. 5": an abbreviation is no end.
    const tail = paragraph.slice(Math.max(from, end - 12), end)
    if (/(?:^|\s)(?:\p{Lu}|Mr|Mrs|Ms|Dr|St|No|Prof|approx|ca|e\.g|i\.e|z\.B|Nr)\.$/u.test(tail)) continue
    const text = paragraph.slice(from, end).trim()
    if (text) found.push({ text, start: from })
    from = end
  }
  const rest = paragraph.slice(from).trim()
  if (rest) found.push({ text: rest, start: from })
  return found
}

export function paragraphsOf(page: PageFacts): string[] {
  const headings = new Set(page.headings.map((h) => h.text))
  return page.main.text
    .split('\n')
    .map((p) => p.trim())
    .filter((p) => p.length > PARAGRAPH && !headings.has(p))
}

/** The sentence or two around the keyword, else the first paragraph; null where the page has no text for it. */
export function passageFor(page: PageFacts, keyword: Keyword | null): Passage | null {
  const paragraphs = paragraphsOf(page)
  if (keyword)
    for (const [i, paragraph] of paragraphs.entries()) {
      const match = findKeyword(paragraph, keyword)[0]
      if (!match) continue
      const start = sentencesOf(paragraph).findLast((s) => s.start <= match.start)?.start ?? 0
      return {
        text: paragraph.slice(start, start + LONGEST).trim(),
        from: 'around the keyword',
        paragraph: i + 1,
      }
    }
  return paragraphs[0]
    ? { text: paragraphs[0].slice(0, LONGEST), from: 'the first paragraph', paragraph: 1 }
    : null
}
