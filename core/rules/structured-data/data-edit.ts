/** Repairs of a value or a name within a JSON-LD block: the rest of the block stays as it is. */
import type { PageFacts } from '../../page/read/facts.ts'
import type { Span } from '../../structured-data/page-data.ts'
import type { Repair } from '../rule.ts'

/** Of a page's wrong names so many are told what was probably meant: one that has more is not misspelt. */
export const MOST_GUESSED = 40

/** Puts text in the place of what stands there; undefined where the place is in no block. */
export function replaceInData(page: PageFacts, at: Span, text: string, label: string): Repair | undefined {
  const block = page.data.find((b) => at.start >= b.jsonStart && at.end <= b.jsonStart + b.json.length)
  if (!block) return undefined
  const from = at.start - block.jsonStart
  const to = at.end - block.jsonStart
  return {
    label,
    edits: [
      {
        target: 'jsonld',
        at: block.start,
        edit: { value: block.json.slice(0, from) + text + block.json.slice(to) },
      },
    ],
  }
}
/** What a thing that lacks something is marked at: its opening brace. */
export const opening = ({ start }: Span): { start: number; end: number } => ({ start, end: start + 1 })
/** “a, b or c” of names; "" of none. */
export const either = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} or ${names.at(-1)}`
