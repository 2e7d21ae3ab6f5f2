import { rule } from '../rule.ts'

/** No character encoding declared, or declared too late. */
export const shellCharset = rule({
  id: 'shell-charset',
  family: 'shell',
  severity: 'flaw',
  sign: 'missing',
  name: 'Character encoding not declared',
  basis: 'WHATWG HTML 4.2.5.4: declared within the first 1024 bytes',
  why: 'Browsers must guess, and when they guess wrong, accents and dashes turn into strange characters.',
  mend: 'Declare it at the top of the head: <meta charset="utf-8">.',
  needs: ['head'],
  message: ({ late, encoding }) =>
    late
      ? 'The encoding is declared after the first 1024 bytes, which is too late.'
      : `No encoding is declared; it was read as ${encoding}.`,
  check({ page }, mark) {
    const { by, late, utf8, encoding } = page.charset
    if (by === 'bom' || by === 'header' || by === 'meta' || by === 'xml') return
    mark(
      late,
      { late: late !== null, encoding },
      utf8 ? { label: 'Declare UTF-8', edits: [{ target: 'charset', edit: { value: 'utf-8' } }] } : undefined,
    )
  },
  examples: {
    clean: [
      '<meta charset=utf-8>',
      '\ufeff<p>A BOM says it.',
      '<meta http-equiv="Content-Type" content="text/html; charset=utf-8">',
    ],
    marked: [
      { html: '<title>x</title>', at: null, says: /No encoding is declared; it was read as utf-8/ },
      {
        html: `<head><!--${'x'.repeat(1100)}--><meta charset=utf-8></head>`,
        at: '<meta',
        says: /after the first 1024 bytes/,
      },
    ],
  },
})
