/**
 * A value that is equal to `now` and made of as many of the parts of `before` as are equal: whoever draws such a part need
 * not draw it anew. Of plain lists and objects, as they come from a worker; anything else is taken as it is.
 */
export function shareEqual<Value>(before: unknown, now: Value): Value {
  return shared(before, now, 0) as Value
}

/** What lies deeper is taken as it is: how deep a page's data goes is for others to say. */
const DEEPEST = 64

function shared(before: unknown, now: unknown, depth: number): unknown {
  if (Object.is(before, now)) return before
  if (depth === DEEPEST) return now
  if (Array.isArray(before) && Array.isArray(now)) {
    const out = now.map((item: unknown, i) => shared(before[i], item, depth + 1))
    return out.length === before.length && out.every((item, i) => Object.is(item, before[i])) ? before : out
  }
  if (!isPlain(before) || !isPlain(now)) return now
  const names = Object.keys(now)
  const out: Record<string, unknown> = {}
  let isSame = names.length === Object.keys(before).length
  for (const name of names) {
    const has = Object.hasOwn(before, name)
    const value = has ? shared(before[name], now[name], depth + 1) : now[name]
    isSame &&= has && Object.is(value, before[name])
    // A page may name a property as it likes.
    Object.defineProperty(out, name, { value, enumerable: true, writable: true, configurable: true })
  }
  return isSame ? before : out
}

const isPlain = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && Object.getPrototypeOf(value) === Object.prototype
