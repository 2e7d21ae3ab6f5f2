import { rule } from '../rule.ts'

/** Errors after which the reader of the page loses something that its writer meant: an attribute, a comment, the head. */
const serious = new Map(
  Object.entries({
    'eof-in-tag': 'the page ends within a tag: a quote or a “>” is missing',
    'eof-in-comment': 'a comment is never closed: everything after it is lost',
    'eof-in-script-html-comment-like-text': 'a script that begins a comment is never closed',
    'missing-attribute-value': 'an attribute has “=” and no value',
    'unexpected-character-in-attribute-name':
      'a quote is missing before: an attribute’s name has a quote or “<” in it',
    'missing-whitespace-between-attributes':
      'a quote is missing or one too many: two attributes run into each other',
    'incorrectly-opened-comment': 'a comment is opened wrongly: “<!--” is expected',
    'abandoned-head-element-child': 'something that belongs in the head comes after it',
    'disallowed-content-in-noscript-in-head': 'something not allowed in the head closed it',
  }),
)

/** Errors of the HTML standard, one mark for each of its codes. */
export const shellParse = rule({
  id: 'shell-parse',
  family: 'shell',
  shownOn: { head: 'broken' },
  severity: 'nit',
  sign: 'order',
  name: 'Broken markup',
  basis: 'WHATWG HTML 13.2.2, parse errors by their code',
  why: 'Browsers guess what is meant, and a forgotten quote can swallow everything after it.',
  mend: 'Look at the place in the source: usually a quote, a “>” or an end tag is missing just before it.',
  needs: ['text'],
  weigh: ({ code }) => (serious.has(code as string) ? 'flaw' : 'nit'),
  message: ({ code, count, what }) => `${what || code}${count === 1 ? '' : `, ${count} times`} (${code}).`,
  check({ page }, mark) {
    const byCode = new Map<string, { at: number; count: number }>()
    for (const { code, at } of page.parseErrors) {
      const known = byCode.get(code)
      if (known) known.count++
      // That the doctype is missing has a rule of its own.
      else if (code !== 'missing-doctype') byCode.set(code, { at, count: 1 })
    }
    for (const [code, { at, count }] of byCode) {
      const what = serious.get(code) ?? code.replace(/-/g, ' ')
      const start = Math.max(0, Math.min(at, page.length - 1))
      mark(page.length === 0 ? null : { start, end: null }, {
        code,
        count,
        what: what[0]!.toUpperCase() + what.slice(1),
      })
    }
  },
  examples: {
    clean: ['<!doctype html><html lang=en><head><title>x</title></head><body><p>x</p></body></html>'],
    marked: [
      { html: '<!doctype html><p class="a>x</p><p>y', says: /The page ends within a tag.* \(eof-in-tag\)/ },
      { html: '<!doctype html><p>x<!-- y', says: /never closed.*eof-in-comment/ },
      { html: '<!doctype html><p title="a"class=b>x', says: /run into each other/ },
      {
        html: '<!doctype html><p lang=en lang=da>x',
        says: /Duplicate attribute \(duplicate-attribute\)/,
      },
    ],
  },
})
