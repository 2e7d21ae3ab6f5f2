/** A block that is being edited: its text now, and each change of it as one decision of the page's draft. */
import type { Decisions } from '../../../core/work/decisions.ts'
import type { Edit } from '../../../core/page/edits/draft.ts'
import {
  addItem,
  addMember,
  moveItem,
  plainOf,
  removeValue,
  setValue,
  splitPointer,
  step,
} from '../../../core/json/edit-json.ts'
import { parseJson, valueAt } from '../../../core/json/json.ts'
import type { Session } from '../../session/session.ts'

export interface BlockEditor {
  /** The block's text as it is now. */
  text(): string
  /** Puts another value in the place of one. */
  set(pointer: string, value: unknown): void
  /** Gives a thing a property, or one more value of one that it has. */
  add(pointer: string, property: string, value: unknown): void
  remove(pointer: string): void
  move(list: string, from: number, to: number): void
  /** The whole text, as a programmer writes it. */
  write(text: string): void
  /** Ends a stretch of typing: what comes next is a step of its own. */
  rest(): void
}

export function blockEditor(
  session: Session,
  page: string,
  key: string,
  /** The block's text as the worker last saw it. */
  shown: () => string,
  decisions: () => Decisions,
): BlockEditor {
  const now = () => decisions()[`edit:${key}`] as Edit | undefined
  const text = () => now()?.value ?? shown()
  /** `touched`: pointers whose values do not follow the page any more. */
  const keep = (value: string, touched: (pointer: string) => boolean, label: string) => {
    if (value === text()) return
    const built = now()?.built
    const links = built && Object.fromEntries(Object.entries(built.links).filter(([p]) => !touched(p)))
    session.type(
      page,
      `edit:${key}`,
      { value, ...(built && links ? { built: { ...built, links } } : {}) },
      label,
    )
  }
  const under = (pointer: string) => (p: string) => p === pointer || p.startsWith(pointer + '/')
  return {
    text,
    set: (pointer, value) => keep(setValue(text(), pointer, value), under(pointer), 'Structured data'),
    add(pointer, property, value) {
      const root = parseJson(text())
      const at = pointer + step(property)
      const there = root.ok ? valueAt(root.value, at) : undefined
      if (!there) keep(addMember(text(), pointer, property, value), () => false, 'Structured data')
      else if (there.kind === 'array')
        keep(addItem(text(), at, there.items.length, value), () => false, 'Structured data')
      else keep(setValue(text(), at, [plainOf(there), value]), under(at), 'Structured data')
    },
    remove(pointer) {
      const { parent } = splitPointer(pointer)
      keep(removeValue(text(), pointer), under(/\/\d+$/.test(pointer) ? parent : pointer), 'Structured data')
    },
    move: (list, from, to) => keep(moveItem(text(), list, from, to), under(list), 'Structured data'),
    write: (value) => keep(value, () => true, 'Structured data as JSON'),
    rest: () => void session.blur(),
  }
}
