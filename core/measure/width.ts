/**
 * Widths of text in pixels, as Chromium lays it out in the shipped Arimo (Arial metrics).
 *
 * A width is the sum of advance widths and kerning pairs, where kerning starts anew when the script changes
 * (common characters belong to the script before them); Chromium rounds the whole up to 1/64 px.
 * Source of the table: @fontsource/arimo, see scripts/generate-widths.ts. Checked in tests/reference/widths.spec.ts.
 */
import table from './widths.generated.json' with { type: 'json' }

export type Weight = 'regular' | 'bold'

/**
 * px: width in CSS pixels. estimatedPx: how much of it is estimated, because the font does not cover the characters.
 * localPx: how much was measured in another font, which this browser has and others may not.
 */
export interface Width {
  px: number
  estimatedPx: number
  localPx: number
}

/** Where each grapheme of a run that the font lacks ends, in em from the run's start; null where no other font has them. */
export type OtherFonts = (clusters: readonly string[], weight: Weight) => Float64Array | null
let otherFonts: OtherFonts | null = null

/** What measures characters that the font lacks; without it, or with null, they are estimated. The host's to say, once. */
export function measureOtherFontsBy(measurer: OtherFonts | null): void {
  otherFonts = measurer
}

const UNCOVERED = -1
const UPEM = table.unitsPerEm

const Script = { common: 0, latin: 1, greek: 2, cyrillic: 3, hebrew: 4, other: 5 } as const

interface WeightTable {
  advance: Int16Array
  left: Uint16Array
  right: Uint16Array
  kern: Int16Array
  columns: number
}

function expand(source: { advances: number[][]; kerning: number[][] }): WeightTable {
  const advance = new Int16Array(65536).fill(UNCOVERED)
  for (const [start, ...run] of source.advances) run.forEach((a, i) => (advance[start! + i] = a))
  const left = new Uint16Array(65536)
  const right = new Uint16Array(65536)
  let columns = 1
  for (const row of source.kerning)
    for (let i = 1; i < row.length; i += 2) if (right[row[i]!] === 0) right[row[i]!] = columns++
  const kern = new Int16Array((source.kerning.length + 1) * columns)
  source.kerning.forEach((row, r) => {
    left[row[0]!] = r + 1
    for (let i = 1; i < row.length; i += 2) kern[(r + 1) * columns + right[row[i]!]!] = row[i + 1]!
  })
  return { advance, left, right, kern, columns }
}

const tables: Record<Weight, WeightTable> = { regular: expand(table.regular), bold: expand(table.bold) }

const script = new Uint8Array(65536)
for (const [start, ...run] of table.regular.advances)
  for (let cp = start!; cp < start! + run.length; cp++) {
    const c = String.fromCharCode(cp)
    script[cp] = /\p{Script=Latin}/u.test(c)
      ? Script.latin
      : /\p{Script=Greek}/u.test(c)
        ? Script.greek
        : /\p{Script=Cyrillic}/u.test(c)
          ? Script.cyrillic
          : /\p{Script=Hebrew}/u.test(c)
            ? Script.hebrew
            : Script.common
  }

/** No width, and kerning looks through them: soft hyphen, ZWSP, ZWJ, LRM, RLM, word joiner, BOM, variation selectors. */
function isTransparent(cp: number): boolean {
  return (
    cp === 0xad ||
    cp === 0x200b ||
    cp === 0x200d ||
    cp === 0x200e ||
    cp === 0x200f ||
    (cp >= 0x2060 && cp <= 0x2064) ||
    cp === 0xfeff ||
    (cp >= 0xfe00 && cp <= 0xfe0f)
  )
}
const ZWNJ = 0x200c
const combining = /^\p{M}$/u
const emoji = /^\p{Extended_Pictographic}|^\p{Regional_Indicator}/u

/**
 * The width in em of one grapheme that the font lacks. Source: found by experiment with Chromium's fall-back
 * fonts (docs/measuring.md); such widths are estimates and are named so wherever they are shown.
 */
