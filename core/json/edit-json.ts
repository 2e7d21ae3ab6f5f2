/**
 * Changes to a JSON text at one pointer, everything else as it stands: key order, indentation, spacing, escapes. What is
 * given is a JSON text that parses; a pointer that leads nowhere changes nothing.
 */
import { parseJson, valueAt, type JsonValue } from './json.ts'

/** The white space that starts a line, one step of it, as the text itself indents; two spaces where it is all on one line. */
function unitOf(text: string): string {
  const indent = /\n([ \t]+)\S/.exec(text)?.[1]
  return indent === undefined
    ? '  '
    : indent.startsWith('\t')
      ? '\t'
      : indent.slice(0, Math.min(indent.length, 8))
}
const isOneLine = (text: string, { start, end }: JsonValue): boolean => !text.slice(start, end).includes('\n')
/** The indentation of the line on which a place stands. */
const indentAt = (text: string, place: number): string =>
  /[ \t]*/.exec(text.slice(text.lastIndexOf('\n', place - 1) + 1))![0]
const lineEnd = (text: string): string => (text.includes('\r\n') ? '\r\n' : '\n')

/** A value written as its surroundings are: on lines of its own where they are, else on one. */
function written(value: unknown, text: string, indent: string, oneLine: boolean): string {
  if (oneLine) return JSON.stringify(value)
  const unit = unitOf(text)
  return JSON.stringify(value, null, unit).replace(/\n/g, lineEnd(text) + indent)
}

const parsed = (text: string): JsonValue | null => {
  const result = parseJson(text)
  return result.ok ? result.value : null
}
const spliced = (text: string, from: number, to: number, by: string): string =>
  text.slice(0, from) + by + text.slice(to)
/** A pointer's parent and its last step, decoded. */
export function splitPointer(pointer: string): { parent: string; key: string } {
  const at = pointer.lastIndexOf('/')
  return {
    parent: pointer.slice(0, at),
    key: pointer
      .slice(at + 1)
      .replace(/~1/g, '/')
      .replace(/~0/g, '~'),
  }
}
export const step = (key: string | number): string =>
  `/${String(key).replace(/~/g, '~0').replace(/\//g, '~1')}`

/** The plain value that a JSON text holds at a place of its tree. */
export function plainOf(value: JsonValue): unknown {
  switch (value.kind) {
    case 'object':
      return Object.fromEntries(value.members.map((m) => [m.key, plainOf(m.value)]))
    case 'array':
      return value.items.map(plainOf)
    default:
      return value.value
  }
}

/** Puts a value in the place of another. One that is the same already leaves the text as it is. */
export function setValue(text: string, pointer: string, value: unknown): string {
  const root = parsed(text)
  const at = root && valueAt(root, pointer)
  if (!at || JSON.stringify(plainOf(at)) === JSON.stringify(value)) return text
  const complex = typeof value === 'object' && value !== null
  const alone = !text.slice(0, at.start).includes('\n') && !text.includes('\n')
  return spliced(
    text,
    at.start,
    at.end,
    complex
      ? written(value, text, indentAt(text, at.start), alone || isOneLine(text, root))
      : JSON.stringify(value),
  )
}

/** Adds a member behind the others of an object; one that is there already gets the value. */
export function addMember(text: string, pointer: string, key: string, value: unknown): string {
  const root = parsed(text)
  const object = root && valueAt(root, pointer)
  if (object?.kind !== 'object') return text
  if (object.members.some((m) => m.key === key)) return setValue(text, pointer + step(key), value)
  const oneLine = isOneLine(text, object) && (object.members.length > 0 || isOneLine(text, root!))
  const last = object.members.at(-1)
  if (oneLine) {
    const gap = /:\s/.test(text.slice(object.start, object.end)) ? ' ' : ''
    const entry = `${JSON.stringify(key)}:${gap}${JSON.stringify(value)}`
    const at = last ? last.value.end : object.start + 1
    return spliced(text, at, at, last ? `,${gap}${entry}` : entry)
  }
  const eol = lineEnd(text)
  const outer = indentAt(text, object.start)
  const indent = last ? indentAt(text, last.keyStart) : outer + unitOf(text)
  const entry = `${indent}${JSON.stringify(key)}: ${written(value, text, indent, false)}`
  if (last) return spliced(text, last.value.end, last.value.end, `,${eol}${entry}`)
  return spliced(text, object.start, object.end, `{${eol}${entry}${eol}${outer}}`)
}

