/** Values and methods that stay the same object while they say the same: who is given one is not drawn anew for it. */
import { dequal } from 'dequal'
import { useLayoutEffect, useState } from 'react'

/** The value, or the one given before where that is equal to it. */
export function useSame<Value>(value: Value): Value {
  const [keep] = useState(keeper<Value>)
  return keep(value)
}

function keeper<Value>(): (value: Value) => Value {
  let kept: Value | undefined
  return (value) => (kept !== undefined && dequal(kept, value) ? kept : (kept = value))
}

type Methods = Record<string, (...args: never[]) => unknown>

/** One object for as long as this is on the screen; its methods do what those given last do. */
export function useNewest<Given extends Methods>(methods: Given): Given {
  const [{ stable, take }] = useState(() => delegating(methods))
  useLayoutEffect(() => take(methods))
  return stable
}

function delegating<Given extends Methods>(first: Given): { stable: Given; take(methods: Given): void } {
  let newest = first
  const stable = Object.fromEntries(
    Object.keys(first).map((name) => [name, (...args: never[]) => newest[name]!(...args)]),
  ) as Given
  return { stable, take: (methods) => void (newest = methods) }
}