function estimateEm(grapheme: string): number {
  const cp = grapheme.codePointAt(0)!
  if (combining.test(String.fromCodePoint(cp))) return 0
  if (emoji.test(grapheme) && cp >= 0x2600) return 1.248
  if ((cp >= 0xac00 && cp <= 0xd7af) || (cp >= 0x1100 && cp <= 0x11ff)) return 0.92
  if (cp >= 0xff61 && cp <= 0xff9f) return 0.5
  if ((cp >= 0x2e80 && cp <= 0xa4cf) || (cp >= 0xf900 && cp <= 0xfaff) || (cp >= 0xff00 && cp <= 0xff60))
    return 1
  if (cp >= 0x20000 && cp <= 0x3ffff) return 1
  if ((cp >= 0x600 && cp <= 0x77f) || (cp >= 0xfb50 && cp <= 0xfdff) || (cp >= 0xfe70 && cp <= 0xfefe))
    return 0.461
  if (cp >= 0xe00 && cp <= 0xe7f) return 0.521
  if (cp >= 0x900 && cp <= 0x97f) return 0.483
  if (cp >= 0x2190 && cp <= 0x2bff) return 0.86
  return 0.6
}

/** What folding may change: anything beyond Latin-1's printable characters, a space at an end, two in a row. */
const unfolded = /[^\x20-\x7e\xa0-\xff]|^ | $| {2}/

/** As HTML shows it on one line and as it is measured: NFC, white space folded to single spaces, trimmed. */
export function foldText(text: string): string {
  if (!unfolded.test(text)) return text
  return text
    .normalize('NFC')
    .replace(/[ \t\n\f\r]+/g, ' ')
    .replace(/^ | $/g, '')
}

const segmenter = new Intl.Segmenter('en', { granularity: 'grapheme' })
/**
 * Characters of which each UTF-16 unit is one grapheme: Latin, Greek, Cyrillic, Hebrew letters, Han, kana, Hangul syllables,
 * plain punctuation. The platform's segmenter takes ten times as long, and ever longer in a long text.
 */
const simple =
  /^[\x20-\x7e\xa0-\xac\xae-\u02ff\u0370-\u0482\u048a-\u0590\u05be\u05d0-\u05f2\u1e00-\u1fff\u2010-\u2027\u2030-\u205e\u20a0-\u20bf\u2116\u2122\u3000-\u3029\u3030-\u3096\u309b-\u30ff\u3400-\u9fff\uac00-\ud7a3\uff01-\uff9d]*$/

/** The text's user-perceived characters, in order. */
export function graphemes(text: string): string[] {
  if (simple.test(text)) return text.split('')
  return Array.from(segmenter.segment(text), (s) => s.segment)
}

/** How many characters a person would count: grapheme clusters of the folded text. */
export function countGraphemes(text: string): number {
  const folded = foldText(text)
  return simple.test(folded) ? folded.length : graphemes(folded).length
}

/** Up to the next 1/64 px, as Chromium's layout units do; the small allowance is for binary fractions. */
export function ceil64(px: number): number {
  return Math.max(0, Math.ceil(px * 64 - 1e-6)) / 64
}

/**
 * Widths of every prefix that ends at a grapheme, in px before rounding: `edges[i]` is the width of the first i
 * graphemes. `text` must be folded already.
 */
export interface Prefixes {
  clusters: string[]
  edges: Float64Array
  /** `joints[i]`: the kerning, in px, between the grapheme before and grapheme i; a font puts it on the first of the two. */
  joints: Float64Array
  estimatedPx: number
  localPx: number
}

