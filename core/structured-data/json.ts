/** JSON by RFC 8259, with the place of every value, and errors that say what was expected where. */

export type JsonValue =
  | {
      kind: 'object'
      members: { key: string; keyStart: number; keyEnd: number; value: JsonValue }[]
      start: number
      end: number
    }
  | { kind: 'array'; items: JsonValue[]; start: number; end: number }
  | { kind: 'string'; value: string; start: number; end: number }
  | { kind: 'number'; value: number; start: number; end: number }
  | { kind: 'literal'; value: boolean | null; start: number; end: number }

export type JsonResult = { ok: true; value: JsonValue } | { ok: false; at: number; message: string }

class Stop extends Error {
  readonly at: number
  constructor(at: number, message: string) {
    super(message)
    this.at = at
  }
}
/** Deeper than any document that describes a page; keeps hostile nesting off the call stack. */
const DEEPEST = 500
const escapes: Record<string, string> = {
  '"': '"',
  '\\': '\\',
  '/': '/',
  b: '\b',
  f: '\f',
  n: '\n',
  r: '\r',
  t: '\t',
}

/** Parses one JSON text. Never throws. Places are UTF-16 units of `text`. */
export function parseJson(text: string): JsonResult {
  let i = 0
  const space = () => {
    while (i < text.length && /[ \t\n\r]/.test(text[i]!)) i++
  }
  const seen = () =>
    i >= text.length ? 'the end of the block' : `“${text.slice(i, i + 12).split(/\s/)[0] || text[i]}”`
  const stop = (expected: string, at = i): never => {
    throw new Stop(at, `${expected} was expected, but ${seen()} stands there`)
  }

  function value(depth: number): JsonValue {
    space()
    if (depth > DEEPEST) throw new Stop(i, `It is nested more than ${DEEPEST} levels deep`)
    const start = i
    const c = text[i]
    if (c === '{') return object(depth, start)
    if (c === '[') return array(depth, start)
    if (c === '"') return { kind: 'string', value: string(), start, end: i }
    for (const [word, literal] of [
      ['true', true],
      ['false', false],
      ['null', null],
    ] as const)
      if (text.startsWith(word, i)) {
        i += word.length
        return { kind: 'literal', value: literal, start, end: i }
      }
    const number = /^-?(?:0|[1-9]\d*)(?:\.\d+)?(?:[eE][+-]?\d+)?/.exec(text.slice(i, i + 400))
    if (number) {
      i += number[0].length
      return { kind: 'number', value: Number(number[0]), start, end: i }
    }
    if (c === "'") throw new Stop(i, 'Text stands in double quotes in JSON, not in single ones')
    if (text.startsWith('<!--', i))
      throw new Stop(i, 'An HTML comment is wrapped around the data: take out “<!--” and “-->”')
    if (text.startsWith('//', i) || text.startsWith('/*', i))
      throw new Stop(i, 'JSON has no comments: take it out')
    return stop('A value')
  }

  function object(depth: number, start: number): JsonValue {
    const members: { key: string; keyStart: number; keyEnd: number; value: JsonValue }[] = []
    i++
    space()
    if (text[i] === '}') return { kind: 'object', members, start, end: ++i }
    for (;;) {
      space()
      const keyStart = i
      if (text[i] === '}') throw new Stop(i, 'A comma stands before the closing brace: take the comma out')
      if (text[i] !== '"') stop('A name in double quotes')
      const key = string()
      const keyEnd = i
      space()
      if (text[i] !== ':') stop('A colon')
      i++
      members.push({ key, keyStart, keyEnd, value: value(depth + 1) })
      space()
      if (text[i] === ',') i++
      else if (text[i] === '}') return { kind: 'object', members, start, end: ++i }
      else stop('A comma or a closing brace')
    }
  }

  function array(depth: number, start: number): JsonValue {
    const items: JsonValue[] = []
    i++
    space()
    if (text[i] === ']') return { kind: 'array', items, start, end: ++i }
    for (;;) {
      space()
      if (text[i] === ']') throw new Stop(i, 'A comma stands before the closing bracket: take the comma out')
      items.push(value(depth + 1))
      space()
      if (text[i] === ',') i++
      else if (text[i] === ']') return { kind: 'array', items, start, end: ++i }
      else stop('A comma or a closing bracket')
    }
  }

  function string(): string {
    const start = i++
    let out = ''
    for (;;) {
      const c = text[i]
      if (c === undefined)
        throw new Stop(start, 'The text that begins here is never closed with a double quote')
      if (c === '"') {
        i++
        return out
      }
      if (c < ' ')
        throw new Stop(
          i,
          c === '\n' || c === '\r'
            ? 'A line end stands inside a text: write \\n, or close the quote'
            : 'A control character stands inside a text',
        )
      if (c !== '\\') {
        const from = i
        do i++
        while (text.charCodeAt(i) >= 0x20 && text[i] !== '"' && text[i] !== '\\')
        out += text.slice(from, i)
        continue
      }
      const e = text[i + 1] ?? ''
      if (e === 'u') {
        const hex = text.slice(i + 2, i + 6)
        if (!/^[0-9a-fA-F]{4}$/.test(hex))
          throw new Stop(i, 'Four hexadecimal digits were expected after \\u')
        out += String.fromCharCode(parseInt(hex, 16))
        i += 6
      } else if (e in escapes) {
        out += escapes[e]
        i += 2
      } else throw new Stop(i, `“\\${e}” is no escape in JSON`)
    }
  }

  try {
    space()
    if (text.charCodeAt(i) === 0xfeff) i++
    const result = value(0)
    space()
    if (i < text.length) {
      if (text.startsWith('-->', i))
        throw new Stop(i, 'An HTML comment is wrapped around the data: take out “<!--” and “-->”')
      stop('The end of the block')
    }
    return { ok: true, value: result }
  } catch (error) {
    if (error instanceof Stop) return { ok: false, at: error.at, message: error.message }
    throw error
  }
}

