/** Widths of what the shipped font lacks, by the fonts that this browser takes for it: read from a canvas. */
import { measureOtherFontsBy, type Weight } from '../../core/measure/width.ts'

/** Large, so that a width in em has no rounding to speak of. */
const SIZE = 100
/** So many runs are remembered before all are forgotten. */
const REMEMBERED = 4_000
/** Letters join within so many; beyond, a run is measured in pieces. */
const LONGEST = 64
/** Characters whose width is the same wherever they stand. */
const alone = /^[\p{Script=Han}\p{Script=Hangul}\p{M}\p{Extended_Pictographic}\u200d\ufe0f]+$/u

/** Tatweel: the stroke between two Arabic letters, of one width in all its forms. */
const STROKE = '\u0640'
const joining = /\p{Script=Arabic}/u

/** From now on such widths are measured rather than estimated, where the browser can. Once in each thread. */
export function measureOtherFonts(): void {
  const canvas = typeof OffscreenCanvas === 'undefined' ? null : new OffscreenCanvas(1, 1).getContext('2d')
  if (!canvas) return
  const known = new Map<string, number>()
  // As results are drawn (app.css, .result).
  const fonts: Record<Weight, string> = {
    regular: `400 ${SIZE}px Arimo, sans-serif`,
    bold: `700 ${SIZE}px Arimo, sans-serif`,
  }
  const em = (text: string, weight: Weight): number => {
    const key = `${weight} ${text}`
    let width = known.get(key)
    if (width === undefined) {
      canvas.font = fonts[weight]
      canvas.fontKerning = 'normal'
      canvas.textRendering = 'geometricPrecision'
      width = canvas.measureText(text).width / SIZE
      if (known.size > REMEMBERED) known.clear()
      known.set(key, width)
    }
    return width
  }
  const hasGlyphs = glyphFinder()
  measureOtherFontsBy((clusters, weight) => {
    // What no font of this machine has is drawn as boxes here: an estimate is nearer to what readers see.
    if (!clusters.every(hasGlyphs)) return null
    const edges = new Float64Array(clusters.length)
    let before = 0
    let piece = ''
    let inPiece = 0
    clusters.forEach((cluster, i) => {
      if (alone.test(cluster)) {
        before += inPiece + em(cluster, weight)
        piece = ''
        inPiece = 0
      } else {
        if (piece.length >= LONGEST) {
          before += inPiece
          piece = ''
        }
        piece += cluster
        // A letter that another follows stands in the form that joins, which a stroke behind it asks for.
        const joins = i + 1 < clusters.length && joining.test(cluster)
        inPiece = joins ? em(piece + STROKE, weight) - em(STROKE, weight) : em(piece, weight)
      }
      edges[i] = before + inPiece
    })
    return edges
  })
}

/** No character will ever be assigned here: it is drawn as what no font has. Source: the Unicode Standard, block Greek and Coptic. */
const UNASSIGNED = '\u0378'
const BOX = 40

/** Whether some font of this machine has the letters of a grapheme: asked once for each block of the Unicode Standard. */
function glyphFinder(): (cluster: string) => boolean {
  const canvas = new OffscreenCanvas(BOX, BOX).getContext('2d', { willReadFrequently: true })
  const known = new Map<number, boolean>()
  const drawing = (text: string): string => {
    canvas!.clearRect(0, 0, BOX, BOX)
    canvas!.font = `${BOX / 2}px Arimo, sans-serif`
    canvas!.fillText(text, 4, BOX * 0.7)
    return canvas!.getImageData(0, 0, BOX, BOX).data.join()
  }
  let missing: string | null = null
  return (cluster) => {
    if (!canvas) return false
    const first = cluster.codePointAt(0)!
    const block = first >> 7
    let has = known.get(block)
    if (has === undefined) {
      missing ??= drawing(UNASSIGNED)
      // Its first letter alone: a mark behind it would be a box of its own.
      has = drawing(String.fromCodePoint(first)) !== missing
      known.set(block, has)
    }
    return has
  }
}
