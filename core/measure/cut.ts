/** Where a text is cut: by a browser (one line with an ellipsis, a clamp to n lines) and by search results (at a word). */
import { breakOffsets } from './breaks.ts'
import { ceil64, foldText, prefixWidths, type Weight } from './width.ts'

const TOLERANCE = 1 / 64
const ELLIPSIS = '…'
/** What results put behind a cut text. Common practice, no source. */
export const CUT_SIGN = ' ...'

/** lines: what is shown, without the sign of the cut; lost: the words that go, empty when nothing is cut. */
export interface Cut {
  cut: boolean
  lines: string[]
  shown: string
  lost: string
}

/** The widest that kerning at a line's two ends can change its width, in em: a slice of a longer text differs by no more. */
const KERNING_SLACK = 0.3

/** Tells whether slices of a text fit a width: by the text's own prefixes where that is certain, else measured alone. */
function ruler(text: string, size: number, weight: Weight) {
  const { clusters, edges } = prefixWidths(text, size, weight)
  const at = new Float64Array(text.length + 1)
  let offset = 0
  clusters.forEach((cluster, i) => {
    for (let k = 1; k <= cluster.length; k++) at[offset + k] = edges[i + 1]!
    offset += cluster.length
  })
  const width = (from: number, to: number): number =>
    from === 0 ? at[to]! : prefixWidths(text.slice(from, to), size, weight).edges.at(-1)!
  const fits = (from: number, to: number, px: number): boolean => {
    const rough = at[to]! - at[from]!
    const slack = KERNING_SLACK * size
    if (rough < px - slack) return true
    if (rough > px + slack) return false
    return width(from, to) <= px + TOLERANCE
  }
  return { width, fits }
}
type Ruler = ReturnType<typeof ruler>

/** Up to the last grapheme whose prefix fits `px` less the ellipsis, in UTF-16 units from `from`. */
function cutInWord(text: string, px: number, size: number, weight: Weight, sign: string): string {
  const signPx = sign === ELLIPSIS ? size : prefixWidths(sign, size, weight).edges.at(-1)!
  const { clusters, edges, joints } = prefixWidths(text, size, weight)
  let n = 0
  while (n < clusters.length && edges[n + 1]! + joints[n + 1]! <= px - signPx) n++
  return clusters.slice(0, n).join('')
}

/** One line with an ellipsis of the browser's (`text-overflow: ellipsis`), `px` wide. */
export function cutToEllipsis(raw: string, px: number, size: number, weight: Weight = 'regular'): Cut {
  const text = foldText(raw)
  const edges = prefixWidths(text, size, weight).edges
  if (ceil64(edges[edges.length - 1]!) <= px + TOLERANCE) return whole(text, [text])
  const shown = cutInWord(text, px, size, weight, ELLIPSIS)
  return { cut: true, lines: [shown], shown, lost: text.slice(shown.length) }
}

const whole = (text: string, lines: string[]): Cut => ({ cut: false, lines, shown: text, lost: '' })

/** Greedy lines: the end of the longest line from `from` that fits `px`, trailing spaces aside; -1 if not one word fits. */
function lineEnd(text: string, from: number, px: number, breaks: number[], { fits }: Ruler): number {
  let best = -1
  for (const end of breaks) {
    if (end <= from) continue
    let inked = end
    while (inked > from && text.charCodeAt(inked - 1) === 0x20) inked--
    if (!fits(from, inked, px)) break
    best = end
  }
  return best
}

/** Clamp to n lines as `-webkit-line-clamp` does: the last line keeps its break and takes the ellipsis if that fits. */
export function clampToLines(
  raw: string,
  px: number,
  n: number,
  size: number,
  weight: Weight = 'regular',
): Cut {
  const text = foldText(raw)
  const rule = ruler(text, size, weight)
  const breaks = breakOffsets(text)
  const lines: string[] = []
  let from = 0
  while (from < text.length) {
    let end = lineEnd(text, from, px, breaks, rule)
    if (end === -1) end = from + wordPart(text.slice(from), px, size, weight)
    if (lines.length === n - 1 && end < text.length) {
      const line = text.slice(from, end).trimEnd()
      const fits = rule.width(from, from + line.length) + size <= px + TOLERANCE
      const kept = fits ? line : cutInWord(text.slice(from, end), px, size, weight, ELLIPSIS)
      lines.push(kept)
      return { cut: true, lines, shown: text.slice(0, from) + kept, lost: text.slice(from + kept.length) }
    }
    lines.push(text.slice(from, end).trimEnd())
    from = end
  }
  return whole(text, lines)
}

/** A word too long for any line is broken where it must be: how many UTF-16 units of it fit, at least one grapheme. */
function wordPart(text: string, px: number, size: number, weight: Weight): number {
  const { clusters, edges } = prefixWidths(text, size, weight)
  let n = 1
  while (n < clusters.length && edges[n + 1]! <= px + TOLERANCE) n++
  return clusters.slice(0, n).join('').length
}

/** One line's width in px, given the number of the line and the px that the lines before it used; null: no such line. */
export type LineWidths = (line: number, used: number) => { px: number; last: boolean }

const trailing = /[\s\p{Pd}\p{Po}]+$/u

/**
 * As search results cut (common practice, no source): all lines but the last break greedily; the last keeps the
 * longest run of whole words, without trailing dashes or punctuation, that fits together with " ...".
 */
export function cutAtWord(raw: string, widths: LineWidths, size: number, weight: Weight = 'regular'): Cut {
  const text = foldText(raw)
  const rule = ruler(text, size, weight)
  const first = widths(0, 0)
  if (rule.width(0, text.length) <= first.px + TOLERANCE) return whole(text, text === '' ? [] : [text])
  const breaks = breakOffsets(text)
  const lines: string[] = []
  let from = 0
  let used = 0
  while (from < text.length) {
    const { px, last } = widths(lines.length, used)
    let end = lineEnd(text, from, px, breaks, rule)
    if (end === -1) end = from + wordPart(text.slice(from), px, size, weight)
    if (last && end < text.length) {
      const kept = keepWords(text.slice(from, from + 400), px, size, weight, breaks, from)
      lines.push(kept)
      return { cut: true, lines, shown: text.slice(0, from) + kept, lost: text.slice(from + kept.length) }
    }
    const line = text.slice(from, end).trimEnd()
    used += rule.width(from, from + line.length)
    lines.push(line)
    from = end
  }
  return whole(text, lines)
}

function keepWords(
  rest: string,
  px: number,
  size: number,
  weight: Weight,
  breaks: number[],
  offset: number,
): string {
  const { fits } = ruler(rest, size, weight)
  for (const b of breaks.filter((b) => b > offset && b - offset <= rest.length).reverse()) {
    const kept = rest.slice(0, b - offset).replace(trailing, '')
    if (kept === '' || !fits(0, kept.length, px)) continue
    const edges = prefixWidths(kept + CUT_SIGN, size, weight).edges
    if (ceil64(edges[edges.length - 1]!) <= px) return kept
  }
  return cutInWord(rest, px, size, weight, CUT_SIGN)
}