/** The JSON pointer (RFC 6901) of the innermost value, or of the member whose name stands there, at a place in the text. */
export function pointerAt(value: JsonValue, place: number): string {
  if (value.kind === 'object')
    for (const m of value.members) {
      const step = `/${m.key.replace(/~/g, '~0').replace(/\//g, '~1')}`
      if (place >= m.keyStart && place < m.keyEnd) return step
      if (place >= m.value.start && place < m.value.end) return step + pointerAt(m.value, place)
    }
  if (value.kind === 'array')
    for (const [i, item] of value.items.entries())
      if (place >= item.start && place < item.end) return `/${i}${pointerAt(item, place)}`
  return ''
}

/** The value that a JSON pointer leads to; undefined where it leads to none. */
export function valueAt(value: JsonValue, pointer: string): JsonValue | undefined {
  let at: JsonValue | undefined = value
  for (const step of pointer.split('/').slice(1)) {
    const key = step.replace(/~1/g, '/').replace(/~0/g, '~')
    at =
      at?.kind === 'object'
        ? at.members.findLast((m) => m.key === key)?.value
        : at?.kind === 'array' && /^\d+$/.test(key)
          ? at.items[Number(key)]
          : undefined
  }
  return at
}

/** A member's value, or undefined. */
export function member(value: JsonValue, key: string): JsonValue | undefined {
  // Where a name stands twice, the last one counts, as in JSON.parse.
  return value.kind === 'object' ? value.members.findLast((m) => m.key === key)?.value : undefined
}

/** Types named by a block's entities at the top: its own, its array's, its @graph's. */
export function typesOf(value: JsonValue): string[] {
  if (value.kind === 'array') return value.items.flatMap(typesOf)
  if (value.kind !== 'object') return []
  const type = member(value, '@type')
  const own =
    type?.kind === 'string'
      ? [type.value]
      : type?.kind === 'array'
        ? type.items.flatMap((t) => (t.kind === 'string' ? [t.value] : []))
        : []
  const graph = member(value, '@graph')
  return graph ? [...own, ...typesOf(graph)] : own
}

/** Every string value in a document, with its place; keys are not among them. */
export function* stringsIn(value: JsonValue): Generator<Extract<JsonValue, { kind: 'string' }>> {
  if (value.kind === 'string') yield value
  else if (value.kind === 'array') for (const item of value.items) yield* stringsIn(item)
  else if (value.kind === 'object') for (const m of value.members) yield* stringsIn(m.value)
}
