/** How a title and a description stand in a search result: fits, at risk, or cut, on a wide and a narrow screen. */
import { cutAtWord, type Cut } from './cut.ts'
import { countGraphemes, textWidth } from './width.ts'

export type Fit = 'fits' | 'at-risk' | 'cut'
export type Role = 'title' | 'description'
export type Screen = 'wide' | 'narrow'

/**
 * One kind of text on one kind of screen. column: px of a line; size: px of the type; lines: how many lines a title
 * may take; allowance: px in all for a description; riskPx: the width from which a cut may come (for a title on
 * several lines, the width of the last).
 */
export interface Slot {
  column: number
  size: number
  lines?: number
  allowance?: number
  riskPx: number
}
export type Slots = Record<Role, Record<Screen, Slot>>

/** Common practice, from memory, no published source: engines change these widths without notice; hence the band. */
export const defaultSlots: Slots = {
  title: {
    wide: { column: 600, size: 20, lines: 1, riskPx: 560 },
    narrow: { column: 358, size: 20, lines: 2, riskPx: 322.2 },
  },
  description: {
    wide: { column: 600, size: 14, allowance: 920, riskPx: 880 },
    narrow: { column: 358, size: 14, allowance: 680, riskPx: 640 },
  },
}

export interface SlotResult extends Cut {
  state: Fit
}

export interface Measured {
  text: string
  graphemes: number
  /** Width of the whole text on one line, regular weight. */
  px: number
  /** How much of `px` is estimated because the font lacks the characters. */
  estimatedPx: number
  /** How much of `px` was measured in another font, which this browser has and others may not. */
  localPx: number
  wide: SlotResult
  narrow: SlotResult
}

/** An estimated width may be off: the risk band begins this share of the estimated px earlier. From memory. */
const ESTIMATE_SLACK = 0.05

function intoSlot(text: string, slot: Slot, total: number, estimatedPx: number): SlotResult {
  const { column, size, lines = 1, allowance } = slot
  const cut = cutAtWord(
    text,
    allowance === undefined
      ? (line) => ({ px: column, last: line === lines - 1 })
      : (_, used) =>
          allowance - used > column
            ? { px: column, last: false }
            : { px: Math.max(0, allowance - used), last: true },
    size,
  )
  const lastLine =
    allowance === undefined && lines > 1
      ? cut.lines.length === lines
        ? textWidth(cut.lines.at(-1)!, size).px
        : 0
      : total
  const risk = slot.riskPx - estimatedPx * ESTIMATE_SLACK
  return { ...cut, state: cut.cut ? 'cut' : lastLine > risk ? 'at-risk' : 'fits' }
}

/** So many of the last texts are remembered: a result is drawn anew at every key, and most of it says what it said before. */
const REMEMBERED = 16
const lately: { text: string; role: Role; slots: Slots; measured: Measured }[] = []
let oldest = 0

/** Measures one text for its place in a result. White space is folded first. Never fails; empty text fits. */
export function measure(text: string, role: Role, slots: Slots = defaultSlots): Measured {
  for (const known of lately)
    if (known.text === text && known.role === role && known.slots === slots) return known.measured
  const measured = measureAnew(text, role, slots)
  lately[oldest] = { text, role, slots, measured }
  oldest = (oldest + 1) % REMEMBERED
  return measured
}

function measureAnew(text: string, role: Role, slots: Slots): Measured {
  const { wide, narrow } = slots[role]
  const { px, estimatedPx, localPx } = textWidth(text, wide.size)
  return {
    text,
    graphemes: countGraphemes(text),
    px,
    estimatedPx,
    localPx,
    // Readers may have another font: as little is certain as of an estimate.
    wide: intoSlot(text, wide, px, estimatedPx + localPx),
    narrow: intoSlot(text, narrow, px, estimatedPx + localPx),
  }
}

/** How a title stands on a wide screen, and nothing else of it: for thousands of titles at a time. */
export function wideTitleFit(text: string, slots: Slots): Fit {
  const { column, size, lines = 1, riskPx } = slots.title.wide
  if (lines > 1) return measure(text, 'title', slots).wide.state
  const { px, estimatedPx, localPx } = textWidth(text, size)
  if (px > column + 1 / 64) return 'cut'
  return px > riskPx - (estimatedPx + localPx) * ESTIMATE_SLACK ? 'at-risk' : 'fits'
}
