import { describe, expect, it } from 'vitest'
import { selectorsFor } from './style-notes.ts'

describe('selectors that address a tag', () => {
  it('are found with their line, within lists, media and combinations, and no others', () => {
    const css =
      'h2, .a { color: red }\n.h2 { x: y }\n@media print {\n  main > h2.big:first-child + p { top: 0 }\n}\n[h2] {}\n#h2 {}'
    expect(selectorsFor(css, ['h2', 'h4'])).toEqual([
      { selector: 'h2', tag: 'h2', line: 1 },
      { selector: 'main>h2.big:first-child+p', tag: 'h2', line: 4 },
    ])
    expect(selectorsFor('H2 { }', ['h2'])).toHaveLength(1)
  })
  it('come from what can be read of a broken style sheet; nothing makes it throw', () => {
    expect(selectorsFor('h2 { color: ; } }} h3 {', ['h2', 'h3']).map((n) => n.tag)).toContain('h2')
    expect(selectorsFor('\0<!-- h2 { -->', ['h2'])).toBeInstanceOf(Array)
  })
})