export function prefixWidths(text: string, size: number, weight: Weight = 'regular'): Prefixes {
  const { advance, left, right, kern, columns } = tables[weight]
  const clusters = graphemes(text)
  const edges = new Float64Array(clusters.length + 1)
  const joints = new Float64Array(clusters.length + 1)
  const scale = size / UPEM
  let units = 0
  let estimated = 0
  let local = 0
  let previous = 0
  let current: number = Script.common
  for (let i = 0; i < clusters.length; i++) {
    const cluster = clusters[i]!
    const unitsBefore = units
    let uncovered = false
    for (let k = 0; k < cluster.length; k++) {
      const cp = cluster.charCodeAt(k)
      if (isTransparent(cp)) continue
      if (cp === ZWNJ) {
        previous = 0
        continue
      }
      const width = advance[cp]!
      if (width === UNCOVERED) {
        uncovered = true
        break
      }
      const scriptHere = script[cp]!
      if (scriptHere !== Script.common && scriptHere !== current) {
        if (current !== Script.common) previous = 0
        current = scriptHere
      }
      const row = left[previous]!
      const pair = row === 0 ? 0 : kern[row * columns + right[cp]!]!
      units += width + pair
      if (pair !== 0 && k === 0) joints[i] = pair * scale
      if (width > 0 || !combining.test(cluster[k]!)) previous = cp
    }
    if (uncovered) {
      units = unitsBefore
      // Letters join in such a run: it is measured as one.
      let end = i + 1
      if (otherFonts) while (end < clusters.length && isUncovered(clusters[end]!, advance)) end++
      const ends = otherFonts?.(clusters.slice(i, end), weight)
      if (ends) {
        ends.forEach((em, n) => (edges[i + n + 1] = (units + em * UPEM) * scale))
        const run = ends[ends.length - 1]! * UPEM
        units += run
        local += run
        i = end - 1
      } else {
        const em = estimateEm(cluster) * UPEM
        units += em
        estimated += em
      }
      previous = 0
      current = Script.other
    }
    edges[i + 1] = units * scale
  }
  return { clusters, edges, joints, estimatedPx: estimated * scale, localPx: local * scale }
}

/** Whether the font lacks a character of a grapheme. */
function isUncovered(cluster: string, advance: Int16Array): boolean {
  for (let k = 0; k < cluster.length; k++) {
    const cp = cluster.charCodeAt(k)
    if (!isTransparent(cp) && cp !== ZWNJ && advance[cp] === UNCOVERED) return true
  }
  return false
}

/** Units of a text of which every character is covered and has ink; -1 where that does not hold. The same sum as below, without its arrays. */
function plainUnits(text: string, { advance, left, right, kern, columns }: WeightTable): number {
  let units = 0
  let previous = 0
  let current: number = Script.common
  for (let i = 0; i < text.length; i++) {
    const cp = text.charCodeAt(i)
    const width = advance[cp]!
    if (width <= 0 || cp === 0xad) return -1
    const scriptHere = script[cp]!
    if (scriptHere !== Script.common && scriptHere !== current) {
      if (current !== Script.common) previous = 0
      current = scriptHere
    }
    const row = left[previous]!
    units += row === 0 ? width : width + kern[row * columns + right[cp]!]!
    previous = cp
  }
  return units
}

/** The width of a text on one line, in px at `size` px. White space is folded first; what the font lacks is measured otherwise, or estimated. */
export function textWidth(text: string, size: number, weight: Weight = 'regular'): Width {
  const folded = foldText(text)
  const units = plainUnits(folded, tables[weight])
  if (units >= 0) return { px: ceil64((units * size) / UPEM), estimatedPx: 0, localPx: 0 }
  const { edges, estimatedPx, localPx } = prefixWidths(folded, size, weight)
  return { px: ceil64(edges[edges.length - 1]!), estimatedPx, localPx }
}

/** Runs of different weight on one line: the sum of the runs, for there is no kerning across them. Runs keep their spaces. */
export function runsWidth(runs: { text: string; weight: Weight }[], size: number): Width {
  let px = 0
  let estimatedPx = 0
  let localPx = 0
  for (const run of runs) {
    const prefixes = prefixWidths(run.text.normalize('NFC'), size, run.weight)
    px += ceil64(prefixes.edges[prefixes.edges.length - 1]!)
    estimatedPx += prefixes.estimatedPx
    localPx += prefixes.localPx
  }
  return { px, estimatedPx, localPx }
}
