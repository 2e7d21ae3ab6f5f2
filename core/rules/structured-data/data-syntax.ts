import { lineAndColumn, lineStarts } from '../../page/source/places.ts'
import { dataOf } from '../../structured-data/read.ts'
import { rule } from '../rule.ts'

/** A JSON-LD block that is not valid JSON. */
export const dataSyntax = rule({
  id: 'data-syntax',
  family: 'data',
  severity: 'blocker',
  sign: 'order',
  name: 'The structured data is not valid JSON',
  basis: 'RFC 8259; JSON-LD 1.1, 7 (data in HTML script elements)',
  why: 'One wrong character, and machines ignore the whole block.',
  mend: 'Correct it at the place named.',
  needs: ['data'],
  message: ({ message, line, column }) => `${message} (line ${line} of the block, column ${column}).`,
  check({ page }, mark) {
    const { blocks } = dataOf(page)
    for (const [i, block] of page.data.entries()) {
      const { error } = blocks[i]!
      if (!error) continue
      const { at } = error
      const { line, column } = lineAndColumn(lineStarts(block.json), at - block.jsonStart)
      mark(
        { start: at, end: at + 1 },
        { message: block.json.trim() === '' ? 'The block is empty' : error.message, line, column },
      )
    }
  },
  examples: {
    clean: [
      '<script type="application/ld+json">{"@type":"Thing"}</script>',
      '<script>not json</script>',
      '<script type="application/json">{,}</script>',
    ],
    marked: [
      {
        html: '<script type="application/ld+json">{"a":1,}</script>',
        at: '}</script',
        says: /comma before the closing brace.*line 1 of the block, column 8/,
      },
      {
        html: '<script type="application/ld+json">\n<!-- {"a":1} --></script>',
        at: '<!--',
        says: /HTML comment is wrapped/,
      },
      {
        html: '<script type="application/ld+json">{"a":"x</script>',
        says: /never closed with a double quote/,
      },
      {
        html: "<script type='application/ld+json'>{'a':1}</script>",
        says: /name in double quotes was expected/,
      },
      { html: '<script type="application/ld+json"> </script>', says: /The block is empty/ },
    ],
  },
})
