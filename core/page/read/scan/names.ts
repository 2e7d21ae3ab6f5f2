/** Names of tags and attributes, looked up by their characters in the page's text, without a string cut out for each. */
import { is, UPPER } from './characters.ts'

/** So many names are remembered; those that a page has beyond them are cut out each time. */
const MOST_NAMES = 2000
const SLOTS = 4096
/** A name takes at most so many steps to be found; one that shares its place with more is cut out each time. */
const MOST_STEPS = 16

/** The string as the engine keeps the names of properties: equal ones are then one, and compared at once. */
const internalised = (name: string): string => {
  const [key] = Object.keys({ [name]: true })
  return key === name ? key : name
}

/** An open hash table from the characters of a name to that name in lower case. */
export class Names {
  private readonly slots = new Int32Array(SLOTS)
  private readonly names: string[] = ['']

  /** The name in lower case that stands at `[from, to)`; `hash` is that of its characters in lower case. */
  at(text: string, from: number, to: number, hash: number): string {
    const { slots, names } = this
    let slot = hash & (SLOTS - 1)
    for (let steps = 0; steps < MOST_STEPS; steps++) {
      const index = slots[slot]!
      if (index === 0) {
        const name = lowerAscii(text.slice(from, to))
        if (names.length > MOST_NAMES) return name
        const kept = internalised(name)
        slots[slot] = names.push(kept) - 1
        return kept
      }
      const name = names[index]!
      if (name.length === to - from && saysName(text, from, name)) return name
      slot = (slot + 1) & (SLOTS - 1)
    }
    return lowerAscii(text.slice(from, to))
  }
}

/** HTML lowers the 26 letters of names, and no others. */
const lowerAscii = (name: string): string => name.replace(/[A-Z]+/g, (letters) => letters.toLowerCase())

function saysName(text: string, from: number, name: string): boolean {
  for (let k = 0; k < name.length; k++) {
    let unit = text.charCodeAt(from + k)
    if (is(unit, UPPER)) unit |= 32
    if (unit !== name.charCodeAt(k)) return false
  }
  return true
}
