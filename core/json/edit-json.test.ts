/** One value changes, and every byte elsewhere stays; what is put in comes back out. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addItem, addMember, layOut, moveItem, removeValue, safeJson, setValue, step } from './edit-json.ts'
import { parseJson, pointerAt, valueAt } from './json.ts'

/** A JSON text as people write them: any indentation, any line ends, odd spacing, numbers in any form. */
const layout = fc.record({
  indent: fc.constantFrom<string | number>('', 2, 4, '\t'),
  crlf: fc.boolean(),
  colon: fc.constantFrom(': ', ':', ' : '),
})
const hostile = fc.oneof(
  fc.string({ unit: 'binary' }),
  fc.constantFrom(
    '</script>',
    '<!--',
    '-->',
    '<script>',
    '\u2028\u2029',
    '"\\',
    '__proto__',
    'constructor',
    '',
    'é',
    '😀',
    '\ud800',
  ),
)
const key = fc
  .oneof(fc.constantFrom('@type', 'name', 'a/b', 'c~d', ''), fc.string({ maxLength: 6 }))
  .filter((k) => k !== '__proto__')
const { document } = fc.letrec<{ document: unknown; value: unknown }>((tie) => ({
  value: fc.oneof(
    { depthSize: 'small' },
    hostile,
    fc.integer(),
    fc.boolean(),
    fc.constant(null),
    fc.array(tie('value'), { maxLength: 4 }),
    fc.dictionary(key, tie('value'), { maxKeys: 4 }),
  ),
  document: fc.dictionary(key, tie('value'), { minKeys: 1, maxKeys: 5 }),
}))
const written = (
  value: unknown,
  { indent, crlf, colon }: { indent: string | number; crlf: boolean; colon: string },
) => {
  let text = JSON.stringify(value, null, indent)
  // Between a name and its value alone: a name's closing quote is followed by a colon, a text's is not.
  if (indent === '')
    text = text.replace(/("(?:[^"\\]|\\.)*")(:?)/g, (_, words: string, name) => words + (name ? colon : ''))
  return crlf ? text.replace(/\n/g, '\r\n') : text
}
function* pointersOf(value: unknown, at = ''): Generator<string> {
  yield at
  if (Array.isArray(value)) for (const [i, v] of value.entries()) yield* pointersOf(v, at + step(i))
  else if (typeof value === 'object' && value !== null)
    for (const [k, v] of Object.entries(value)) yield* pointersOf(v, at + step(k))
}
const get = (value: unknown, pointer: string): unknown =>
  pointer
    .split('/')
    .slice(1)
    .reduce<unknown>(
      (at, s) => (at as Record<string, unknown>)[s.replace(/~1/g, '/').replace(/~0/g, '~')],
      value,
    )

const cases = fc.tuple(document, layout, fc.nat(), hostile)

describe('a value set', () => {
  it('is there, and nothing else has changed a byte', () => {
    fc.assert(
      fc.property(cases, ([value, how, n, text]) => {
        const json = written(value, how)
        const pointers = [...pointersOf(value)].filter((p) => p !== '')
        const pointer = pointers[n % pointers.length]!
        const after = setValue(json, pointer, text)
        expect(get(JSON.parse(after), pointer)).toBe(text)
        const parsed = parseJson(json)
        const place = parsed.ok ? valueAt(parsed.value, pointer)! : null
        expect(after.slice(0, place!.start)).toBe(json.slice(0, place!.start))
        expect(after.endsWith(json.slice(place!.end))).toBe(true)
      }),
    )
  })
  it('to what it is already touches nothing', () => {
    fc.assert(
      fc.property(cases, ([value, how, n]) => {
        const json = written(value, how)
        const pointers = [...pointersOf(value)]
        const pointer = pointers[n % pointers.length]!
        expect(setValue(json, pointer, get(value, pointer))).toBe(json)
      }),
    )
  })
})

