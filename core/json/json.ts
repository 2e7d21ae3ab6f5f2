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
/** More values than this in one block are not read. */
const MOST_VALUES = 1_000_000
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

/** One parse: a class, so that its parts are made once and not for every text. */
class Parse {
  private i = 0
  private values = 0
  private readonly text: string
  constructor(text: string) {
    this.text = text
  }

  whole(): JsonValue {
    const { text } = this
    this.space()
    if (text.charCodeAt(this.i) === 0xfeff) this.i++
    const result = this.value(0)
    this.space()
    if (this.i < text.length) {
      if (text.startsWith('-->', this.i))
        throw new Stop(this.i, 'An HTML comment is wrapped around the data: remove “<!--” and “-->”')
      this.stop('The end of the block')
    }
    return result
  }

  private space(): void {
    const { text } = this
    for (;;) {
      const c = text.charCodeAt(this.i)
      if (c !== 0x20 && c !== 0x0a && c !== 0x0d && c !== 0x09) return
      this.i++
    }
  }

  private stop(expected: string): never {
    const { text, i } = this
    const seen =
      i >= text.length ? 'the end of the block' : `“${text.slice(i, i + 12).split(/\s/)[0] || text[i]}”`
    throw new Stop(i, `${expected} was expected, but ${seen} stands there`)
  }

  private value(depth: number): JsonValue {
    this.space()
    const { text } = this
    if (++this.values > MOST_VALUES)
      throw new Stop(this.i, `It holds more than ${MOST_VALUES.toLocaleString('en')} values`)
    if (depth > DEEPEST) throw new Stop(this.i, `It is nested more than ${DEEPEST} levels deep`)
    const start = this.i
    const c = text[start]
    if (c === '{') return this.object(depth, start)
    if (c === '[') return this.array(depth, start)
    if (c === '"') return { kind: 'string', value: this.string(), start, end: this.i }
    for (const [word, literal] of literals)
      if (text.startsWith(word, start)) {
        this.i += word.length
        return { kind: 'literal', value: literal, start, end: this.i }
      }
    const number = /^-?(?:0|[1-9]\d*)(?:\.\d+)?(?:[eE][+-]?\d+)?/.exec(text.slice(start, start + 400))
    if (number) {
      this.i += number[0].length
      return { kind: 'number', value: Number(number[0]), start, end: this.i }
    }
    if (c === "'") throw new Stop(start, 'JSON puts text in double quotes, not single ones')
    if (text.startsWith('<!--', start))
      throw new Stop(start, 'An HTML comment is wrapped around the data: remove “<!--” and “-->”')
    if (text.startsWith('//', start) || text.startsWith('/*', start))
      throw new Stop(start, 'JSON has no comments: remove it')
    return this.stop('A value')
  }

  private object(depth: number, start: number): JsonValue {
    const { text } = this
    const members: { key: string; keyStart: number; keyEnd: number; value: JsonValue }[] = []
    this.i++
    this.space()
    if (text[this.i] === '}') return { kind: 'object', members, start, end: ++this.i }
    for (;;) {
      this.space()
      const keyStart = this.i
      if (text[keyStart] === '}')
        throw new Stop(keyStart, 'There is a comma before the closing brace: remove it')
      if (text[keyStart] !== '"') this.stop('A name in double quotes')
      const key = this.string()
      const keyEnd = this.i
      this.space()
      if (text[this.i] !== ':') this.stop('A colon')
      this.i++
      members.push({ key, keyStart, keyEnd, value: this.value(depth + 1) })
      this.space()
      if (text[this.i] === ',') this.i++
      else if (text[this.i] === '}') return { kind: 'object', members, start, end: ++this.i }
      else this.stop('A comma or a closing brace')
    }
  }

  private array(depth: number, start: number): JsonValue {
    const { text } = this
    const items: JsonValue[] = []
    this.i++
    this.space()
    if (text[this.i] === ']') return { kind: 'array', items, start, end: ++this.i }
    for (;;) {
      this.space()
      if (text[this.i] === ']')
        throw new Stop(this.i, 'There is a comma before the closing bracket: remove it')
      items.push(this.value(depth + 1))
      this.space()
      if (text[this.i] === ',') this.i++
      else if (text[this.i] === ']') return { kind: 'array', items, start, end: ++this.i }
      else this.stop('A comma or a closing bracket')
    }
  }

