import { rule } from '../rule.ts'

/** No doctype. */
export const shellDoctype = rule({
  id: 'shell-doctype',
  family: 'shell',
  severity: 'nit',
  sign: 'missing',
  name: 'No doctype',
  basis: 'WHATWG HTML 13.1.1',
  why: 'Without it browsers lay the page out as they did in the 1990s.',
  mend: 'Begin the page with <!doctype html>, and look at it afterwards: sizes and margins may change.',
  needs: ['head', 'text'],
  message: () => 'The page does not begin with <!doctype html>.',
  check({ page }, mark) {
    if (!page.doctype)
      mark(null, {}, { label: 'Add the doctype', edits: [{ target: 'doctype', edit: { value: 'html' } }] })
  },
  examples: {
    clean: [
      '<!doctype html><p>x',
      '<!-- first a comment --><!DOCTYPE HTML PUBLIC "-//W3C//DTD HTML 4.01//EN"><p>x',
    ],
    marked: [{ html: '<html><p>x', at: null, says: /does not begin with/ }],
  },
})
