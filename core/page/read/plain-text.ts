import { parseFragment, type DefaultTreeAdapterTypes } from 'parse5'
import { fold } from '../../strings.ts'

const markup = /<\/?[a-z][^<>]*>|<!--|&(?:[a-z][a-z0-9]*|#\d+|#x[\da-f]+);/i

/** Text of a tree in order; a stack of its own, because hostile nesting goes deep. */
function textWithin(nodes: DefaultTreeAdapterTypes.ChildNode[]): string {
  let text = ''
  const stack = [...nodes].reverse()
  for (let node = stack.pop(); node; node = stack.pop()) {
    if ('value' in node) text += node.value
    else if ('childNodes' in node)
      for (let i = node.childNodes.length - 1; i >= 0; i--) stack.push(node.childNodes[i]!)
  }
  return text
}

/** A text that was written as markup, as it would be read: tags gone, references decoded, also where they were encoded twice. */
export function plainText(text: string): string {
  let plain = text
  for (let i = 0; i < 3 && markup.test(plain); i++) plain = textWithin(parseFragment(plain).childNodes)
  return fold(plain)
}
