import fc from 'fast-check'
import { expect, test } from 'vitest'
import { shareEqual } from './share-equal.ts'

const values = fc.anything({ withNullPrototype: false, maxDepth: 4 })

test('comes to what was given, and to the very object before where that is equal (generated)', () => {
  fc.assert(
    fc.property(values, values, (before, now) => {
      expect(shareEqual(before, now)).toStrictEqual(now)
      const copy = structuredClone(now)
      if (typeof now === 'object' && now !== null) expect(shareEqual(now, copy)).toStrictEqual(copy)
    }),
  )
  const json = fc.jsonValue({ maxDepth: 4 }).filter((value) => typeof value === 'object' && value !== null)
  fc.assert(
    fc.property(json, (before) => {
      expect(shareEqual(before, structuredClone(before))).toBe(before)
    }),
  )
})

test('keeps the parts that are equal, whatever they are called', () => {
  const before = JSON.parse('{"a":[1,{"b":2}],"__proto__":{"c":3},"d":4}') as Record<string, unknown>
  const now = JSON.parse('{"a":[1,{"b":2}],"__proto__":{"c":3},"d":5}') as Record<string, unknown>
  const both = shareEqual(before, now)
  expect(JSON.stringify(both)).toBe(JSON.stringify(now))
  expect(both).not.toBe(before)
  expect(both.a).toBe(before.a)
  expect(Object.getOwnPropertyDescriptor(both, '__proto__')!.value).toBe(
    Object.getOwnPropertyDescriptor(before, '__proto__')!.value,
  )
})

test('goes as deep as a page’s data may go, and takes what lies deeper as it is', () => {
  const nested = () => {
    let value: unknown = 'deep'
    for (let i = 0; i < 5000; i++) value = [value]
    return value
  }
  const now = nested()
  let both: unknown = shareEqual(nested(), now)
  for (let i = 0; i < 5000; i++) both = (both as unknown[])[0]
  expect(both).toBe('deep')
})
