import fc from 'fast-check'
import { expect, it } from 'vitest'
import { isElement, parsePage, type Element, type Node } from '../read/parse.ts'
import { saidAround } from './around.ts'

const said = ({ tagName }: Element): string | null =>
  tagName === 'pre' || tagName === 'svg' ? tagName : null

/** The same, walked all the way for each. */
function walked(element: Element): string | null {
  for (let node: Node | null = element; node && isElement(node); node = node.parentNode as Node | null)
    if (said(node) !== null) return said(node)
  return null
}
function elementsOf(html: string): Element[] {
  const elements: Element[] = []
  const stack: Node[] = [parsePage(html).document]
  for (let node = stack.pop(); node; node = stack.pop()) {
    if (isElement(node)) elements.push(node)
    if ('childNodes' in node) stack.push(...node.childNodes)
  }
  return elements
}

it('is what a walk up says, for every element, in whatever order they are asked (generated)', () => {
  const tag = fc.constantFrom('div', 'pre', 'svg', 'b', 'p', 'g')
  const tags = fc.array(
    tag.chain((name) => fc.constantFrom(`<${name}>`, `</${name}>`, 'x')),
    { maxLength: 40 },
  )
  fc.assert(
    fc.property(tags, fc.array(fc.nat(200), { maxLength: 60 }), (pieces, order) => {
      const elements = elementsOf(`<body>${pieces.join('')}`)
      const around = saidAround(said)
      for (const at of [...order, ...elements.keys()]) {
        const element = elements[at % elements.length]!
        expect(around(element)).toBe(walked(element))
      }
    }),
  )
})
