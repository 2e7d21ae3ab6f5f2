/** What can be done from here by name: what is on the screen says it as it comes, and takes it back as it goes. */
import { useEffect, useRef, useSyncExternalStore } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { commands, type CommandId } from './commands.ts'

export interface PaletteEntry {
  id: string
  name: string
  /** What tells it from others of its name, such as an address. */
  detail?: string
  keys?: string
  run(): void
}
/** Entries under one heading of the palette, for what was typed. */
export interface PaletteGroup {
  name: string
  /** The most fitting first; few. */
  find(typed: string): PaletteEntry[]
}

const actions = new Map<CommandId, { run(): void }>()
const groups = new Set<PaletteGroup>()
const listeners = new Set<() => void>()
let version = 0
const changed = () => {
  version++
  for (const listener of listeners) listener()
}
const subscribe = (listener: () => void) => {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

/** Whether each word that was typed is in a text, in any order, whatever the case. */
export function matchesTyped(text: string, typed: string): boolean {
  const lower = text.toLowerCase()
  return typed
    .toLowerCase()
    .split(/\s+/)
    .every((word) => lower.includes(word))
}

/** Does what a command's key does, where it works. */
export const runCommand = (id: CommandId): void => actions.get(id)?.run()

/** The groups of what is on the screen, the commands that work here last. */
export function usePaletteGroups(): PaletteGroup[] {
  useSyncExternalStore(
    subscribe,
    () => version,
    () => 0,
  )
  const here: PaletteGroup = {
    name: 'Do',
    find: (typed) =>
      [...actions].flatMap(([id, { run }]) => {
        const { name, keys } = commands[id]
        return id !== 'palette' && matchesTyped(name, typed) ? [{ id, name, keys, run }] : []
      }),
  }
  return [...groups, here]
}

/** Adds a group to the palette while this is on the screen. */
export function usePaletteGroup(name: string, find: (typed: string) => PaletteEntry[]): void {
  const newest = useRef(find)
  useEffect(() => void (newest.current = find))
  useEffect(() => {
    const group: PaletteGroup = { name, find: (typed) => newest.current(typed) }
    groups.add(group)
    changed()
    return () => {
      groups.delete(group)
      changed()
    }
  }, [name])
}

/** Binds a command's key, in fields as well, and lists it in the palette, while this is on the screen. */
export function useCommand(id: CommandId, run: () => void): void {
  const newest = useRef(run)
  useEffect(() => void (newest.current = run))
  const { keys } = commands[id] as { keys: string }
  const isSign = keys.length === 1
  useHotkeys(keys, () => newest.current(), {
    // A sign is typed in fields; a combination is not.
    enableOnFormTags: !isSign,
    enableOnContentEditable: !isSign,
    preventDefault: true,
    // Alt changes what a key writes, so its place on the keyboard counts; else the letter does, wherever it stands.
    useKey: !keys.includes('alt+'),
    ...(isSign ? { ignoreModifiers: true } : {}),
  })
  useEffect(() => {
    const action = { run: () => newest.current() }
    actions.set(id, action)
    changed()
    return () => {
      if (actions.get(id) === action) actions.delete(id)
      changed()
    }
  }, [id])
}
