/** What items show: white space folded across tags, none at the ends of lines. */
import type { Item } from './items.ts'

/** A character that is shown, and the item that it comes from. */
export interface Shown {
  value: string
  item: Item
}

export const isWhite = (value: string): boolean => /^[ \t\n\f]+$/.test(value)

/** The characters that are shown, in order; what is between them shows nothing. */
export function shownOf(items: readonly Item[]): Shown[] {
  const shown: Shown[] = []
  let space: Item | null = null
  for (const item of items) {
    if (item.kind === 'text') {
      if (isWhite(item.value)) {
        space ??= item
        continue
      }
      if (space && shown.length > 0 && shown.at(-1)!.value !== '\n') shown.push({ value: ' ', item: space })
      space = null
      shown.push({ value: item.value, item })
    } else if (item.kind === 'atom') {
      if (space && item.value !== '\n' && shown.length > 0 && shown.at(-1)!.value !== '\n')
        shown.push({ value: ' ', item: space })
      space = null
      shown.push({ value: item.value, item })
    }
  }
  return shown
}

export const textOf = (shown: readonly Shown[]): string => shown.map((s) => s.value).join('')

/** A wording as a block can show it: white space folded, none at the ends of lines. */
export const asShown = (typed: string): string =>
  typed
    .replace(/[\0\r\ufdd0-\ufdef]/g, '')
    .split('\n')
    .map((line) => line.replace(/[ \t\f]+/g, ' ').trim())
    .join('\n')
    .replace(/^\n+|\n+$/g, '')