describe('members and entries', () => {
  it('that are added stand behind the others, laid out as they are, and go again without a trace', () => {
    fc.assert(
      fc.property(cases, ([value, how, , text]) => {
        const json = written(value, how)
        fc.pre(!('added' in (value as object)))
        const more = addMember(json, '', 'added', text)
        expect(JSON.parse(more)).toEqual({ ...(value as object), added: text })
        expect(removeValue(more, '/added')).toBe(json)
      }),
    )
  })
  it('of a list are put in, moved and taken out as in the list itself', () => {
    fc.assert(
      fc.property(
        fc.array(fc.oneof(hostile, fc.integer(), fc.constant({ a: 1 })), { minLength: 1, maxLength: 5 }),
        layout,
        fc.nat(),
        fc.nat(),
        (list, how, a, b) => {
          const json = written({ list }, how)
          const [i, j] = [a % list.length, b % list.length]
          const inserted = [...list.slice(0, i), 'new', ...list.slice(i)]
          expect(JSON.parse(addItem(json, '/list', i, 'new')).list).toEqual(inserted)
          const moved = [...list]
          moved.splice(j, 0, moved.splice(i, 1)[0]!)
          expect(JSON.parse(moveItem(json, '/list', i, j)).list).toEqual(moved)
          expect(JSON.parse(removeValue(json, `/list/${i}`)).list).toEqual(list.filter((_, k) => k !== i))
        },
      ),
    )
  })
  it('keep the layout that is there', () => {
    expect(addMember('{\n    "a": 1\n}', '', 'b', { c: 2 })).toBe(
      '{\n    "a": 1,\n    "b": {\n        "c": 2\n    }\n}',
    )
    expect(addMember('{ "a": 1 }', '', 'b', 'x')).toBe('{ "a": 1, "b": "x" }')
    expect(addMember('{"a":1}', '', 'b', 'x')).toBe('{"a":1,"b":"x"}')
    expect(addMember('{\r\n\t"a": {}\r\n}', '/a', 'b', 1)).toBe('{\r\n\t"a": {\r\n\t\t"b": 1\r\n\t}\r\n}')
    expect(addItem('{\n  "l": [\n    1\n  ]\n}', '/l', 1, 2)).toBe('{\n  "l": [\n    1,\n    2\n  ]\n}')
    expect(setValue('{"a":{"b":1}}', '/a', { c: [1] })).toBe('{"a":{"c":[1]}}')
  })
  it('at pointers that lead nowhere, or in a text that is no JSON, change nothing', () => {
    for (const broken of ['{"a":1,}', '', '[1,2'])
      for (const edit of [
        setValue(broken, '/a', 2),
        addMember(broken, '', 'b', 2),
        removeValue(broken, '/a'),
        moveItem(broken, '', 0, 1),
      ])
        expect(edit).toBe(broken)
    expect(setValue('{"a":1}', '/b/c', 2)).toBe('{"a":1}')
    expect(removeValue('{"a":[1]}', '/a/7')).toBe('{"a":[1]}')
  })
})

describe('pointers', () => {
  it('lead from every place in a text to the value that stands there (RFC 6901)', () => {
    fc.assert(
      fc.property(document, layout, (value, how) => {
        const json = written(value, how)
        const parsed = parseJson(json)
        if (!parsed.ok) throw new Error(parsed.message)
        for (const pointer of pointersOf(value)) {
          const at = valueAt(parsed.value, pointer)!
          expect(pointerAt(parsed.value, at.start)).toBe(pointer)
        }
      }),
    )
  })
})

describe('a text in a script element', () => {
  it('says the same, and can neither end the element nor begin a comment', () => {
    fc.assert(
      fc.property(document, (value) => {
        const safe = safeJson(JSON.stringify(value))
        expect(JSON.parse(safe)).toEqual(JSON.parse(JSON.stringify(value)))
        expect(safe).not.toMatch(/<\/script|<!--|[\u2028\u2029]/i)
      }),
    )
  })
})

describe('laid out', () => {
  it('says the same, each name, number and string spelt as it was, however it was written', () => {
    expect(layOut('\n{"a":1.0,"b":[],"c":{"\\u0061":[1e2,"<\\/b>"]}}\r\n')).toBe(
      '\n{\r\n  "a": 1.0,\r\n  "b": [],\r\n  "c": {\r\n    "\\u0061": [\r\n      1e2,\r\n      "<\\/b>"\r\n    ]\r\n  }\r\n}\r\n',
    )
    expect(layOut('{"a":')).toBe('{"a":')
    fc.assert(
      fc.property(document, layout, (value, how) => {
        const text = layOut(written(value, how))
        expect(JSON.parse(text)).toEqual(JSON.parse(JSON.stringify(value)))
        expect(text.replace(/\r/g, '')).toBe(JSON.stringify(value, null, 2))
        expect(layOut(text)).toBe(text)
      }),
    )
  })
})
