/**
 * Every command that has a key: what it is called, its key, and where it works. The help is drawn from this list, the
 * keys are bound from it, and the palette finds commands by these names.
 */

/** `keys` as react-hotkeys-hook spells them; `mod` is Ctrl, on a Mac Command. */
export interface Command {
  name: string
  keys: string
  where: 'Everywhere' | 'Desk' | 'Snippet' | 'Snippet and line-up' | 'Line-up'
}

export const commands = {
  palette: {
    where: 'Everywhere',
    keys: 'mod+k',
    name: 'Go to a page or a view, or do something, by its name',
  },
  undo: { where: 'Everywhere', keys: 'mod+z', name: 'Undo, even after a reload' },
  redo: { where: 'Everywhere', keys: 'mod+shift+z', name: 'Redo' },
  passOn: { where: 'Everywhere', keys: 'alt+g', name: 'First pass: this step is done, go on' },
  help: { where: 'Everywhere', keys: '?', name: 'All keys' },
  guide: { where: 'Everywhere', keys: 'f1', name: 'The guide, at this view' },
  nextPage: { where: 'Desk', keys: 'alt+down', name: 'Next page' },
  pageBefore: { where: 'Desk', keys: 'alt+up', name: 'Page before' },
  copyTitle: { where: 'Desk', keys: 'alt+1', name: 'Copy the title' },
  copyDescription: { where: 'Desk', keys: 'alt+2', name: 'Copy the description' },
  copyAddress: { where: 'Desk', keys: 'alt+3', name: 'Copy the address' },
  approve: { where: 'Desk', keys: 'alt+a', name: 'Approve the page' },
  keepTake: { where: 'Snippet and line-up', keys: 'alt+t', name: 'Keep the title as a take' },
  nextTake: { where: 'Line-up', keys: 'alt+n', name: 'Put the next take in ours’ place' },
  casing: { where: 'Snippet', keys: 'alt+c', name: 'Set the title in the house style’s casing' },
  fromInstead: { where: 'Snippet', keys: 'alt+i', name: 'Start from what is shown instead' },
  toSlug: { where: 'Snippet', keys: 'alt+s', name: 'Go to the slug' },
} as const satisfies Record<string, Command>
export type CommandId = keyof typeof commands

/** Keys that work while a heading of the outline has the focus; `key` as KeyboardEvent names it, letters in lower case. */
export interface OutlineCommand {
  name: string
  key: string
  alt?: boolean
  shift?: boolean
}
export const outlineCommands = {
  up: { key: 'ArrowUp', name: 'Heading before' },
  down: { key: 'ArrowDown', name: 'Next heading' },
  first: { key: 'Home', name: 'First heading' },
  last: { key: 'End', name: 'Last heading' },
  pageUp: { key: 'PageUp', name: 'Ten up' },
  pageDown: { key: 'PageDown', name: 'Ten down' },
  unfold: { key: 'ArrowRight', name: 'Unfold what is below' },
  fold: { key: 'ArrowLeft', name: 'Fold what is below' },
  in: { key: 'Tab', name: 'One step in, with its section' },
  out: { key: 'Tab', shift: true, name: 'One step out, with its section' },
  inAlone: { key: 'ArrowRight', alt: true, name: 'One step in, alone' },
  outAlone: { key: 'ArrowLeft', alt: true, name: 'One step out, alone' },
  level1: { key: '1', name: 'To level 1' },
  level2: { key: '2', name: 'To level 2' },
  level3: { key: '3', name: 'To level 3' },
  level4: { key: '4', name: 'To level 4' },
  level5: { key: '5', name: 'To level 5' },
  level6: { key: '6', name: 'To level 6' },
  paragraph: { key: 'p', name: 'Make it a paragraph' },
  heading: { key: 'h', name: 'Make it a heading again' },
  join: { key: 'm', name: 'Join with the next' },
  subtitle: { key: 's', name: 'Subtitle of the one above' },
  gap: { key: 'g', name: 'Close the gap' },
  takeOut: { key: 'Delete', name: 'Take out an empty one' },
  words: { key: 'Enter', name: 'Change the words' },
  source: { key: 'l', name: 'Its line in the source' },
  leave: { key: 'Escape', name: 'Leave the outline, so that Tab moves on' },
} as const satisfies Record<string, OutlineCommand>
export type OutlineCommandId = keyof typeof outlineCommands

/** The outline's command that a key stands for; null for any other key. */
export function outlineCommandOf(event: {
  key: string
  altKey: boolean
  shiftKey: boolean
  ctrlKey: boolean
  metaKey: boolean
}): OutlineCommandId | null {
  if (event.ctrlKey || event.metaKey) return null
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
  for (const [id, command] of Object.entries(outlineCommands) as [OutlineCommandId, OutlineCommand][])
    if (
      command.key === key &&
      (command.alt ?? false) === event.altKey &&
      (key !== 'Tab' || (command.shift ?? false) === event.shiftKey)
    )
      return id
  return null
}

const NAMES: Record<string, string> = {
  mod: 'Ctrl',
  alt: 'Alt',
  shift: 'Shift',
  f1: 'F1',
  up: '↑',
  down: '↓',
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
  PageUp: 'PgUp',
  PageDown: 'PgDn',
  Delete: 'Del',
  Escape: 'Esc',
}
const keyName = (key: string): string => NAMES[key] ?? (key.length === 1 ? key.toUpperCase() : key)

/** A combination as it is printed: `mod+shift+z` as Ctrl, Shift, Z. */
export const printedKeys = (keys: string): string[] => keys.split('+').map(keyName)

export const printedOutlineKeys = ({ key, alt, shift }: OutlineCommand): string[] => [
  ...(alt ? ['Alt'] : []),
  ...(shift ? ['Shift'] : []),
  keyName(key),
]
