/** What is said of an element by those that it stands in. */
import { isElement, type Element, type Node } from '../read/parse.ts'

/**
 * What the nearest element around says, itself among them; null where none says anything. Kept for each element that was
 * passed on the way: of many blocks that stand as deep, each would walk the whole way up.
 */
export function saidAround<Said>(
  saidBy: (element: Element) => Said | null,
): (element: Element) => Said | null {
  const known = new WeakMap<Element, { said: Said | null }>()
  return (element) => {
    const passed: Element[] = []
    let answer: { said: Said | null } = { said: null }
    for (let node: Node | null = element; node && isElement(node); node = node.parentNode as Node | null) {
      const before = known.get(node)
      if (before) {
        answer = before
        break
      }
      passed.push(node)
      const said = saidBy(node)
      if (said === null) continue
      answer = { said }
      break
    }
    for (const one of passed) known.set(one, answer)
    return answer.said
  }
}
