/** Paragraphs and divs of the content that look like headings. */
import { fold } from '../../../strings.ts'
import type { Frame } from '../frame.ts'
import { couldBeHeading, looksBy } from '../look-alike.ts'
import type { Reading } from '../reading.ts'

/** Notes a paragraph or div, now left, where it looks like a heading. */
export function leaveBox({ page, text }: Reading, frame: Frame): void {
  const { node, box, className, style } = frame
  const by = looksBy(box!, className ?? '', style)
  if (by === null) return
  const words = fold(text.since(frame.textMark))
  if (!couldBeHeading(words)) return
  page.lookAlikes.push({
    tag: node.tagName as 'p' | 'div',
    text: words,
    className: className ?? '',
    by,
    start: node.place?.start ?? 0,
    end: node.place?.end ?? null,
    startEnd: node.place?.startEnd ?? 0,
    endStart: node.place?.endStart ?? null,
  })
}
