/** The text of a page as the walk passes it, and the words of the elements that it is in. */

/** Headings, links and controls that gather their words at one time: deeper nesting than this is no page's, and the outermost are let go. */
const MOST_CAPTURES = 32

/** The words of one element while the walk is in it. */
export interface Capture {
  text: string
  /** The alternative texts of the images in it. */
  images: string[]
  /** Whether the whole of it is hidden; else what is hidden within is no part of it. */
  hidden: boolean
}

export class RunningText {
  private readonly parts: string[] = []
  private captures: Capture[] = []
  /** In UTF-16 units: where the next words will stand in the whole text. */
  length = 0

  /** How many parts there are: where an element's own words begin, for `since`. */
  get mark(): number {
    return this.parts.length
  }
  /** The words since a mark. */
  since(mark: number): string {
    return this.parts.slice(mark).join('')
  }
  whole(): string {
    return this.parts.join('')
  }

  /** Adds words; `unseen` ones are no part of the page's text, `hidden` ones only of a capture that is hidden itself. */
  add(words: string, unseen: boolean, hidden: boolean): void {
    const { parts } = this
    // One line end says as much as several.
    if (!unseen && (words !== '\n' || parts.length === 0 || parts[parts.length - 1] !== '\n')) {
      parts.push(words)
      this.length += words.length
    }
    for (const capture of this.captures) if (!hidden || capture.hidden) capture.text += words
  }

  /** Adds an image's alternative text to what is captured, `alt` folded as `words`. */
  addAlternative(alt: string, words: string): void {
    for (const capture of this.captures) {
      capture.text += ` ${alt} `
      if (words !== '') capture.images.push(words)
    }
  }

  /** Begins to gather an element's words, its images' alternative texts in `images`. */
  capture(hidden: boolean, images: string[] = []): Capture {
    const capture: Capture = { text: '', images, hidden }
    this.captures.push(capture)
    if (this.captures.length > MOST_CAPTURES) this.captures.shift()
    return capture
  }
  release(capture: Capture): void {
    const at = this.captures.indexOf(capture)
    if (at >= 0) this.captures.splice(at, 1)
  }
}
