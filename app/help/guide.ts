/** docs/guide.md within the application: its sections, and the finding of words in them. */
import source from '../../docs/guide.md?raw'

export interface GuideSection {
  heading: string
  /** Markdown below the heading. */
  text: string
}

/** The sections of a document in Markdown whose headings are of the second level; what stands before the first is left out. */
export function sectionsOf(markdown: string): GuideSection[] {
  return markdown
    .split(/^## /m)
    .slice(1)
    .map((part) => {
      const end = part.indexOf('\n')
      return end === -1
        ? { heading: part.trim(), text: '' }
        : { heading: part.slice(0, end).trim(), text: part.slice(end + 1).trim() }
    })
}

// A straight apostrophe in the source is a curly one on the screen, so that either finds the other.
const plain = (text: string): string => text.replaceAll('’', "'").toLowerCase()

/** The sections that have each of the words that were typed, those with all of them in the heading first. */
export function findSections(sections: readonly GuideSection[], typed: string): GuideSection[] {
  const words = plain(typed).split(/\s+/).filter(Boolean)
  const hasAll = (text: string) => words.every((word) => plain(text).includes(word))
  const matching = sections.filter((s) => hasAll(`${s.heading} ${s.text}`))
  return [...matching.filter((s) => hasAll(s.heading)), ...matching.filter((s) => !hasAll(s.heading))]
}

export const guide: readonly GuideSection[] = sectionsOf(source)