/** Puts a value into a list, before the one at `index`. */
export function addItem(text: string, pointer: string, index: number, value: unknown): string {
  const root = parsed(text)
  const list = root && valueAt(root, pointer)
  if (list?.kind !== 'array') return text
  const oneLine = isOneLine(text, list) && (list.items.length > 0 || isOneLine(text, root!))
  const eol = lineEnd(text)
  const next = list.items[index]
  const last = list.items.at(-1)
  if (!last) {
    if (oneLine) return spliced(text, list.start, list.end, `[${JSON.stringify(value)}]`)
    const outer = indentAt(text, list.start)
    const indent = outer + unitOf(text)
    return spliced(
      text,
      list.start,
      list.end,
      `[${eol}${indent}${written(value, text, indent, false)}${eol}${outer}]`,
    )
  }
  const ownLine = text.slice(list.start, list.items[0]!.start).includes('\n')
  const indent = indentAt(text, last.start)
  const gap = ownLine
    ? eol + indent
    : /,\s/.test(text.slice(list.start, list.end))
      ? ' '
      : list.items.length > 1
        ? ''
        : ' '
  const entry = written(value, text, indent, oneLine)
  return next
    ? spliced(text, next.start, next.start, `${entry},${gap}`)
    : spliced(text, last.end, last.end, `,${gap}${entry}`)
}

/** Takes a member or an entry of a list out, with its comma. */
export function removeValue(text: string, pointer: string): string {
  const root = parsed(text)
  const { parent, key } = splitPointer(pointer)
  const holder = root && valueAt(root, parent)
  if (!holder || pointer === '') return text
  const parts: { start: number; end: number }[] =
    holder.kind === 'object'
      ? holder.members.map((m) => ({ start: m.keyStart, end: m.value.end }))
      : holder.kind === 'array'
        ? holder.items
        : []
  const at = holder.kind === 'object' ? holder.members.findLastIndex((m) => m.key === key) : Number(key)
  const part = parts[at]
  if (!part) return text
  const before = parts[at - 1]
  const after = parts[at + 1]
  if (after) return spliced(text, part.start, after.start, '')
  if (before) return spliced(text, before.end, part.end, '')
  return spliced(text, holder.start + 1, holder.end - 1, '')
}

/** Moves an entry of a list to another place in it. */
export function moveItem(text: string, pointer: string, from: number, to: number): string {
  const root = parsed(text)
  const list = root && valueAt(root, pointer)
  if (list?.kind !== 'array' || !list.items[from] || !list.items[to] || from === to) return text
  // Texts of the entries change places; what stands between them stays.
  const texts = list.items.map((i) => text.slice(i.start, i.end))
  const [moved] = texts.splice(from, 1)
  texts.splice(to, 0, moved!)
  let out = text.slice(0, list.items[0]!.start)
  list.items.forEach((item, i) => {
    const next = list.items[i + 1]
    out += texts[i]! + text.slice(item.end, next ? next.start : item.end)
  })
  return out + text.slice(list.items.at(-1)!.end)
}

/** The same text with each value on a line of its own, two spaces a step; names, numbers and strings as they are spelt. */
export function layOut(text: string): string {
  const root = parsed(text)
  if (!root) return text
  const eol = lineEnd(text)
  const lines = (value: JsonValue, indent: string): string => {
    const inner = indent + '  '
    const parts =
      value.kind === 'object'
        ? value.members.map((m) => `${text.slice(m.keyStart, m.keyEnd)}: ${lines(m.value, inner)}`)
        : value.kind === 'array'
          ? value.items.map((item) => lines(item, inner))
          : []
    if (parts.length === 0)
      return value.kind === 'object'
        ? '{}'
        : value.kind === 'array'
          ? '[]'
          : text.slice(value.start, value.end)
    const [open, close] = value.kind === 'object' ? '{}' : '[]'
    return open + eol + parts.map((p) => inner + p).join(`,${eol}`) + eol + indent + close
  }
  return spliced(text, root.start, root.end, lines(root, ''))
}

/** A document as it is written anew: two spaces a step. */
export const pretty = (value: unknown): string => JSON.stringify(value, null, 2)

/** A JSON text as it can stand in a script element: nothing in it can end the element or begin a comment (WHATWG HTML 4.12.1.3). */
export const safeJson = (json: string): string =>
  json
    .replace(/<(?=\/script|!--)/gi, '\\u003c')
    .replace(/\u2028/g, '\\u2028')
    .replace(/\u2029/g, '\\u2029')
