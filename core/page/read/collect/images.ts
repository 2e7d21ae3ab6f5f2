/** Images, their alternative texts, and whether their tags keep room for them. */
import { fold } from '../../../strings.ts'
import type { PageFacts } from '../facts.ts'
import type { Frame } from '../frame.ts'
import { attribute, type Element } from '../parse.ts'
import { placeOf, type Reading } from '../reading.ts'
import { widthInAttribute } from './resources.ts'

export class Images {
  /** Images that name themselves by other elements, which may come later. */
  private readonly labelled: { image: PageFacts['images'][number]; ids: string[] }[] = []
  private readonly reading: Reading

  constructor(reading: Reading) {
    this.reading = reading
  }

  enter(node: Element, frame: Frame): void {
    const { page, text } = this.reading
    const alt = attribute(node, 'alt')
    const has = (name: string) => fold(attribute(node, name) ?? '') !== ''
    const image = {
      sized: isSized(node, frame.style),
      src: (attribute(node, 'src') ?? '').trim(),
      srcset: (attribute(node, 'srcset') ?? '').trim(),
      sizes: (attribute(node, 'sizes') ?? '').trim(),
      width: widthInAttribute(attribute(node, 'width')),
      alt,
      named: has('aria-label') || has('title'),
      presentational: frame.role === 'presentation' || frame.role === 'none',
      hidden: frame.hidden,
      ...placeOf(node),
    }
    page.images.push(image)
    const labelledBy = attribute(node, 'aria-labelledby')
    if (labelledBy) this.labelled.push({ image, ids: labelledBy.split(/\s+/) })
    if (alt !== null && !frame.hidden) text.addAlternative(alt, fold(alt))
  }

  /** Names the images that an element of the page labels. */
  findLabels(): void {
    if (this.labelled.length === 0) return
    const ids = new Set(this.reading.page.ids.map(({ id }) => id))
    for (const { image, ids: labels } of this.labelled)
      if (labels.some((id) => ids.has(id))) image.named = true
  }
}

/** Whether an image's tag keeps room for it: a width and a height, or a ratio or both sizes in its style. */
function isSized(node: Element, style: string): boolean {
  const hasFigure = (name: string) => /^\s*\d/.test(attribute(node, name) ?? '')
  if (hasFigure('width') && hasFigure('height')) return true
  if (style === '') return false
  const properties = new Set(style.split(';').map((d) => d.split(':', 1)[0]!.trim().toLowerCase()))
  if (properties.has('aspect-ratio')) return true
  return properties.has('height') && (properties.has('width') || hasFigure('width'))
}