  private string(): string {
    const { text } = this
    const start = this.i++
    let out = ''
    for (;;) {
      const c = text[this.i]
      if (c === undefined)
        throw new Stop(start, 'The text that begins here is never closed with a double quote')
      if (c === '"') {
        this.i++
        return out
      }
      if (c < ' ')
        throw new Stop(
          this.i,
          c === '\n' || c === '\r'
            ? 'There is a line break inside a text: write \\n, or close the quote'
            : 'There is a control character inside a text',
        )
      if (c !== '\\') {
        const from = this.i
        do this.i++
        while (text.charCodeAt(this.i) >= 0x20 && text[this.i] !== '"' && text[this.i] !== '\\')
        out += text.slice(from, this.i)
        continue
      }
      const e = text[this.i + 1] ?? ''
      if (e === 'u') {
        const hex = text.slice(this.i + 2, this.i + 6)
        if (!/^[0-9a-fA-F]{4}$/.test(hex))
          throw new Stop(this.i, 'Four hexadecimal digits were expected after \\u')
        out += String.fromCharCode(parseInt(hex, 16))
        this.i += 6
      } else if (Object.hasOwn(escapes, e)) {
        out += escapes[e]
        this.i += 2
      } else throw new Stop(this.i, `“\\${e}” is not an escape in JSON`)
    }
  }
}
const literals = [
  ['true', true],
  ['false', false],
  ['null', null],
] as const

/** Parses one JSON text. Never throws. Places are UTF-16 units of `text`. */
export function parseJson(text: string): JsonResult {
  try {
    return { ok: true, value: new Parse(text).whole() }
  } catch (error) {
    if (error instanceof Stop) return { ok: false, at: error.at, message: error.message }
    throw error
  }
}

/** The last of a list in document order that begins at a place or before it; -1 where none does. */
function lastFrom(count: number, place: number, startOf: (i: number) => number): number {
  let low = -1
  let high = count - 1
  while (low < high) {
    const middle = (low + high + 1) >> 1
    if (startOf(middle) <= place) low = middle
    else high = middle - 1
  }
  return low
}

/** The JSON pointer (RFC 6901) of the innermost value, or of the member whose name stands there, at a place in the text. */
export function pointerAt(value: JsonValue, place: number): string {
  let pointer = ''
  let at: JsonValue = value
  for (;;) {
    if (at.kind === 'object') {
      const { members }: Extract<JsonValue, { kind: 'object' }> = at
      const m = members[lastFrom(members.length, place, (i) => members[i]!.keyStart)]
      if (!m) return pointer
      const step = `/${m.key.replace(/~/g, '~0').replace(/\//g, '~1')}`
      if (place < m.keyEnd) return pointer + step
      if (place < m.value.start || place >= m.value.end) return pointer
      pointer += step
      at = m.value
    } else if (at.kind === 'array') {
      const { items }: Extract<JsonValue, { kind: 'array' }> = at
      const i = lastFrom(items.length, place, (k) => items[k]!.start)
      const item = items[i]
      if (!item || place >= item.end) return pointer
      pointer += `/${i}`
      at = item
    } else return pointer
  }
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
  const ownTypes =
    type?.kind === 'string'
      ? [type.value]
      : type?.kind === 'array'
        ? type.items.flatMap((t) => (t.kind === 'string' ? [t.value] : []))
        : []
  const graph = member(value, '@graph')
  return graph ? [...ownTypes, ...typesOf(graph)] : ownTypes
}

/** Every string value in a document, with its place, in order; keys are not among them. */
export function* stringsIn(value: JsonValue): Generator<Extract<JsonValue, { kind: 'string' }>> {
  const open: JsonValue[] = [value]
  for (let at = open.pop(); at; at = open.pop()) {
    if (at.kind === 'string') yield at
    else if (at.kind === 'array') for (let i = at.items.length - 1; i >= 0; i--) open.push(at.items[i]!)
    else if (at.kind === 'object')
      for (let i = at.members.length - 1; i >= 0; i--) open.push(at.members[i]!.value)
  }
}
