/** The parts of a page: landmarks, sections without a name, and where the main content may stand. */
import { fold } from '../../../strings.ts'
import { CONTAINER } from '../elements.ts'
import { onLeave, type Frame } from '../frame.ts'
import { isChosen } from '../main-content.ts'
import { attribute, type Element } from '../parse.ts'
import { placeOf, type Reading } from '../reading.ts'
import type { Headings } from './headings.ts'

export function collectLandmark(reading: Reading, headings: Headings, node: Element, frame: Frame): void {
  const { page, text, candidates } = reading
  const landmark = frame.ownLandmark!
  const fact = {
    landmark,
    label: fold(attribute(node, 'aria-label') ?? ''),
    hidden: frame.hidden,
    ...placeOf(node),
  }
  page.landmarks.push(fact)
  const from = text.length
  headings.endStretch()
  onLeave(frame, () => {
    headings.endStretch()
    fact.end = node.place?.end ?? null
    if (landmark !== 'main') candidates.excluded.push({ from, to: text.length })
    else if (!frame.unseen)
      candidates.mains.push({ from, to: text.length, by: node.tagName === 'main' ? 'main' : 'role' })
  })
}

/** A section that has neither a heading within it nor a name of its own. */
export function collectSection({ page }: Reading, node: Element, frame: Frame): void {
  if (frame.hidden || attribute(node, 'aria-label') || attribute(node, 'aria-labelledby')) return
  const headings = page.headings.length
  const place = placeOf(node)
  onLeave(frame, () => {
    if (page.headings.length === headings) page.unnamedSections.push(place)
  })
}

/** Notes an element that may be, or hold, the main content: the house's choice, an article, or a container. */
export function collectCandidate(
  { where, text, candidates }: Reading,
  node: Element,
  frame: Frame,
  kind: number,
): void {
  if (frame.unseen) return
  if (
    where.main &&
    candidates.chosen === null &&
    isChosen(where.main, node.tagName, frame.id, frame.className)
  ) {
    const region = { from: text.length, to: text.length }
    candidates.chosen = region
    onLeave(frame, () => void (region.to = text.length))
  }
  if ((kind & CONTAINER) !== 0 && frame.ownLandmark === null && !frame.furniture) {
    frame.from = text.length
    frame.prose = candidates.prose
  }
}

export function collectArticle({ text, candidates }: Reading, frame: Frame): void {
  const from = text.length
  onLeave(frame, () => void (frame.unseen || candidates.articles.push({ from, to: text.length })))
}

/** Notes a container, now left, with its running prose. */
export function leaveContainer({ text, candidates }: Reading, frame: Frame): void {
  if (frame.from >= 0 && candidates.prose > frame.prose)
    candidates.containers.push({
      from: frame.from,
      to: text.length,
      prose: candidates.prose - frame.prose,
    })
}
