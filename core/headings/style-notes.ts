/** Which selectors of a style sheet address a tag: what a heading loses or gains when its tag changes and its class stays. */
import { generate, parse, walk, type CssNode } from 'css-tree'

export interface StyleNote {
  selector: string
  /** The tag of those asked for that it addresses. */
  tag: string
  /** Line in the style sheet, from 1. */
  line: number
}

/** Such selectors in order; a style sheet that cannot be read in parts gives those of the rest. Never throws. */
export function selectorsFor(css: string, tags: readonly string[]): StyleNote[] {
  const wanted = new Set(tags.map((t) => t.toLowerCase()))
  const notes: StyleNote[] = []
  let sheet: CssNode
  try {
    sheet = parse(css, {
      positions: true,
      parseValue: false,
      parseCustomProperty: false,
      onParseError: () => {},
    })
  } catch {
    return []
  }
  walk(sheet, {
    visit: 'Selector',
    enter(selector) {
      let tag: string | null = null
      walk(selector, (node) => {
        if (node.type === 'TypeSelector' && wanted.has(node.name.toLowerCase()))
          tag ??= node.name.toLowerCase()
      })
      if (tag !== null) notes.push({ selector: generate(selector), tag, line: selector.loc?.start.line ?? 1 })
    },
  })
  return notes
}
