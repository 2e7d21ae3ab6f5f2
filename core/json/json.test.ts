import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { parseJson, typesOf, type JsonValue } from './json.ts'

function plain(v: JsonValue): unknown {
  if (v.kind === 'object') return Object.fromEntries(v.members.map((m) => [m.key, plain(m.value)]))
  return v.kind === 'array' ? v.items.map(plain) : v.value
}

describe('JSON with places', () => {
  it('reads what the platform writes, each value at its place', () => {
    fc.assert(
      fc.property(fc.jsonValue(), fc.constantFrom(undefined, 1, '\t'), (value, indent) => {
        const text = JSON.stringify(value, null, indent)
        const result = parseJson(text)
        if (!result.ok) throw new Error(result.message)
        expect(JSON.stringify(plain(result.value))).toBe(JSON.stringify(JSON.parse(text)))
        expect(JSON.parse(text.slice(result.value.start, result.value.end))).toEqual(JSON.parse(text))
      }),
    )
  })
  it('accepts and refuses what the platform does (RFC 8259), and says where', () => {
    const broken = fc
      .tuple(fc.json(), fc.nat(), fc.constantFrom('', ',', '"', '}', '\\', "'", '\n', '1', ' '))
      .map(([json, at, extra]) => {
        const i = at % (json.length + 1)
        return json.slice(0, i) + extra + json.slice(i + 1)
      })
    fc.assert(
      fc.property(broken, (text) => {
        let valid = true
        try {
          JSON.parse(text)
        } catch {
          valid = false
        }
        const result = parseJson(text)
        expect(result.ok, text).toBe(valid)
        if (!result.ok) expect(result.at).toBeLessThanOrEqual(text.length)
      }),
      { numRuns: 3000 },
    )
  })
  it('names what people do', () => {
    const message = (text: string) => {
      const r = parseJson(text)
      return r.ok ? '' : r.message
    }
    expect(message('{"a":1,}')).toMatch(/comma before the closing brace/)
    expect(message('{"a" 1}')).toMatch(/A colon was expected, but “1}” stands there/)
    expect(message('{“a”:1}')).toMatch(/name in double quotes/)
    expect(message('{"a":"x\ny"}')).toMatch(/line break inside a text/)
    expect(message('{} -->')).toMatch(/HTML comment/)
    expect(message('[')).toMatch(/the end of the block/)
    expect(message('['.repeat(100_000))).toMatch(/levels deep/)
  })
  it('lists types at the top, in arrays and graphs', () => {
    const types = (text: string) => {
      const r = parseJson(text)
      return r.ok ? typesOf(r.value) : null
    }
    expect(types('{"@type":["A","B"],"x":{"@type":"C"}}')).toEqual(['A', 'B'])
    expect(types('[{"@type":"A"},{"@graph":[{"@type":"B"}]}]')).toEqual(['A', 'B'])
  })
})
